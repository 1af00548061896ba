import { z } from "zod";
import { applyEdits, type Change, type Edit, EditRefusedError, editsBetween, inverseEdit } from "@/study/model/edit";
import { type RevisionKind, RevisionKind as RevisionKindSchema } from "@/study/model/history";
import { Study } from "@/study/model/study";
import { keepUnsaved, randomId, type UnsavedEdits, type UnsavedShelf, unsavedOf } from "./unsaved-edits";

/** What the page knows of its study. */
export interface StudyState {
  study: Study;
  /** The revision on show, unsaved edits included. */
  revision: number;
  /** Edits that are not yet confirmed as saved. */
  unsaved: number;
  /** Changes that are being taken back or done again: asked for, not yet recorded. */
  turning: number;
  /** A sentence when the last edit could not be carried out or saved; null otherwise. */
  fault: string | null;
  /** True when there is a change to take back, of this visit or an earlier one. */
  canUndo: boolean;
  canRedo: boolean;
}

const Saved = z.object({ study: Study, revision: z.int() });
const Recorded = z.object({ revision: z.int() });
const Fault = z.object({ code: z.string(), message: z.string() });
const ChangeSchema = z.object({ subject: z.string(), id: z.string(), from: z.unknown(), to: z.unknown(), at: z.number().nullable() });
const RevisionSchema = z.object({
  revision: z.int(),
  how: RevisionKindSchema,
  of: z.int().nullable(),
  when: z.string(),
  changes: z.array(ChangeSchema),
});
const TrailSchema = z.object({ revision: z.int(), undo: z.int().nullable(), redo: z.int().nullable(), revisions: z.array(RevisionSchema) });

/** The revisions that would be taken back and done again next; null: none. */
export interface Turns {
  undo: number | null;
  redo: number | null;
}

/** A revision on the trail. */
export interface TrailRevision {
  revision: number;
  how: RevisionKind;
  of: number | null;
  when: string;
  changes: Change[];
}

/** How long to wait before asking a silent server again. */
const RETRY_MS = 3000;
/** Browsers let requests up to 64 KB outlive the page. */
const OUTLIVES_PAGE = 20_000;
const SILENT = "The server does not answer. Your changes are kept on this page and will be saved when it is back.";

const KEPT = "Your changes are kept on this page and are sent again.";
const OVERTAKEN = "The study was changed in another window. Its newest state is shown now; please make your change again.";

type Fetch = (url: string, init?: RequestInit) => Promise<Response>;

/** The page's own tab storage; none while the server draws. */
const tabShelf = () => (typeof sessionStorage === "undefined" ? null : sessionStorage);

/** What an edit or a change is of; one of the responses moves rows, and so touches everything. */
const ALL = "responses";
const touchedBy = (list: readonly (Edit | Change)[]) =>
  new Set(list.map((e) => (e.subject === ALL || e.subject === "name" ? e.subject : `${e.subject} ${e.id}`)));
const meet = (a: ReadonlySet<string>, b: ReadonlySet<string>) =>
  a.size > 0 && b.size > 0 && (a.has(ALL) || b.has(ALL) || [...a].some((what) => b.has(what)));

/**
 * The study on this page. An edit shows at once and is saved in order behind it, through the server's one door. What could not be saved stays on the page, over a
 * reload too, and is sent again; the server knows edits that come twice. Edits made meanwhile in another window are taken in, and only those that change the same
 * object give way to them; what the server refuses is taken back, with the reason, so that nothing seems saved that is not.
 * Undo and redo go by the record on the server, so they outlive a restart.
 */
export class StudyStore {
  private state: StudyState;
  private readonly listeners = new Set<() => void>();
  private pending: UnsavedEdits[] = [];
  private flushing: Promise<void> | null = null;
  private turning: Promise<unknown> = Promise.resolve();
  /** Changes asked for here, those that take back or do again left out. */
  private asked = 0;
  /** The revision the server has confirmed. */
  private saved: number;
  /** Edits of an earlier load are sent before they are shown: the server may have carried them out already. */
  private behind = false;

  constructor(
    readonly id: string,
    study: Study,
    revision: number,
    turns: Turns = { undo: revision > 1 ? revision : null, redo: null },
    private readonly send: Fetch = (url, init) => fetch(url, init),
    private readonly shelf: UnsavedShelf | null = tabShelf(),
  ) {
    this.saved = revision;
    this.state = { study, revision, unsaved: 0, turning: 0, fault: null, canUndo: turns.undo !== null, canRedo: turns.redo !== null };
  }

  readonly subscribe = (listener: () => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };
  readonly snapshot = () => this.state;

  /** Goes on with what an earlier load of this page could not save. To be called once, when the page is awake. */
  resume(): void {
    const left = unsavedOf(this.id, this.shelf);
    if (left === null) return;
    this.behind = true;
    this.saved = left.on; // so that what others have changed since is looked at
    this.keep([...left.edits, ...this.pending]);
    this.set({ unsaved: this.pending.length });
    this.flush();
  }

  /** Carries out edits as one. Returns false when they were refused; the state then says why. */
  edit(...edits: Edit[]): boolean {
    return this.carryOut({ edits, how: "edit", of: null });
  }

  /** Takes the latest change back that is not taken back yet, itself as a recorded change. */
  undo(): Promise<boolean> {
    return this.turn("undo");
  }

  /** Does again what was taken back last, as long as nothing newer has been changed. */
  redo(): Promise<boolean> {
    return this.turn("redo");
  }

  /** Goes back to the study as it stood after a revision; what came since stays on the trail. */
  async restore(revision: number): Promise<boolean> {
    const point = await this.ask(`trail/${revision}`, z.object({ study: Study }));
    if (!point) return false;
    const edits = editsBetween(this.state.study, point.study);
    if (edits.length > 0) return this.carryOut({ edits, how: "restore", of: revision });
    this.set({ fault: "The study stands now as it stood then." });
    return false;
  }

  /** A part of the trail, newest first. Null when the server does not answer; the state then says so. */
  async trail(before: number | null): Promise<TrailRevision[] | null> {
    await this.settled();
    const page = await this.ask(`trail?most=40${before === null ? "" : `&before=${before}`}`, TrailSchema);
    if (!page) return null;
    if (before === null) this.set({ canUndo: page.undo !== null, canRedo: page.redo !== null });
    return page.revisions as TrailRevision[];
  }

  dismissFault(): void {
    this.set({ fault: null });
  }

  /** Resolves when nothing more can be saved for now: all is saved, refused, or waits for the server to come back. */
  async settled(): Promise<void> {
    while (this.flushing) await this.flushing;
  }

  /** One after the other: each must see what the one before has left. */
  private turn(how: "undo" | "redo"): Promise<boolean> {
    const { asked } = this;
    this.set({ turning: this.state.turning + 1 });
    const turned = this.turning.then(() => this.turnOnce(how, asked)).finally(() => this.set({ turning: this.state.turning - 1 }));
    this.turning = turned;
    return turned;
  }

  private async turnOnce(how: "undo" | "redo", asked: number): Promise<boolean> {
    await this.settled();
    const next = await this.ask("trail?most=1", TrailSchema);
    if (!next) return false;
    const of = next[how];
    this.set({ canUndo: next.undo !== null, canRedo: next.redo !== null });
    if (of === null) return false;
    const turned = await this.ask(`trail/${of}`, RevisionSchema);
    if (!turned) return false;
    // what was last when it was asked for is no longer last: the newer change is not the one that was meant
    if (this.asked !== asked) {
      this.set({ fault: "Nothing was taken back: another change was made in the meantime." });
      return false;
    }
    const edits = ([...turned.changes] as Change[]).reverse().map(inverseEdit);
    return this.carryOut({ edits, how, of });
  }

  private async ask<T>(what: string, shape: z.ZodType<T>): Promise<T | null> {
    try {
      const response = await this.send(`/api/studies/${this.id}/${what}`);
      if (response.ok) return shape.parse(await response.json());
      this.set({ fault: "The trail could not be fetched." });
    } catch {
      this.set({ fault: "The trail could not be fetched: the server does not answer. Nothing was changed." });
    }
    return null;
  }

  private carryOut(step: Omit<UnsavedEdits, "id">): boolean {
    if (step.how === "edit" || step.how === "restore") this.asked++;
    try {
      const { study } = applyEdits(this.state.study, step.edits);
      const revision = this.state.revision + 1;
      const redo = step.how === "undo" || (step.how === "redo" && this.state.canRedo);
      this.set({ study, revision, fault: null, unsaved: this.pending.length + 1, canUndo: true, canRedo: redo });
    } catch (error) {
      if (!(error instanceof EditRefusedError)) throw error;
      this.set({ fault: error.message });
      return false;
    }
    this.keep([...this.pending, { ...step, id: randomId() }]);
    this.flush();
    return true;
  }

  private flush(): void {
    if (this.toSave()) this.flushing ??= this.saveAll();
  }

  private readonly toSave = () => this.pending.length > 0 || this.behind;

  private async saveAll(): Promise<void> {
    try {
      while (this.toSave()) if (!(await this.saveNext())) return;
    } finally {
      this.flushing = null; // in the moment of the last look: an edit made in a later one begins anew
    }
  }

  /** @returns false when nothing more can be saved for now */
  private async saveNext(): Promise<boolean> {
    const step = this.pending[0];
    if (!step) {
      this.behind = !(await this.takeIn(null));
      return !this.behind;
    }
    let response: Response;
    try {
      const body = JSON.stringify({ revision: this.saved, ...step });
      response = await this.send(`/api/studies/${this.id}/edits`, {
        method: "POST",
        headers: { "content-type": "application/json" },
        body,
        keepalive: body.length < OUTLIVES_PAGE, // arrives although the page is left meanwhile
      });
    } catch {
      return this.later(SILENT);
    }
    if (!response.ok) {
      const said = Fault.safeParse(await response.json().catch(() => null));
      const fault = said.success ? said.data.message : "The change could not be saved.";
      // a fault of the house passes; a refusal does not
      if (response.status >= 500 || response.status === 401) return this.later(`${fault} ${KEPT}`);
      return this.takeIn(said.data?.code === "stale-revision" ? null : fault);
    }
    this.saved = Recorded.parse(await response.json()).revision;
    this.keep(this.pending.slice(1));
    // a refusal that came meanwhile stays until it is read
    const passed = this.state.fault === SILENT || this.state.fault?.endsWith(KEPT);
    this.set({ unsaved: this.pending.length, fault: passed ? null : this.state.fault });
    return true;
  }

  private later(fault: string): false {
    this.set({ fault });
    setTimeout(() => this.flush(), RETRY_MS);
    return false;
  }

  /**
   * Takes in what is saved, and puts on top of it what is not.
   * @param refused why the server does not take the first of it; null when it was only made on an older state
   * @returns false when the server does not answer: it is asked again
   */
  private async takeIn(refused: string | null): Promise<boolean> {
    try {
      const saved = Saved.parse(await (await this.answered("")).json());
      const { touched, undo } = await this.changedSince(this.saved);
      this.saved = saved.revision;
      this.replay(saved.study, refused === null ? this.pending : this.pending.slice(1), { touched, refused, undo });
      return true;
    } catch {
      const fault = refused ?? "The study was changed in another window.";
      return this.later(`${fault} What is saved cannot be fetched at the moment; the page asks again. ${KEPT}`);
    }
  }

  /** What has been changed after a revision, and what would be taken back next. A withdrawal is recorded without its changes: it moves rows as new responses do. */
  private async changedSince(since: number): Promise<{ touched: Set<string>; undo: number | null }> {
    const touched = new Set<string>();
    for (let before = ""; ;) {
      const page = TrailSchema.parse(await (await this.answered(`/trail?most=200${before}`)).json());
      const newer = (page.revisions as TrailRevision[]).filter((revision) => revision.revision > since);
      for (const { how, changes } of newer) for (const what of how === "withdrawal" ? [ALL] : touchedBy(changes)) touched.add(what);
      if (newer.length < 200) return { touched, undo: page.undo };
      before = `&before=${newer.at(-1)!.revision}`;
    }
  }

  private async answered(what: string): Promise<Response> {
    const response = await this.send(`/api/studies/${this.id}${what}`);
    if (!response.ok) throw new Error("no answer");
    return response;
  }

  /** The study with edits on top, as far as they still can be carried out; the state says which could not. */
  private replay(
    saved: Study,
    edits: readonly UnsavedEdits[],
    told: { touched: ReadonlySet<string>; refused: string | null; undo: number | null },
  ): void {
    let study = saved;
    let fault = told.refused;
    const kept: UnsavedEdits[] = [];
    const lost = new Set<string>(told.touched);
    for (const step of edits) {
      const own = touchedBy(step.edits);
      try {
        if (meet(own, lost)) throw new EditRefusedError(OVERTAKEN);
        study = applyEdits(study, step.edits).study;
        kept.push(step);
      } catch (error) {
        if (!(error instanceof EditRefusedError)) throw error;
        for (const what of own) lost.add(what); // what stands on it falls with it
        fault ??= error.message;
      }
    }
    this.keep(kept);
    const revision = this.saved + kept.length;
    const canUndo = kept.length > 0 || told.undo !== null;
    this.set({ study, revision, unsaved: kept.length, fault: fault ?? this.state.fault, canUndo, canRedo: false });
  }

  private keep(edits: UnsavedEdits[]): void {
    this.pending = edits;
    keepUnsaved(this.id, { on: this.saved, edits }, this.shelf);
  }

  private set(next: Partial<StudyState>): void {
    this.state = { ...this.state, ...next };
    for (const listener of this.listeners) listener();
  }
}

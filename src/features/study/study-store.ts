import { z } from "zod";
import { applyEdits, type Change, type Edit, EditRefusedError, inverseEdit } from "@/study/model/edit";
import { Study } from "@/study/model/study";

/** What the page knows of its study. */
export interface StudyState {
  study: Study;
  /** Edits that are not yet confirmed as saved. */
  unsaved: number;
  /** A sentence when the last edit could not be carried out or saved; null otherwise. */
  fault: string | null;
  /** True when there is a change of this visit to take back. */
  canTakeBack: boolean;
}

const Saved = z.object({ study: Study, revision: z.int() });
const Fault = z.object({ code: z.string(), message: z.string() });

/** How long to wait before asking a silent server again. */
const RETRY_MS = 3000;
const SILENT = "The server does not answer. Your changes are kept on this page and will be saved when it is back.";

type Fetch = (url: string, init?: RequestInit) => Promise<Response>;

/**
 * The study on this page. An edit shows at once and is saved in order behind it, through the server's one door; when
 * the server refuses, its state is loaded again and the reason is shown, so that nothing seems saved that is not.
 */
export class StudyStore {
  private state: StudyState;
  private readonly listeners = new Set<() => void>();
  private readonly done: Change[][] = [];
  private readonly pending: Edit[][] = [];
  private flushing: Promise<void> | null = null;

  constructor(
    readonly id: string,
    study: Study,
    private revision: number,
    private readonly send: Fetch = (url, init) => fetch(url, init),
  ) {
    this.state = { study, unsaved: 0, fault: null, canTakeBack: false };
  }

  readonly subscribe = (listener: () => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };
  readonly snapshot = () => this.state;

  /** Carries out edits as one. Returns false when they were refused; the state then says why. */
  edit(...edits: Edit[]): boolean {
    return this.carryOut(edits, true);
  }

  /** Takes the last change of this visit back, itself as a recorded change. */
  takeBack(): boolean {
    const last = this.done.pop();
    return last ? this.carryOut([...last].reverse().map(inverseEdit), false) : false;
  }

  dismissFault(): void {
    this.set({ fault: null });
  }

  /** Resolves when nothing more can be saved for now: all is saved, refused, or waits for the server to come back. */
  async settled(): Promise<void> {
    while (this.flushing) await this.flushing;
  }

  private carryOut(edits: Edit[], remember: boolean): boolean {
    try {
      const { study, changes } = applyEdits(this.state.study, edits);
      if (remember) this.done.push(changes);
      this.set({ study, fault: null, unsaved: this.pending.length + 1, canTakeBack: this.done.length > 0 });
    } catch (error) {
      if (!(error instanceof EditRefusedError)) throw error;
      this.set({ fault: error.message, canTakeBack: this.done.length > 0 });
      return false;
    }
    this.pending.push(edits);
    this.flush();
    return true;
  }

  private flush(): void {
    this.flushing ??= this.saveAll().finally(() => (this.flushing = null));
  }

  private async saveAll(): Promise<void> {
    while (this.pending.length > 0) {
      const edits = this.pending[0]!;
      let response: Response;
      try {
        response = await this.send(`/api/studies/${this.id}/edits`, {
          method: "POST",
          headers: { "content-type": "application/json" },
          body: JSON.stringify({ revision: this.revision, edits }),
        });
      } catch {
        this.set({ fault: SILENT });
        setTimeout(() => this.flush(), RETRY_MS);
        return;
      }
      if (!response.ok) {
        const fault = Fault.safeParse(await response.json().catch(() => null));
        return this.recover(fault.success ? fault.data.message : "The change could not be saved.");
      }
      this.revision = Saved.parse(await response.json()).revision;
      this.pending.shift();
      // a refusal that came meanwhile stays until it is read
      this.set({ unsaved: this.pending.length, fault: this.state.fault === SILENT ? null : this.state.fault });
    }
  }

  /** The server refused an edit: what it has saved is the truth. */
  private async recover(fault: string): Promise<void> {
    this.pending.length = 0;
    this.done.length = 0;
    try {
      const response = await this.send(`/api/studies/${this.id}`);
      const saved = Saved.parse(await response.json());
      this.revision = saved.revision;
      this.set({ study: saved.study, unsaved: 0, fault, canTakeBack: false });
    } catch {
      this.set({ fault: `${fault} What is saved cannot be fetched at the moment; the page asks again.` });
      setTimeout(() => void this.recover(fault), RETRY_MS);
    }
  }

  private set(next: Partial<StudyState>): void {
    this.state = { ...this.state, ...next };
    for (const listener of this.listeners) listener();
  }
}

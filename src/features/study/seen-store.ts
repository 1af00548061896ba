import { refKey } from "@/study/kinds/kind";
import type { SeenResult } from "@/study/model/seen-result";

type Key = Pick<SeenResult, "kind" | "id">;
const keyOf = refKey;

/**
 * What results were when they were last looked at. A result whose inputs have another fingerprint now is out of date until it
 * is looked at again; then the page can say what has changed since.
 */
export class SeenStore {
  private known: ReadonlyMap<string, SeenResult>;
  /** As it was when this visit first met a change: what the page tells of while the result stays open. */
  private before: ReadonlyMap<string, SeenResult> = new Map();
  private readonly listeners = new Set<() => void>();

  constructor(
    private readonly studyId: string,
    seen: readonly SeenResult[],
    private readonly send: (url: string, init: RequestInit) => Promise<unknown> = (url, init) => fetch(url, init),
  ) {
    this.known = new Map(seen.map((s) => [keyOf(s), s]));
  }

  readonly subscribe = (listener: () => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };
  readonly snapshot = () => this.known;

  /** True when the result was looked at once, and stands on other inputs now. */
  outdated(key: Key, inputs: string): boolean {
    const seen = this.known.get(keyOf(key));
    return seen !== undefined && seen.inputs !== inputs;
  }

  /** What was met as changed by this visit; another map each time, as a page that is drawn from it needs. */
  readonly earlierSnapshot = () => this.before;

  /** The result as it was before the change that this visit has met; null when there was none. */
  static earlier(before: ReadonlyMap<string, SeenResult>, key: Key): SeenResult | null {
    return before.get(keyOf(key)) ?? null;
  }

  /** Somebody looks at a result; `watched`: they have had it open while it changed, so that there is nothing to tell. */
  look(seen: SeenResult, watched = false): void {
    const old = this.known.get(keyOf(seen));
    if (old?.inputs === seen.inputs) return;
    if (old && !watched) this.before = new Map(this.before).set(keyOf(seen), old);
    this.known = new Map(this.known).set(keyOf(seen), seen);
    for (const listener of this.listeners) listener();
    const body = JSON.stringify(seen);
    // a look that is not recorded is asked for again at the next one: nothing of the study hangs on it
    void this.send(`/api/studies/${this.studyId}/seen`, { method: "POST", headers: { "content-type": "application/json" }, body }).catch(
      () => undefined,
    );
  }
}

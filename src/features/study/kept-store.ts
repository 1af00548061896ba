import { KeptIntervals, type ReplicateIntervals } from "@/study/model/replicate-intervals";

/** Intervals that were worked out before and are kept with the study. Losing one costs time alone, so nothing here ever fails. */
export class KeptStore {
  constructor(
    private readonly studyId: string,
    private readonly send: (url: string, init?: RequestInit) => Promise<Response> = (url, init) => fetch(url, init),
  ) {}

  /** Null: none are kept under this key, or the server does not answer. */
  async find(key: string): Promise<ReplicateIntervals | null> {
    try {
      const response = await this.send(`${this.url}?key=${key}`);
      return response.status === 200 ? KeptIntervals.parse(await response.json()).intervals : null;
    } catch {
      return null;
    }
  }

  async keep(key: string, intervals: ReplicateIntervals): Promise<void> {
    try {
      await this.send(this.url, {
        method: "PUT",
        headers: { "content-type": "application/json" },
        body: JSON.stringify({ key, intervals }),
      });
    } catch {
      // they are worked out again when they are next asked for
    }
  }

  private get url(): string {
    return `/api/studies/${this.studyId}/kept`;
  }
}

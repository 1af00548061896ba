import type { ResponseColumn } from "@/study/model/response-column";
import type { Job, JobResults } from "./protocol/jobs";
import type { FromWorker, ToWorker } from "./protocol/messages";
import { kindOf } from "./protocol/kind-of";
import { transferable } from "./protocol/transferable";

/** The part of a Worker the pool needs. */
export interface WorkerLike {
  postMessage(message: ToWorker, transfer?: ArrayBuffer[]): void;
  terminate(): void;
  onmessage: ((event: { data: FromWorker }) => void) | null;
  onerror: ((event: unknown) => void) | null;
}

/** A job that gave no result: "stopped"; "worker-crashed", another worker can do it; the code of a CoreError, or "job-failed", it would fail again. */
export class JobError extends Error {
  constructor(
    readonly code: string,
    readonly details: Record<string, unknown> = {},
  ) {
    super(code);
  }

  /** True: what it computes is refused, for a reason in `code` and `details`. */
  get refused(): boolean {
    return !["stopped", "worker-crashed", "job-failed"].includes(this.code);
  }
}

/** Whether workers can see a number change while they are busy. */
const sharing = typeof SharedArrayBuffer !== "undefined";

/** How long a stopped job may go on before its worker is ended, when another job needs the worker: one that does not hear of its stopping. */
const GRACE_MS = 200;
/** How long it may when none does: a worker that is kept has its columns and its compiled code. */
const PATIENCE_MS = 3000;

/** Work nobody waits for: it goes last, and leaves a worker free for what is on screen. */
export type Urgency = "now" | "background";

/** How long work that nobody waits for holds back. */
const BEHIND_MS = 50;

/** Told how many parts of a long job are done, of how many. */
export type Progress = (done: number, of: number) => void;

interface Waiting {
  job: Job;
  dataset: string;
  columns: readonly ResponseColumn[];
  progress: Progress | undefined;
  urgency: Urgency;
  resolve: (result: JobResults[keyof JobResults]) => void;
  reject: (error: JobError) => void;
}

interface Seat {
  worker: WorkerLike;
  /** `dataset name` of each column the worker has. */
  has: Set<string>;
  busy: { id: number; waiting: Waiting } | null;
  /** True once its code has been loaded, which takes longer than most jobs. */
  ready: boolean;
  /** True when it is busy with a job that was stopped and has had its time. */
  overdue: boolean;
  /** Tells a busy worker the id of the job that is to stop; null where memory cannot be shared. */
  stopFlag: Int32Array | null;
}

/** A few workers that stay warm; each is sent a column once. The newest job goes first: it is what is on screen. */
export class WorkerPool {
  private readonly seats: Seat[] = [];
  private readonly queue: Waiting[] = [];
  private lastId = 0;

  constructor(
    private readonly spawn: () => WorkerLike,
    private size: number,
  ) {}

  /**
   * Starts workers before they are needed.
   * @param count how many at least there are then; all when left out
   * @param kind whose analysis those that are started load before they are asked for it
   */
  warm(count = this.size, kind?: string): void {
    while (this.seats.length < Math.min(count, this.size)) this.begun(kind);
  }

  /**
   * @param columns every column the job reads
   * @param signal stops the job at once for the caller; a worker still busy with it a moment later is ended
   * @throws JobError
   */
  run<K extends Job["kind"]>(
    job: Extract<Job, { kind: K }>,
    dataset: string,
    columns: readonly ResponseColumn[],
    signal?: AbortSignal,
    progress?: Progress,
    urgency: Urgency = "now",
  ): Promise<JobResults[K]> {
    return new Promise<JobResults[K]>((resolve, reject) => {
      if (signal?.aborted) return reject(new JobError("stopped"));
      const stop = () => this.stop(waiting);
      const settled = () => signal?.removeEventListener("abort", stop);
      const waiting: Waiting = {
        job,
        dataset,
        columns,
        progress,
        urgency,
        resolve: (result) => {
          settled();
          resolve(result as JobResults[K]);
        },
        reject: (error) => {
          settled();
          reject(error);
        },
      };
      signal?.addEventListener("abort", stop, { once: true });
      if (urgency === "now") {
        this.queue.push(waiting);
        this.deal();
      } else {
        this.queue.unshift(waiting);
        setTimeout(() => this.deal(), BEHIND_MS); // what is on screen may be asked for in the same moment
      }
    });
  }

  /** Lets the columns of a dataset go, and all that was made of them. */
  forget(dataset: string): void {
    for (const seat of this.seats) {
      const known = [...seat.has].filter((key) => key.startsWith(`${dataset} `));
      for (const key of known) seat.has.delete(key);
      if (known.length > 0) seat.worker.postMessage({ type: "forget", dataset });
    }
  }

  /** Ends all workers; jobs not done are told so. */
  close(): void {
    for (const waiting of this.queue.splice(0)) waiting.reject(new JobError("stopped"));
    for (const seat of this.seats.splice(0)) {
      seat.worker.terminate();
      seat.busy?.waiting.reject(new JobError("stopped"));
    }
  }

  private seat(): Seat {
    const seat: Seat = { worker: this.spawn(), has: new Set(), busy: null, ready: false, overdue: false, stopFlag: null };
    if (sharing) {
      seat.stopFlag = new Int32Array(new SharedArrayBuffer(4));
      seat.worker.postMessage({ type: "stop-flag", flag: seat.stopFlag });
    }
    seat.worker.onmessage = ({ data }) => {
      if (data.type === "ready") {
        seat.ready = true;
        this.deal();
        return;
      }
      if (!seat.busy || seat.busy.id !== data.id) return;
      const { waiting } = seat.busy;
      if (data.type === "progress") {
        waiting.progress?.(data.done, data.of);
        return;
      }
      seat.busy = null;
      if (data.type === "done") waiting.resolve(data.result);
      else waiting.reject(new JobError(data.code, data.details));
      this.deal();
    };
    seat.worker.onerror = () => {
      // where others work, one that cannot start is not tried again
      if (!seat.ready && this.seats.some((s) => s.ready)) this.size--;
      this.replace(seat, new JobError("worker-crashed"));
    };
    return seat;
  }

  private begun(kind: string | null = null): Seat {
    const seat = this.seat();
    this.seats.push(seat);
    if (kind !== null) seat.worker.postMessage({ type: "load", kind });
    return seat;
  }

  /** Where a job goes: to a worker that is up. While none is, to one on its way; later one that is busy is free again before a new one has been loaded. */
  private seatFor({ job }: Waiting): Seat | null {
    const free = this.seats.find((s) => !s.busy && s.ready);
    if (free) return free;
    const coming = this.seats.find((s) => !s.busy) ?? (this.seats.length < this.size ? this.begun(kindOf(job)) : null);
    return this.seats.some((s) => s.ready) ? null : coming;
  }

  private deal(): void {
    while (this.queue.length > 0) {
      const busy = this.seats.filter((s) => s.busy).length;
      if (this.queue.at(-1)!.urgency === "background" && busy >= Math.max(1, this.size - 1)) return;
      const seat = this.seatFor(this.queue.at(-1)!);
      if (!seat) {
        const overdue = this.queue.at(-1)!.urgency === "now" && this.seats.find((s) => s.busy && s.overdue);
        if (overdue && this.seats.every((s) => s.busy)) this.replace(overdue, new JobError("stopped"));
        return;
      }
      this.start(seat, this.queue.pop()!);
    }
  }

  private start(seat: Seat, waiting: Waiting): void {
    const key = (column: ResponseColumn) => `${waiting.dataset} ${column.name}`;
    const missing = waiting.columns.filter((column) => !seat.has.has(key(column)));
    if (missing.length > 0) seat.worker.postMessage({ type: "columns", dataset: waiting.dataset, columns: [...missing] });
    for (const column of missing) seat.has.add(key(column));
    const id = ++this.lastId;
    seat.busy = { id, waiting };
    seat.overdue = false;
    seat.worker.postMessage({ type: "run", id, dataset: waiting.dataset, job: waiting.job }, transferable(waiting.job));
  }

  private stop(waiting: Waiting): void {
    const at = this.queue.indexOf(waiting);
    if (at >= 0) {
      this.queue.splice(at, 1);
      waiting.reject(new JobError("stopped"));
      return;
    }
    const seat = this.seats.find((s) => s.busy?.waiting === waiting);
    if (!seat) return;
    waiting.reject(new JobError("stopped"));
    if (seat.stopFlag) Atomics.store(seat.stopFlag, 0, seat.busy!.id);
    // most jobs end within moments: then the worker and its columns are kept
    const end = () => {
      if (seat.busy?.waiting === waiting) this.replace(seat, new JobError("stopped"));
    };
    setTimeout(() => {
      if (seat.busy?.waiting !== waiting) return;
      seat.overdue = true;
      if (this.queue.some((other) => other.urgency === "now")) end();
    }, GRACE_MS);
    setTimeout(end, PATIENCE_MS);
  }

  /** A running job can only be ended with its worker. A fresh one is started when a job needs it: one that cannot start is not tried for ever. */
  private replace(seat: Seat, error: JobError): void {
    seat.worker.terminate();
    const { busy } = seat;
    const at = this.seats.indexOf(seat);
    if (at >= 0) this.seats.splice(at, 1);
    busy?.waiting.reject(error);
    this.deal();
  }
}

import { type ChildProcess, fork } from "node:child_process";
import { readFileSync } from "node:fs";
import { stat } from "node:fs/promises";
import path from "node:path";
import type { ColumnChunk } from "@/files/column-builder";
import { ImportFaultError } from "@/files/reading/import-fault";
import type { TableOptions } from "@/files/reading/table-options";
import type { GivenOptions, Understanding } from "@/files/reading/understanding";
import { log } from "../log";
import type { ReaderAnswer, ReaderJob, ReadTable } from "./messages";

/** Memory a reading may take for its objects, in MB. */
const MOST_MB = 220;
/** A look at a file ends after so much of the processor's time, and a little more for each byte of it: a machine that is busy otherwise does not count. */
const LOOK_MS = 3500;
const LOOK_BYTES_PER_MS = 100_000;
/** A reading that has not come one row further after so much of it is stuck. */
const STUCK_MS = 15_000;
/** By the clock, where the processor's time cannot be seen or nothing of it is used, so many times as long; and a reader may take so long to start. */
const BY_THE_CLOCK = 4;
const START_MS = 60_000;
const LOOK_AGAIN_MS = 250;

/** A reader that holds more than this after a file is not used again. */
const MOST_HELD_MB = 160;

/** Readers that have said that they are ready. */
const started = new WeakSet<ChildProcess>();

/** Readers that wait for a file. */
const idle: ChildProcess[] = [];
const MOST_IDLE = 2;

/** Starts a reader before anyone asks, so that the first file does not wait for it. */
export function warmReader(): void {
  if (idle.length === 0) rest(begin());
}

function begin(): ChildProcess {
  const script = path.join(/* turbopackIgnore: true */ process.cwd(), "src/server/reader/reader-process.ts");
  const reader = fork(script, {
    execArgv: ["--import", "tsx", `--max-old-space-size=${MOST_MB}`],
    serialization: "advanced",
    stdio: ["ignore", "ignore", "ignore", "ipc"],
  });
  reader.once("message", () => started.add(reader));
  return reader;
}

/** Idle, it does not keep this process from ending. */
function rest(reader: ChildProcess): void {
  reader.unref();
  reader.channel?.unref();
  reader.once("exit", () => {
    const at = idle.indexOf(reader);
    if (at >= 0) idle.splice(at, 1);
  });
  idle.push(reader);
}

/**
 * How a file would be read, found by a reader of its own.
 * @throws ImportFaultError when nothing at all can be read, or not within the limits
 */
export async function understandUpload(file: string, given: GivenOptions = {}): Promise<Understanding> {
  const { size } = await stat(file);
  const ms = LOOK_MS + size / LOOK_BYTES_PER_MS;
  const answer = await ask({ job: "understand", path: file, given }, { ms, slow: tooSlow(Math.round(ms / 1000)) });
  if (answer.answer !== "understood") throw new Error("another answer than was asked for");
  return answer.understanding;
}

/**
 * Reads a whole table in a reader of its own.
 * @param take is given the chunks as they come
 * @throws ImportFaultError, also when it takes more memory than a reading may, or stands still; the signal's reason
 */
export async function readUpload(
  file: string,
  options: TableOptions,
  take: (chunks: ColumnChunk[]) => void,
  { signal, progress }: { signal?: AbortSignal | undefined; progress?: ((rows: number) => void) | undefined } = {},
): Promise<ReadTable> {
  const answer = await ask({ job: "read", path: file, options }, { ms: STUCK_MS, slow: tooSlow(STUCK_MS / 1000), signal, progress, take });
  if (answer.answer !== "read") throw new Error("another answer than was asked for");
  return answer.table;
}

const tooSlow = (seconds: number) =>
  new ImportFaultError(
    "too-slow",
    `The file could not be read within ${seconds} seconds: it is not built as a table of answers is. Save the sheet as CSV and drop that here.`,
  );

const tooMuchMemory = () =>
  new ImportFaultError(
    "too-much-memory",
    `Reading the file takes more than the ${MOST_MB} MB of memory that a reading may take. Save the sheet as CSV, with the columns you need, and drop that here.`,
  );

interface Limits {
  /** So long it may be silent. */
  ms: number;
  slow: Error;
  signal?: AbortSignal | undefined;
  progress?: ((rows: number) => void) | undefined;
  take?: (chunks: ColumnChunk[]) => void;
}

/** So many files are looked at, and so many read, at once; others wait for their turn. */
const AT_ONCE = 2;
const turns = { understand: { busy: 0, waiting: [] as (() => void)[] }, read: { busy: 0, waiting: [] as (() => void)[] } };

async function ask(job: Exclude<ReaderJob, { job: "next" }>, limits: Limits): Promise<ReaderAnswer> {
  const turn = turns[job.job];
  while (turn.busy >= AT_ONCE) await new Promise<void>((resolve) => turn.waiting.push(resolve));
  turn.busy++;
  try {
    return await askNow(job, limits);
  } finally {
    turn.busy--;
    turn.waiting.shift()?.();
  }
}

/** Processor time a process has used, in ms; null where the system does not tell. */
function usedMs(reader: ChildProcess): number | null {
  try {
    const fields = readFileSync(`/proc/${reader.pid}/stat`, "utf8").split(") ")[1]!.split(" ");
    return (Number(fields[11]) + Number(fields[12])) * 10; // in hundredths of a second
  } catch {
    return null;
  }
}

function askNow(job: ReaderJob, { ms, slow, signal, progress, take }: Limits): Promise<ReaderAnswer> {
  signal?.throwIfAborted();
  const reader = idle.pop() ?? begin();
  reader.ref();
  reader.channel?.ref();
  return new Promise<ReaderAnswer>((resolve, reject) => {
    const end = (settle: () => void, again: boolean) => {
      clearInterval(watch);
      signal?.removeEventListener("abort", stop);
      reader.removeAllListeners();
      reader.on("error", () => undefined); // of what was still on its way to it
      if (again && idle.length < MOST_IDLE && reader.connected) rest(reader);
      else {
        reader.kill("SIGKILL");
        warmReader();
      }
      settle();
    };
    const stop = () => end(() => reject(signal!.reason as Error), false);
    const mark = () => ({ at: Date.now(), used: usedMs(reader) });
    let last = mark();
    const watch = setInterval(() => {
      const now = mark();
      if (!started.has(reader) && now.at - last.at < START_MS) return;
      const used = last.used === null || now.used === null ? 0 : now.used - last.used;
      if (used > ms || now.at - last.at > ms * BY_THE_CLOCK) end(() => reject(slow), false);
    }, LOOK_AGAIN_MS);
    signal?.addEventListener("abort", stop);
    reader.on("message", (message: ReaderAnswer) => {
      last = mark();
      switch (message.answer) {
        case "ready":
          return;
        case "rows":
          progress?.(message.rows);
          return;
        case "chunks":
          try {
            take?.(message.chunks);
            reader.send({ job: "next" } satisfies ReaderJob);
          } catch (error) {
            end(() => reject(error as Error), false); // the disk is full
          }
          return;
        case "fault":
          return end(() => reject(new ImportFaultError(message.code, message.message, message.line)), message.held < MOST_HELD_MB);
        case "broken":
          log.error({ kind: message.kind, stack: message.stack.split("\n") }, "a file could not be read");
          return end(() => reject(new ImportFaultError("unreadable", UNREADABLE)), false);
        default:
          return end(() => resolve(message), message.held < MOST_HELD_MB);
      }
    });
    // it ends by itself only when its memory is used up
    reader.once("exit", () => end(() => reject(tooMuchMemory()), false));
    reader.once("error", (error) => end(() => reject(error), false));
    reader.send(job);
  });
}

const UNREADABLE =
  "The file is damaged in a way that could not be understood. Nothing was kept. Save it again, or as CSV, and drop that here.";

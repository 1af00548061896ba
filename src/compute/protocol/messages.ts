import { z } from "zod";
import type { ResponseColumn } from "@/study/model/response-column";
import { Job, type JobResults } from "./jobs";

/** The kind of a typed array by its tag: one made in another realm is none by `instanceof`. */
const kindOf = (value: unknown) => Object.prototype.toString.call(value).slice(8, -1);

const Column = z.custom<ResponseColumn>((value) => {
  const c = value as ResponseColumn;
  return typeof c?.name === "string" && kindOf(c.values) === "Float64Array" && kindOf(c.states) === "Uint8Array" && Array.isArray(c.texts);
});

/** Page → worker. Columns are sent once; jobs name the dataset they run on. */
export const ToWorker = z.discriminatedUnion("type", [
  /** Holds the id of the job that is to stop, for a worker that is too busy to hear a message. */
  z.strictObject({ type: z.literal("stop-flag"), flag: z.custom<Int32Array>((value) => kindOf(value) === "Int32Array") }),
  z.strictObject({ type: z.literal("columns"), dataset: z.string(), columns: z.array(Column) }),
  /** What this kind is analysed by is loaded now: a job of it is on its way. */
  z.strictObject({ type: z.literal("load"), kind: z.string() }),
  /** The dataset is no longer needed. */
  z.strictObject({ type: z.literal("forget"), dataset: z.string() }),
  z.strictObject({ type: z.literal("run"), id: z.int(), dataset: z.string(), job: Job }),
]);
export type ToWorker = z.infer<typeof ToWorker>;

/** Worker → page. It is ready once its code has been loaded. A failure crosses as a code with its details, never as a stack; progress is how many parts of a long job are done. */
export type FromWorker =
  | { type: "ready" }
  | { type: "done"; id: number; result: JobResults[keyof JobResults] }
  | { type: "progress"; id: number; done: number; of: number }
  | { type: "failed"; id: number; code: string; details: Record<string, unknown> };

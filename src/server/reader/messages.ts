import type { ColumnChunk } from "@/files/column-builder";
import type { ReadSummary } from "@/files/read-summary";
import type { TableOptions } from "@/files/reading/table-options";
import type { GivenOptions, Understanding } from "@/files/reading/understanding";
import type { Variable } from "@/study/model/variable";

/** What is asked of the process that reads files. */
export type ReaderJob =
  | { job: "understand"; path: string; given: GivenOptions }
  /** The whole table; a batch of chunks is handed out when the one before has been taken. */
  | { job: "read"; path: string; options: TableOptions }
  | { job: "next" };

/** What a reading leaves behind besides its chunks. */
export interface ReadTable {
  rows: number;
  chunkRows: number;
  columns: { name: string; /** JSON list of the column's distinct texts. */ texts: string; summary: ReadSummary }[];
  /** What came with the file, or is guessed from the columns. */
  codebook: Variable[];
  title: string;
}

export type ReaderAnswer =
  /** It has started. */
  | { answer: "ready" }
  | { answer: "rows"; rows: number }
  | { answer: "chunks"; chunks: ColumnChunk[] }
  /** Ends a job; with the memory that the process then holds, in MB. */
  | ({ held: number } & (
      | { answer: "understood"; understanding: Understanding }
      | { answer: "read"; table: ReadTable }
      | { answer: "fault"; code: string; message: string; line: number | null }
    ))
  /** A fault of ours: its kind and stack, without the words. */
  | { answer: "broken"; kind: string; stack: string };

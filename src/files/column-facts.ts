import type { ColumnFacts } from "@/study/prepare/guess-codebook";
import type { ReadColumn } from "./reading/read-table";

/** What the guess of a column's kind needs to know of it. */
export function columnFacts({ name, wording, texts, summary }: ReadColumn): ColumnFacts {
  return {
    name,
    wording,
    texts,
    running: summary.running,
    empties: summary.empties,
    numbers: summary.numbers,
    words: summary.words,
    wholeNumbers: summary.wholeNumbers,
    distinctNumbers: summary.numberCounts?.length ?? null,
  };
}

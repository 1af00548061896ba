import { type Folds, seededFolds } from "@/core/comparison/cross-validation";
import type { StudyColumns } from "../prepare/study-columns";
import { type Refusal, unlessRefused } from "./refusal";

/** Folds for cross-validation when none are given. */
const FOLDS = 10;

/** The fold of each case of a sample; or the reason why the given variable does not make folds. */
export type SampleFolds =
  { folds: Folds; names: string[] } | { reason: "folds-have-gaps" | "one-fold" } | { reason: "folds-refused"; refusal: Refusal };

/**
 * @param variable says which fold a respondent is in; null: ten folds drawn with the seed
 * @param rowsUsed data rows of the sample, from 1
 */
export function sampleFolds(variable: string | null, seed: number, columns: StudyColumns, rowsUsed: readonly number[]): SampleFolds {
  if (variable === null) {
    const folds = seededFolds(rowsUsed.length, FOLDS, seed);
    return { folds, names: Array.from({ length: folds.count }, (_, i) => String(i + 1)) };
  }
  const read = unlessRefused(() => columns.categories(variable));
  if ("refusal" in read) return { reason: "folds-refused", refusal: read.refusal };
  const { codes, missing, levels } = read;
  if (rowsUsed.some((row) => missing[row - 1])) return { reason: "folds-have-gaps" };
  const used = [...new Set(rowsUsed.map((row) => codes[row - 1]!))].sort((a, b) => a - b);
  if (used.length < 2) return { reason: "one-fold" };
  const of = Int32Array.from(rowsUsed, (row) => used.indexOf(codes[row - 1]!));
  return { folds: { of, count: used.length }, names: used.map((code) => levels[code]!) };
}

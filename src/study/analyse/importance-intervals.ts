import { importanceResamples } from "@/core/comparison/importance";
import type { Desk } from "../kinds/kind";
import { type ImportanceQuestion, prepareImportance } from "./analyse-importance";
import type { ImportancePiece } from "./joined-importance";

/** Shares on some of the resamples. Null where there are none. */
export function resampledImportance(
  question: ImportanceQuestion,
  desk: Desk,
  range: { first: number; count: number },
): ImportancePiece | null {
  const shelf = desk.shelf<ReturnType<typeof prepareImportance>>("importance to be drawn again");
  const key = JSON.stringify([desk.study, question]);
  const prepared = shelf.get(key) ?? prepareImportance(question, desk);
  shelf.clear();
  shelf.set(key, prepared);
  if ("status" in prepared) return null;
  const { ground, parents } = prepared;
  const shares = importanceResamples(ground, parents, { seed: question.importance.seed, ...range }, (done) =>
    desk.progress(done, range.count),
  );
  return { terms: ground.terms.map((term) => term.name), confidence: question.ladder.confidence, shares };
}

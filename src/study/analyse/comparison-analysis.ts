import type { Analysis } from "../kinds/kind";
import type { Comparison } from "../model/comparison";
import type { Ladder } from "../model/ladder";
import { analyseComparison, besideOneAnother, type ComparisonResult } from "./analyse-comparison";
import { fitLadderOf, fittedAt } from "./analyse-ladder";
import { comparisonResults } from "./comparison-results";

interface ComparisonSpec {
  comparison: Comparison;
  ladders: Ladder[];
}

export const analysis: Analysis<Comparison, ComparisonSpec, ComparisonResult> = {
  run: ({ comparison, ladders }, { study, responses, columns }) => analyseComparison(study, comparison, ladders, responses, columns),
  results(comparison, desk) {
    const { study, responses, columns } = desk;
    const ladders = desk.objects("ladder") as Ladder[];
    const own = new Map(ladders.map((ladder) => [ladder.id, fittedAt(desk, ladder)]));
    const fitted =
      comparison.sample === "own"
        ? own
        : besideOneAnother(comparison, ladders, (ladder, within) =>
            within ? fitLadderOf(study, ladder, responses, columns, within) : own.get(ladder.id)!,
          );
    return comparisonResults(comparison, fitted, columns);
  },
};

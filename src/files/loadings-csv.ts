import type { FactorSolution } from "@/core/factors/factor-solution";
import type { StructureAnalysis } from "@/study/analyse/analyse-structure";
import { csvOf } from "./csv-cells";

/** The loadings as CSV: one row an item, a column a factor and kind of loading, communalities, uniqueness. */
export function loadingsCsv(analysis: StructureAnalysis, solution: FactorSolution): string {
  const { factors: m, rotated, unrotated, structure } = solution;
  const kinds: [string, Float64Array][] = [
    [rotated.correlations ? "pattern" : "loading", rotated.pattern],
    ...(rotated.correlations ? [["structure", structure] as [string, Float64Array]] : []),
    ["unrotated", unrotated.pattern],
  ];
  const each = (matrix: Float64Array, i: number) => Array.from(matrix.subarray(i * m, i * m + m));
  const head = [
    "item",
    ...kinds.flatMap(([kind]) => Array.from({ length: m }, (_, f) => `${kind}_${f + 1}`)),
    "communality_initial",
    "communality_extracted",
    "uniqueness",
    "n",
    "extraction",
    "rotation",
  ];
  const rows = analysis.items.map((item, i) => [
    item,
    ...kinds.flatMap(([, matrix]) => each(matrix, i)),
    solution.communalityInitial[i]!,
    solution.communalityExtracted[i]!,
    solution.uniqueness[i]!,
    analysis.n,
    solution.extraction,
    solution.factors === 1 ? "none" : solution.rotation,
  ]);
  return csvOf([head, ...rows]);
}

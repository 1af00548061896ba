import type { Estimate } from "@/core/regression/coefficients";
import type { MeansResult } from "@/study/analyse/analyse-means";
import { csvOf } from "./csv-cells";

const HEAD = ["what", "at", "minus", "n", "estimate", "se", "t", "df", "p", "p_holm", "lower", "upper", "errors"] as const;

/** Predicted outcomes and what they are held against as CSV, at full precision, under the names that variables have in the study. */
export function meansCsv({ reading, ground, cases }: Extract<MeansResult, { status: "told" }>): string {
  const { cells, contrasts } = reading;
  const numbers = (e: Estimate | null, holm: number | null) => [e?.estimate, e?.se, e?.t, e ? ground.of.df : null, e?.p, holm, e?.lower, e?.upper, ground.of.kind].map((v) => v ?? null); // prettier-ignore
  const countOf = ({ at }: (typeof cells)[number]) => (at.length === 1 ? (cases.get(at[0]!.variable)?.find((c) => c.level === at[0]!.label)?.cases ?? null) : null); // prettier-ignore
  return csvOf([
    HEAD,
    ...cells.map((cell) => ["predicted", cell.key, null, countOf(cell), ...numbers(cell.predicted, null)]),
    ...contrasts.map((c) => ["difference", cells[c.first]!.key, c.second === null ? "mean of all" : cells[c.second]!.key, null, ...numbers(c.found, c.pHolm)]), // prettier-ignore
  ]);
}

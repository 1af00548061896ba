import type { Groups } from "@/study/model/groups";
import { type Compared, groupsRows, type GroupsBeside, toldDifferences } from "@/study/report/ladder/groups-rows";
import { csvOf } from "./csv-cells";

const HEAD = [
  "what",
  "column",
  "group",
  "minus",
  "n",
  "estimate",
  "se",
  "z",
  "p",
  "p_holm",
  "p_shuffles",
  "lower",
  "upper",
  "metric",
] as const;

/** Coefficients of groups and their differences as CSV, at full precision, under the names that variables have in the study. */
export function groupsCsv({ metric }: Groups, result: Compared, beside: GroupsBeside): string {
  const name = (g: number) => result.groups[g]!.name;
  const rows = groupsRows(result, metric, beside, (variable, level) => (level == null ? variable : `${variable}: ${level}`));
  return csvOf([
    HEAD,
    ...rows.flatMap(
      (row) =>
      row.found.map((e, g) => ["coefficient", row.column, name(g), null, result.groups[g]!.cases, e?.estimate ?? null, e?.se ?? null, null, null, null, null, e?.lower ?? null, e?.upper ?? null, metric]), // prettier-ignore
    ),
    ...toldDifferences(result, metric, beside).map((d) => ["difference", d.column, name(d.first), name(d.second), null, d.estimate, d.z ? d.estimate / d.z : null, d.z, d.p, d.pHolm, d.pShuffled, d.lower, d.upper, metric]), // prettier-ignore
  ]);
}

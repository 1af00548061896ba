import { correlationAt, type LookPart } from "@/study/analyse/analyse-look";
import type { Looked } from "@/study/report/look-words";
import { csvOf } from "./csv-cells";

const HEAD = ["what", "group", "variable", "with", "n", "missing", "mean", "sd", "se", "lower", "upper", "median", "q1", "q3", "min", "max", "skewness", "kurtosis", "alpha", "omega", "r", "t", "df", "p"] as const; // prettier-ignore
type Row = Partial<Record<(typeof HEAD)[number], string | number | null>>;

/** Descriptions and correlations of a look as CSV, at full precision, under the names that variables have in the study. */
export function lookCsv(found: Looked): string {
  const part = (group: string, of: LookPart): Row[] => [
    ...of.columns.map(({ key, missing, description: d, interval, alpha, omega }): Row => ({ what: "description", group, variable: key, ...d, missing, lower: interval?.lower, upper: interval?.upper, alpha, omega })), // prettier-ignore
    ...of.columns.flatMap((a, i) =>
      of.columns.slice(i + 1).map((b, k): Row => {
        const test = correlationAt(of.table, i, i + 1 + k);
        return { what: found.correlation, group, variable: a.key, with: b.key, n: test?.n, r: test?.r, t: test?.t, df: test?.df, p: test?.p, lower: test?.lower, upper: test?.upper }; // prettier-ignore
      }),
    ),
  ];
  const rows = [...part("", found), ...found.groups.flatMap((g) => part(g.level, g))];
  return csvOf([HEAD, ...rows.map((row) => HEAD.map((key) => row[key] ?? null))]);
}

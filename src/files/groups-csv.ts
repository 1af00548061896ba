import type { Groups } from "@/study/model/groups";
import { type Compared, groupsRows, type GroupsBeside, toldDifferences } from "@/study/report/ladder/groups-rows";
import { csvOf } from "./csv-cells";

const HEAD = ["what", "column", "group", "minus", "n", "estimate", "se", "statistic", "df1", "df2", "p", "p_holm", "p_shuffles", "lower", "upper", "metric"] as const; // prettier-ignore
type Row = Partial<Record<(typeof HEAD)[number], string | number | null>>;

/** Coefficients of groups, their differences and the tests that they are alike as CSV, at full precision, under the names that variables have in the study. */
export function groupsCsv({ metric }: Groups, result: Compared, beside: GroupsBeside): string {
  const name = (g: number) => result.groups[g]!.name;
  const own = groupsRows(result, metric, beside, (variable, level) => (level == null ? variable : `${variable}: ${level}`));
  const coefficients = own.flatMap(
    ({ column, found }) =>
    found.map((e, g): Row => ({ what: "coefficient", column, group: name(g), n: result.groups[g]!.cases, estimate: e?.estimate, se: e?.se, lower: e?.lower, upper: e?.upper, metric })), // prettier-ignore
  );
  const differences = toldDifferences(result, metric, beside).map((d): Row => ({
    what: "difference", column: d.column, group: name(d.first), minus: name(d.second), estimate: d.estimate, se: d.z ? d.estimate / d.z : null,
    statistic: d.z, p: d.p, p_holm: d.pHolm, p_shuffles: d.pShuffled, lower: d.lower, upper: d.upper, metric,
  })); // prettier-ignore
  const tests = [...result.terms, { term: "all", alike: result.alike, crossed: result.pooled }].flatMap(
    ({ term, alike, crossed }): Row[] => [
      { what: "alike, own variances (chi2)", column: term, statistic: alike.chi2, df1: alike.df, p: alike.p },
      { what: "alike, single model (F)", column: term, estimate: crossed?.dR2, statistic: crossed?.F, df1: crossed?.df[0], df2: crossed?.df[1], p: crossed?.p }, // prettier-ignore
    ],
  );
  const shares = result.groups.map((g): Row => ({ what: "R2", group: g.name, n: g.cases, estimate: g.fitted?.R2 }));
  return csvOf([HEAD, ...[...coefficients, ...shares, ...differences, ...tests].map((row) => HEAD.map((key) => row[key] ?? null))]);
}

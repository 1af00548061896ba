import type { Groups } from "../../model/groups";
import { formatCount, formatPercent } from "../format-number";
import type { Titles } from "../level-title";
import { type Compared, groupsRows, type GroupsBeside } from "./groups-rows";
import { differsMost, groupName, METRIC_WORDS } from "./groups-words";

/** Slopes of groups: a row a term, a mark a group, the surest difference between them. */
export interface GroupsPicture {
  title: string;
  note: string;
  groups: string[];
  /** The row at which the groups are named. */
  named: number;
  rows: {
    name: string;
    marks: ({ value: number; lower: number | null; upper: number | null } | null)[];
    span: { first: number; second: number; told: boolean } | null;
  }[];
}

/** @param groups in a metric that all terms share: slopes in points have no axis in common */
export function groupsPicture(groups: Groups, result: Compared, beside: GroupsBeside, title: Titles, more = ""): GroupsPicture {
  const rows = groupsRows(result, groups.metric, beside, title);
  const level = 1 - result.confidence;
  const most = differsMost(groups, result, beside, title);
  return {
    title: `Slopes by groups of ${title(groups.variable)}`,
    note: `n = ${formatCount(result.groups.reduce((sum, g) => sum + g.cases, 0))}, ${formatPercent(result.confidence)} intervals${more}; thick where the surest difference can be told from chance`,
    groups: result.groups.map((g) => groupName(g.levels, groups.variable, title)),
    named: Math.max(0, rows.findIndex((row) => row.column === most)), // prettier-ignore
    rows: rows.map(({ name, found, largest }) => ({
      name,
      marks: found.map((e) => e && { value: e.estimate, lower: e.lower, upper: e.upper }),
      span: largest && { first: largest.first, second: largest.second, told: largest.pHolm !== null && largest.pHolm < level },
    })),
  };
}

/** The same in a metric that can be drawn, with a word where that is not the one they are told in. */
export function drawnGroups(groups: Groups): { groups: Groups; more: string } {
  return groups.metric === "raw" ? { groups: { ...groups, metric: "all" }, more: `, drawn in ${METRIC_WORDS.all}` } : { groups, more: "" };
}

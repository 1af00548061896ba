import type { GroupDifference } from "@/core/groups/differences";
import type { Estimate } from "@/core/regression/coefficients";
import type { GroupFigure, GroupMetric as FigureMetric } from "@/core/resampling/group-bootstrap";
import type { PermutedDifference } from "@/core/resampling/label-permutation";
import { permutationP } from "@/core/resampling/permutation-p";
import type { GroupMetric, GroupsResult } from "../../analyse/analyse-groups";
import { groupFiguresOf, type ReplicateInterval, type ReplicateIntervals } from "../../model/replicate-intervals";
import type { Titles } from "../level-title";
import { columnTitle } from "./coefficient-words";

export type Compared = Extract<GroupsResult, { status: "compared" }>;

/** What stands beside the numbers by normal theory. */
export interface GroupsBeside {
  /** Intervals from replicates; null: none are asked for, or none are there yet. */
  boot: ReplicateIntervals | null;
  /** Shuffles of the labels, and how many there were. */
  shuffled: { found: readonly PermutedDifference[]; of: number } | null;
}

/** A difference the way round in which it is positive. */
export interface ToldDifference {
  readonly column: string;
  readonly first: number;
  readonly second: number;
  readonly estimate: number;
  readonly z: number | null;
  readonly p: number | null;
  readonly pHolm: number | null;
  readonly lower: number | null;
  readonly upper: number | null;
  /** Share of shuffles that put the two as far apart; null: none were asked for, or they do not speak of this metric. */
  readonly pShuffled: number | null;
}

/** A column of the step, told by groups. */
export interface GroupsRow {
  readonly column: string;
  readonly name: string;
  /** With the ladder's own intervals. Null: the group cannot tell it. */
  readonly found: readonly (Pick<Estimate, "estimate" | "se" | "lower" | "upper"> | null)[];
  /** The difference that is surest; null: there is none. */
  readonly largest: ToldDifference | null;
}

const FIGURE: Record<GroupMetric, FigureMetric> = { raw: "b", all: "beta", own: "betaOwn" };

/** Every difference, the surest first. */
export function toldDifferences(result: Compared, metric: GroupMetric, { boot, shuffled }: GroupsBeside): ToldDifference[] {
  const intervals = boot ? intervalsByFigure(boot) : null;
  const drawn = (d: GroupDifference) =>
    intervals?.get(keyOf({ kind: "difference", of: FIGURE[metric], column: d.column, first: d.first, second: d.second }));
  const beyond = new Map(shuffled?.found.map((d) => [`${d.column} ${d.first} ${d.second}`, d.beyond]));
  return result.differences[metric]
    .flatMap((d): ToldDifference[] => {
      if (d.estimate === null) return [];
      const { lower, upper } = intervals ? (drawn(d) ?? { lower: null, upper: null }) : d;
      const way = d.estimate < 0 ? -1 : 1;
      const turned = (v: number | null) => (v === null ? null : way * v);
      const [low, high] = [turned(lower), turned(upper)];
      const count = beyond.get(`${d.column} ${d.first} ${d.second}`);
      return [
        {
          column: d.column,
          first: way > 0 ? d.first : d.second,
          second: way > 0 ? d.second : d.first,
          estimate: way * d.estimate,
          z: turned(d.z),
          p: d.p,
          pHolm: d.pHolm,
          lower: way > 0 ? low : high,
          upper: way > 0 ? high : low,
          pShuffled: count === undefined || metric === "own" ? null : permutationP(count, shuffled!.of),
        },
      ];
    })
    .sort((a, b) => (b.z ?? -1) - (a.z ?? -1));
}

/** A row a column, in the order of the step. */
export function groupsRows(result: Compared, metric: GroupMetric, beside: GroupsBeside, title: Titles): GroupsRow[] {
  const differences = toldDifferences(result, metric, beside);
  const intervals = beside.boot ? intervalsByFigure(beside.boot) : null;
  return result.columns.map(({ column, found }) => ({
    column,
    name: columnTitle(column, result, title),
    found: found[metric].map((e, group) => {
      if (!e || !intervals) return e;
      const own = intervals.get(keyOf({ kind: FIGURE[metric], group, column }));
      return { ...e, lower: own?.lower ?? null, upper: own?.upper ?? null };
    }),
    largest: differences.find((d) => d.column === column) ?? null,
  }));
}

/** The slope that serves all groups best, each counted by its precision; null: none can tell. */
export function commonSlope(found: readonly (Pick<Estimate, "estimate" | "se"> | null)[]): number | null {
  const sure = found.flatMap((e) => (e?.se ? [{ e, weight: 1 / e.se ** 2 }] : []));
  const total = sure.reduce((sum, { weight }) => sum + weight, 0);
  return total > 0 ? sure.reduce((sum, { e, weight }) => sum + weight * e.estimate, 0) / total : null;
}

function intervalsByFigure(boot: ReplicateIntervals): Map<string, ReplicateInterval> {
  return new Map(groupFiguresOf(boot).map(({ figure, interval }) => [keyOf(figure), interval]));
}

function keyOf(f: GroupFigure): string {
  return JSON.stringify(f.kind === "difference" ? [f.of, f.column, f.first, f.second] : [f.kind, f.column, f.group]);
}

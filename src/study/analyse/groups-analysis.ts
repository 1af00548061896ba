import type { GroupDifference } from "@/core/groups/differences";
import { casesOf, errorsOf, type GroupFit, groupFits, type RefusedGroup } from "@/core/groups/grouped-step";
import { groupModels, shuffledDifferences } from "@/core/groups/shuffled-labels";
import type { Estimate } from "@/core/regression/coefficients";
import { coefficientErrors } from "@/core/regression/covariance";
import { groupBootstrap, type GroupFigure, groupFigures } from "@/core/resampling/group-bootstrap";
import type { PermutedDifference } from "@/core/resampling/label-permutation";
import { permutationP } from "@/core/resampling/permutation-p";
import { drawingOf } from "@/core/resampling/units";
import type { Analysis, Desk, Ready, WorkedOut } from "../kinds/kind";
import type { Groups } from "../model/groups";
import type { Ladder } from "../model/ladder";
import { groupFiguresOf } from "../model/replicate-intervals";
import { analyseGroups, compared, type GroupsQuestion, type GroupsResult, prepareGroups, type PreparedGroups } from "./analyse-groups";
import { OneGroupError, type Refusal, refusalOf, unlessRefused } from "./refusal";
import { drawnResults } from "./replicated-step";
import { sampleResults } from "./sample-results";

/** Groups that hold the whole step and leave something to explain: the others are neither resampled nor shuffled. */
function wholeGroups(fits: readonly (GroupFit | RefusedGroup)[]): number[] {
  return fits.flatMap((of, g) => ("fit" in of && of.dropped.length === 0 && !of.fit.perfect ? [g] : []));
}

/** The step within each group, drawn within groups. */
function ready(question: GroupsQuestion, desk: Desk): Ready {
  const { grouped } = prepareGroups(question, desk);
  const among = wholeGroups(groupFits(grouped));
  if (among.length === 0) throw new OneGroupError({ variable: question.groups.variable, groups: 0 });
  const drawings = among.map((group) => drawingOf(errorsOf(grouped.spec, casesOf(grouped.labels, group))));
  const models = groupModels(grouped, among);
  const figures = groupFigures(models, 0);
  const names = figures.map((f): GroupFigure =>
    f.kind === "difference" ? { ...f, first: among[f.first]!, second: among[f.second]! } : { ...f, group: among[f.group]! },
  );
  return { ...groupBootstrap(models, 0, figures, null, drawings), names };
}

/** Some of the shuffles of the labels. */
function shuffled(question: GroupsQuestion, desk: Desk, range: { first: number; count: number }): PermutedDifference[] {
  const { grouped } = prepareGroups(question, desk);
  const among = wholeGroups(groupFits(grouped));
  return among.length < 2 ? [] : shuffledDifferences(grouped, among, question.ladder.seed, range);
}

/** Groups under the names of docs/results.md. */
function groupsResults(groups: Groups, desk: Desk, { intervals, dealt }: WorkedOut) {
  const ladder = (desk.objects("ladder") as Ladder[]).find((l) => l.id === groups.ladder)!;
  const { variable, leftOut, together, metric, shuffles } = groups;
  const settings = { ladder: ladder.id, step: groups.step ?? ladder.steps.length, variable, left_out: leftOut, together, metric, shuffles };
  let prepared: PreparedGroups;
  let fits: (GroupFit | RefusedGroup)[];
  try {
    prepared = prepareGroups({ groups, ladder }, desk);
    fits = groupFits(prepared.grouped);
  } catch (error) {
    const refusal: Refusal = refusalOf(error);
    return { settings, status: "refused" as const, refusal, sample: null };
  }
  const found = compared(prepared, fits);
  const { grouped } = prepared;
  const robust = groupFits({ ...grouped, spec: { ...grouped.spec, errors: { kind: "hc3" } } });
  const name = (g: number) => prepared.groups[g]!.name;
  const pair = ({ first, second }: { first: number; second: number }) => `${name(first)} - ${name(second)}`;
  const drawn = intervals ? groupFiguresOf(intervals) : [];
  const permuted =
    shuffles === null
      ? null
      : ((dealt as PermutedDifference[] | undefined) ??
        unlessRefused(() => shuffled({ groups, ladder }, desk, { first: 0, count: shuffles })));
  return {
    settings,
    status: "compared" as const,
    sample: sampleResults(prepared.sample),
    errors: found.errors,
    without: found.without,
    empty_levels: found.empty,
    groups: Object.fromEntries(
      found.groups.map((group, g) => [
        group.name,
        {
          levels: group.levels,
          n: group.cases,
          refusal: group.refusal,
          ...(group.fitted && {
            R2: group.fitted.R2,
            s: group.fitted.s,
            df: group.fitted.df,
            dropped: group.fitted.dropped,
            coef: coefficients(fits[g] as GroupFit, robust[g]!),
            beta_whole_sample_sd: betas(found, g, "all"),
            beta_within_group_sd: betas(found, g, "own"),
          }),
        },
      ]),
    ),
    differences: byColumn(found.differences.raw, pair),
    differences_hc3: byColumn(compared(prepared, robust).differences.raw, pair),
    differences_beta_whole_sample_sd: byColumn(found.differences.all, pair),
    differences_beta_within_group_sd: byColumn(found.differences.own, pair),
    omnibus: {
      all_slopes: found.alike,
      one_term: Object.fromEntries(found.terms.map(({ term, alike }) => [term, alike])),
      pooled_F: found.pooled && { ...fAs(found.pooled), sse_common: found.pooled.sseCommon, sse_separate: found.pooled.sseSeparate },
    },
    single_model: Object.fromEntries(found.terms.map(({ term, crossed }) => [term, fAs(crossed)])),
    bootstrap:
      intervals == null
        ? null
        : {
            ...drawnResults(ladder, intervals),
            intervals: Object.fromEntries(drawn.map(({ figure, interval }) => [figureName(figure, name), interval])),
          },
    permutation: permuted && {
      shuffles,
      seed: ladder.seed,
      ...("refusal" in permuted
        ? permuted
        : {
            values: byColumn(
              permuted.map((d) => ({ ...d, p: permutationP(d.beyond, shuffles!) })),
              pair,
            ),
          }),
    },
  };
}

function coefficients({ intercept, coefficients: own }: GroupFit, robust: GroupFit | RefusedGroup) {
  const hc3 = "fit" in robust && !("reason" in robust.errors) ? coefficientErrors(robust.fit, robust.errors) : null;
  const error = (column: string) => hc3?.[column === "" ? 0 : (robust as GroupFit).fit.columns.indexOf(column) + 1] ?? null;
  const as = (e: Estimate | null, column: string) =>
    e && { b: e.estimate, se: e.se, t: e.t, p: e.p, lower: e.lower, upper: e.upper, se_hc3: error(column) };
  return { "(Intercept)": as(intercept, ""), ...Object.fromEntries(own.map(({ column, b }) => [column, as(b, column)])) };
}

function betas({ columns }: Extract<GroupsResult, { status: "compared" }>, g: number, metric: "all" | "own") {
  return Object.fromEntries(columns.map(({ column, found }) => [column, found[metric][g]?.estimate ?? null]));
}

function byColumn<D extends { column: string; first: number; second: number }>(found: readonly D[], pair: (d: D) => string) {
  const columns = [...new Set(found.map(({ column }) => column))];
  return Object.fromEntries(
    columns.map((column) => [column, Object.fromEntries(found.filter((d) => d.column === column).map((d) => [pair(d), differenceAs(d)]))]),
  );
}

function differenceAs(d: object) {
  if (!("pHolm" in d)) {
    const { difference, beyond, p } = d as PermutedDifference & { p: number };
    return { difference, beyond, p };
  }
  const { estimate, se, z, p, lower, upper, pHolm, pHolmColumn } = d as GroupDifference;
  return { difference: estimate, se, z, p, lower, upper, p_holm_all_shown: pHolm, p_holm_one_predictor: pHolmColumn };
}

function fAs({ F, df, p, dR2 }: { F: number | null; df: readonly [number, number]; p: number | null; dR2: number | null }) {
  return { F, df1: df[0], df2: df[1], p, dR2 };
}

/** `b.bill.Alba`, `beta.bill.Alba - Brenn`. */
function figureName(figure: GroupFigure, name: (g: number) => string): string {
  if (figure.kind === "difference") return `${figure.of}.${figure.column}.${name(figure.first)} - ${name(figure.second)}`;
  return `${figure.kind}.${figure.column}.${name(figure.group)}`;
}

export const analysis: Analysis<Groups, GroupsQuestion, GroupsResult> = {
  run: analyseGroups,
  results: groupsResults,
  ready,
  dealt: {
    count: ({ groups }) => groups.shuffles ?? 0,
    range: shuffled,
  },
};

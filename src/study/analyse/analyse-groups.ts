import { groupDifferences, type GroupDifference } from "@/core/groups/differences";
import { groupedStep, type GroupedStep, groupFits, type GroupFit, type RefusedGroup } from "@/core/groups/grouped-step";
import { type AlikeTest, alikeTest, type CrossedTest, crossedTest, type PooledTest, pooledTest } from "@/core/groups/omnibus";
import type { Estimate } from "@/core/regression/coefficients";
import type { ErrorChoice, NoCovariance } from "@/core/regression/covariance";
import type { LadderModels } from "@/core/regression/ladder";
import type { DroppedColumn } from "@/core/regression/least-squares";
import { type Part, type Term, termName, partsByKey } from "@/core/regression/terms";
import type { Desk } from "../kinds/kind";
import type { Groups } from "../model/groups";
import { activeTerms, type Ladder } from "../model/ladder";
import type { AnalysisSample, SampleRule } from "../prepare/analysis-sample";
import { levelMeant } from "../prepare/category-column";
import { ladderSample, modelsOn } from "../prepare/ladder-models";
import { OneGroupError, NothingWithinGroupsError, type Refusal, refusalOf, TooManyGroupsError } from "./refusal";

/** What coefficients of groups are told in. */
export type GroupMetric = Groups["metric"];

/** A group with what its step gives, or why it cannot be fitted. */
export interface ComparedGroup {
  /** Its level, or its levels with " + " between. */
  readonly name: string;
  /** As written in the file. */
  readonly levels: readonly string[];
  readonly cases: number;
  readonly fitted: {
    readonly R2: number;
    /** SD of the outcome and of the residuals, outcome units. */
    readonly sdY: number;
    readonly s: number;
    readonly df: number;
    readonly intercept: Estimate;
    readonly dropped: readonly DroppedColumn[];
    /** Why its errors are not available; null: they are. */
    readonly noErrors: NoCovariance["reason"] | null;
    readonly perfect: boolean;
  } | null;
  readonly refusal: Refusal | null;
}

/** A column of the step, and its coefficient in each group; null: the group cannot tell it. */
export interface GroupedColumn {
  readonly column: string;
  /** Key of its term. */
  readonly term: string;
  readonly found: Readonly<Record<GroupMetric, readonly (Estimate | null)[]>>;
}

/** A step told by groups, or why it cannot be. */
export type GroupsResult =
  | {
      status: "compared";
      /** The question that was answered: numbers stay on the page while those of the next one are worked out. */
      asked: Pick<Groups, "variable" | "leftOut" | "together">;
      sample: AnalysisSample;
      /** From 1. */
      step: number;
      outcome: string;
      confidence: number;
      errors: ErrorChoice["kind"];
      groups: ComparedGroup[];
      columns: GroupedColumn[];
      differences: Readonly<Record<GroupMetric, GroupDifference[]>>;
      alike: AlikeTest;
      terms: { term: string; alike: AlikeTest; crossed: CrossedTest }[];
      pooled: PooledTest | null;
      /** Terms of the step that hold the grouping variable: within a group it does not vary. */
      without: string[];
      /** Levels that nobody in the sample has. */
      empty: string[];
      /** What columns and terms are made of, by their keys. */
      parts: ReadonlyMap<string, readonly Part[]>;
    }
  | { status: "refused"; sample: AnalysisSample | null; refusal: Refusal };

/** So many groups stand beside each other. */
export const MOST_GROUPS = 30;

/** A step with its respondents told by groups, before anything is fitted in one. */
export interface PreparedGroups {
  readonly asked: Pick<Groups, "variable" | "leftOut" | "together">;
  readonly sample: AnalysisSample;
  /** From 1. */
  readonly step: number;
  /** The step on the whole sample. */
  readonly models: LadderModels;
  readonly grouped: GroupedStep;
  readonly groups: { name: string; levels: string[] }[];
  readonly without: Term[];
  readonly empty: string[];
}

export interface GroupsQuestion {
  groups: Groups;
  ladder: Ladder;
}

/**
 * Who is compared (docs/methods.md, “Groups”): the sample of the whole ladder, complete on the grouping variable as well, without the levels that are left out.
 * @param told of the sample as soon as it is known
 * @throws CoreError
 */
export function prepareGroups(
  { groups: asked, ladder }: GroupsQuestion,
  { columns }: Desk,
  told?: (sample: AnalysisSample) => void,
): PreparedGroups {
  const { variable } = asked;
  const category = columns.categories(variable);
  const place = (written: string) => levelMeant(category, written);
  const out = new Set(asked.leftOut.map(place));
  const rule: SampleRule = {
    filter: null,
    name: `not compared: ${asked.leftOut.join(", ")}`,
    reason: "",
    unmet: asked.leftOut.filter((level) => place(level) < 0),
    passes: Uint8Array.from(category.codes, (code, row) => (category.missing[row] === 0 && out.has(code) ? 0 : 1)),
  };
  const found = ladderSample(
    { ...ladder, alsoComplete: [...ladder.alsoComplete, variable] },
    columns,
    asked.leftOut.length > 0 ? rule : null,
  );
  const { sample } = found;
  told?.(sample);
  const step = Math.min(asked.step ?? ladder.steps.length, ladder.steps.length);
  const all = ladder.steps.slice(0, step).flatMap(activeTerms);
  const terms = all.filter(({ components }) => !components.includes(variable));
  if (terms.length === 0) throw new NothingWithinGroupsError({ variable, step });

  const codes = Int32Array.from(sample.rowsUsed, (row) => category.codes[row - 1]!);
  const present = new Set(codes);
  const joined = asked.together.map((levels) => levels.map(place).filter((at) => at >= 0 && present.has(at)));
  const groups = [...category.levels.keys()]
    .filter((code) => present.has(code) && !joined.some((own) => own.includes(code) && own.some((other) => other < code)))
    .map((code) => joined.find((own) => own.includes(code))?.toSorted((a, b) => a - b) ?? [code]);
  if (groups.length < 2) throw new OneGroupError({ variable, groups: groups.length });
  if (groups.length > MOST_GROUPS) throw new TooManyGroupsError({ variable, groups: groups.length, most: MOST_GROUPS });
  const groupOf = new Map(groups.flatMap((own, g) => own.map((code) => [code, g] as const)));
  const labels = codes.map((code) => groupOf.get(code)!);
  const models = modelsOn({ ...ladder, steps: [{ id: "-", name: "", off: false, terms }] }, found);
  return {
    asked: { variable, leftOut: asked.leftOut, together: asked.together },
    sample,
    step,
    models,
    grouped: groupedStep(models.spec, terms, models.variables, labels, groups.length),
    groups: groups.map((own) => {
      const levels = own.map((code) => category.levels[code]!);
      return { name: levels.join(" + "), levels };
    }),
    without: all.filter((term) => !terms.includes(term)),
    empty: category.levels.filter((_, code) => !present.has(code) && !out.has(code)),
  };
}

/** A step told by groups. */
export function analyseGroups(question: GroupsQuestion, desk: Desk): GroupsResult {
  let sample: AnalysisSample | null = null;
  try {
    const prepared = prepareGroups(question, desk, (found) => (sample = found));
    return compared(prepared, groupFits(prepared.grouped));
  } catch (error) {
    return { status: "refused", sample, refusal: refusalOf(error) };
  }
}

/** What fits of groups give. @param fits one a group */
export function compared(
  prepared: PreparedGroups,
  fits: readonly (GroupFit | RefusedGroup)[],
): Extract<GroupsResult, { status: "compared" }> {
  const { grouped, models } = prepared;
  const { spec, design } = grouped;
  const coefficient = (metric: "b" | "beta" | "betaOwn") =>
    fits.map((of) => ("fit" in of ? (column: string) => of.coefficients.find((c) => c.column === column)?.[metric] ?? null : null));
  const by = { raw: coefficient("b"), all: coefficient("beta"), own: coefficient("betaOwn") };
  const columns = design.columns.map((c) => c.name);
  const told = <T>(make: (metric: (typeof by)["raw"]) => T): Record<GroupMetric, T> => ({ raw: make(by.raw), all: make(by.all), own: make(by.own) }); // prettier-ignore
  const terms = [...new Map(design.columns.map(({ term }) => [termName(term), term])).values()];
  const total = models.fits[0]!.ssTotal;
  const columnsOf = (term: string) => design.columns.filter((c) => termName(c.term) === term).map((c) => c.name);
  return {
    status: "compared",
    asked: prepared.asked,
    sample: prepared.sample,
    step: prepared.step,
    outcome: spec.outcome,
    confidence: spec.confidence,
    errors: spec.errors?.kind ?? "classical",
    groups: prepared.groups.map((group, g) => ({ ...group, ...factsOf(fits[g]!) })),
    columns: design.columns.map(({ name, term }) => ({
      column: name,
      term: termName(term),
      found: told((metric) => metric.map((of) => of?.(name) ?? null)),
    })),
    differences: told((metric) => groupDifferences(columns, metric, spec.confidence)),
    alike: alikeTest(fits, columns),
    terms: terms.map((term) => {
      const own = columnsOf(termName(term));
      return { term: termName(term), alike: alikeTest(fits, own), crossed: crossedTest(fits, own, total) };
    }),
    pooled: pooledTest(grouped, fits, total),
    without: prepared.without.map(termName),
    empty: prepared.empty,
    parts: partsByKey([...terms, ...prepared.without], design.columns),
  };
}

function factsOf(of: GroupFit | RefusedGroup): Pick<ComparedGroup, "cases" | "fitted" | "refusal"> {
  if (!("fit" in of)) return { cases: of.cases, fitted: null, refusal: refusalOf(of.error) };
  const { fit, errors, intercept, dropped, cases } = of;
  return {
    cases,
    fitted: {
      R2: fit.ssRegression / fit.ssTotal,
      sdY: Math.sqrt(fit.ssTotal / (cases - 1)),
      s: Math.sqrt(fit.ssResidual / fit.dfResidual),
      df: fit.dfResidual,
      intercept,
      dropped,
      noErrors: "reason" in errors ? errors.reason : null,
      perfect: fit.perfect,
    },
    refusal: null,
  };
}

import { isConstant } from "@/core/describe/constant";
import { CoreError, SingularCorrelationsError } from "@/core/errors";
import { type CorrelationMatrix, correlationMatrix } from "@/core/factors/correlation-matrix";
import { mostFactors } from "@/core/factors/extraction";
import { correlationsIfOblique, eigenOf, type FactorSolution, factorSolution } from "@/core/factors/factor-solution";
import { type InverseCorrelations, inverseCorrelations } from "@/core/factors/inverse-correlations";
import { leadingAbove, randomEigenvalues } from "@/core/factors/parallel-analysis";
import { type SamplingAdequacy, samplingAdequacy } from "@/core/factors/sampling-adequacy";
import { type Sphericity, sphericity } from "@/core/factors/sphericity";
import type { Structure, StructurePart } from "../model/structure";
import { answersOf, completeRows } from "../prepare/score-scale";
import type { StudyColumns } from "../prepare/study-columns";
import { type Refusal, refusalOf, TooFewItemsError } from "./refusal";

/** What a structure's numbers depend on, besides the study's columns. */
export type StructureSpec = Pick<Structure, "respondents" | "extraction" | "rotation" | "factors" | "sets" | "seed"> & {
  parts: readonly Pick<StructurePart, "name" | "reversed">[];
};

type Singular = Extract<Refusal, { code: "singular-correlations" }>;

/** What lies behind a set of items. Matrices are row-major, items in the order of `items`. */
export interface StructureAnalysis {
  /** Respondents kept by the filters that hold, and those of them who answered every item. */
  rows: number;
  leftOut: number;
  n: number;
  items: string[];
  reversed: string[];
  /** Items left out since everybody gave the same answer. */
  constant: string[];
  /** Respondents without an answer, an item each, constant ones included. */
  missing: { item: string; count: number }[];
  correlations: Float64Array;
  adequacy: SamplingAdequacy | null;
  sphericity: Sphericity | null;
  /** Why the two are not available: the correlations have no inverse. */
  singular: Singular | null;
  eigenvalues: Float64Array;
  parallel: { percentile: Float64Array; sets: number; seed: number; retained: number };
  /** Factors of the solution: as chosen, or as parallel analysis suggests, at least one. */
  factors: number;
  solution: FactorSolution | null;
  /** Why there is no solution. */
  refusal: Refusal | null;
  /** m × m: how far oblimin's factors would correlate, when the chosen rotation keeps them apart; null otherwise. */
  ifOblique: Float64Array | null;
}

export type StructureResult = { status: "explored"; analysis: StructureAnalysis } | { status: "refused"; refusal: Refusal };

/** Keeps the percentiles of random eigenvalues: they depend on numbers of items and cases alone, and take most of the time. */
export type RandomEigenvalueShelf = Map<string, Float64Array>;

const SHARE = 0.95;

/**
 * Correlations, adequacy, how many factors, and the factors of some items on respondents complete on all of them.
 * @param progress told how many random data sets are done, of how many
 */
export function analyseStructure(
  spec: StructureSpec,
  columns: StudyColumns,
  progress: (done: number, of: number) => void = () => {},
  shelf: RandomEigenvalueShelf = new Map(),
): StructureResult {
  try {
    return { status: "explored", analysis: explore(spec, columns, progress, shelf) };
  } catch (error) {
    return { status: "refused", refusal: refusalOf(error) };
  }
}

function explore(
  spec: StructureSpec,
  columns: StudyColumns,
  progress: (done: number, of: number) => void,
  shelf: RandomEigenvalueShelf,
): StructureAnalysis {
  const all = columns.keyed(
    "structure",
    spec.parts.map(({ name, reversed }) => ({ variable: name, reversed })),
  );
  const kept = columns.kept(all[0]!.values.length, spec.respondents);
  const rows = kept.reduce((sum, in_) => sum + in_, 0);
  const complete = completeRows(all, kept);
  const varied = complete.length < 2 ? all : all.filter((item) => !isConstant(Float64Array.from(complete, (row) => item.values[row]!)));
  const constant = all.filter((item) => !varied.includes(item)).map((item) => item.variable);
  const items = varied.map((item) => item.variable);
  if (items.length < 3) throw new TooFewItemsError({ items: items.length, needed: 3, constant });
  const correlations = correlationMatrix(answersOf(varied, complete), items);
  const inverse = invert(correlations, items);
  const eigenvalues = eigenOf(correlations).values;
  const { sets, seed } = spec;
  const key = JSON.stringify([items.length, complete.length, sets, seed, SHARE]);
  const percentile =
    shelf.get(key) ??
    randomEigenvalues(items.length, complete.length, { sets, seed, share: SHARE }, (done) => done % 10 === 0 && progress(done, sets));
  shelf.set(key, percentile);
  const retained = leadingAbove(eigenvalues, percentile);
  const most = spec.extraction === "principal-components" ? items.length : mostFactors(items.length);
  const factors = spec.factors ?? Math.max(1, Math.min(most, retained));
  const { solution, refusal } = solve(() => factorSolution(correlations, { ...spec, factors }, items));
  const apart = solution !== null && solution.rotated.correlations === null;
  return {
    rows,
    leftOut: kept.length - rows,
    n: complete.length,
    items,
    reversed: spec.parts.filter((part) => part.reversed && items.includes(part.name)).map((part) => part.name),
    constant,
    missing: all.map((item) => ({
      item: item.variable,
      count: item.missing.reduce((sum, gone, row) => sum + (kept[row] ? gone : 0), 0),
    })),
    correlations: correlations.r,
    adequacy: inverse.found && samplingAdequacy(correlations, inverse.found),
    sphericity: inverse.found && sphericity(correlations, inverse.found),
    singular: inverse.refusal,
    eigenvalues,
    parallel: { percentile, sets, seed, retained },
    factors,
    solution,
    refusal,
    ifOblique: apart ? correlationsIfOblique(solution) : null,
  };
}

function invert(correlations: CorrelationMatrix, items: string[]): { found: InverseCorrelations | null; refusal: Singular | null } {
  try {
    return { found: inverseCorrelations(correlations, items, "Sampling adequacy"), refusal: null };
  } catch (error) {
    if (!(error instanceof SingularCorrelationsError)) throw error;
    return { found: null, refusal: { code: error.code, details: error.details } };
  }
}

function solve(make: () => FactorSolution): { solution: FactorSolution | null; refusal: Refusal | null } {
  try {
    return { solution: make(), refusal: null };
  } catch (error) {
    if (!(error instanceof CoreError)) throw error;
    return { solution: null, refusal: refusalOf(error) };
  }
}

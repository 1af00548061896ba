import { binsFor, evenBins, type Histogram } from "../describe/histogram";
import { orderOf } from "../describe/order-of";
import { quantile } from "../describe/quantile";
import { standardDeviation } from "../describe/standard-deviation";
import { UnlikeModelsError } from "../errors";
import { type CrossValidation, crossValidation, type Folds } from "./cross-validation";
import { type Fit, leastSquares } from "../regression/least-squares";
import { type ModelSummary, modelSummary } from "../regression/model-summary";
import { prepareDesign } from "../regression/prepared-design";
import { shareOutside } from "../regression/orthonormal-basis";
import { rSquaredChange } from "../regression/r-squared-change";

/** One of the models to compare. */
export interface Candidate {
  readonly name: string;
  readonly fit: Fit;
  /** Which cases of the data it was fitted on, in order. */
  readonly cases: ArrayLike<number>;
}

export interface ComparedModel {
  name: string;
  model: ModelSummary;
  /** Share of the evidence among the models compared, 0…1; null when one of them fits perfectly. */
  aicWeight: number | null;
  bicWeight: number | null;
  crossValidation: CrossValidation | null;
}

/** Min, quartiles (type 7) and max. */
export interface FiveNumbers {
  min: number;
  q1: number;
  median: number;
  q3: number;
  max: number;
}

/** The first model beside the second. */
export interface ComparedPair {
  first: string;
  second: string;
  /** exp((BIC of the second − BIC of the first)/2): how much the data favour the first; null also when it is beyond a double. */
  bayesFactor: number | null;
  log10BayesFactor: number | null;
  /** Predictions of the first − predictions of the second, in SDs of the outcome. */
  signed: FiveNumbers;
  absolute: FiveNumbers & { mean: number };
  /** When the columns of one follow from those of the other: what the larger adds. Null for models that are not nested. */
  nested: ({ larger: string } & Adds) | null;
  /** Of models that do not hold one another: R² of both together, and what each adds to the other; that is nested, and has a test. */
  together: { R2: number; first: Adds; second: Adds } | null;
  /** Differences in SD units, counted; and the cases that differ most, the furthest first. */
  histogram: Histogram;
  farthest: { case: number; difference: number }[];
}

/** What some columns add to others. */
interface Adds {
  change: number;
  F: number | null;
  df: readonly [number, number];
  p: number | null;
}

export interface Comparison {
  models: ComparedModel[];
  pairs: ComparedPair[];
}

/** A column counts as following from others when less than this share of its length² is outside their space. */
const INSIDE = 1e-18;
/** So many cases are told whose predictions differ most. */
const FARTHEST = 10;

/**
 * Compares models of one outcome on one sample (docs/methods.md, “Comparing models”). No p value unless nested.
 * @param folds for cross-validation; null leaves it out
 * @throws UnlikeModelsError when two models differ in outcome or cases
 * Sources: Burnham & Anderson (2002), Model Selection and Multimodel Inference, 2.9; Wagenmakers (2007), Psychonomic Bulletin & Review 14, 779–804.
 */
export function compareModels(candidates: readonly Candidate[], folds: Folds | null): Comparison {
  const first = candidates[0];
  if (!first) return { models: [], pairs: [] };
  for (const other of candidates.slice(1)) requireAlike(first, other);
  const summaries = candidates.map(({ fit }) => modelSummary(fit));
  const aic = weights(summaries.map((s) => s.AIC));
  const bic = weights(summaries.map((s) => s.BIC));
  const models = candidates.map(({ name, fit }, i) => ({
    name,
    model: summaries[i]!,
    aicWeight: aic[i]!,
    bicWeight: bic[i]!,
    crossValidation: folds && crossValidation(fit, folds),
  }));
  const sd = standardDeviation(first.fit.basis.design.outcome.values);
  const pairs = candidates.flatMap((a, i) =>
    candidates.slice(i + 1).map((b, j) => pairOf(a, b, summaries[i]!.BIC, summaries[i + 1 + j]!.BIC, sd)),
  );
  return { models, pairs };
}

function requireAlike(a: Candidate, b: Candidate): void {
  const refuse = (differ: "outcome" | "sample", values: readonly [string | number, string | number]) => {
    throw new UnlikeModelsError({ first: a.name, second: b.name, differ, values });
  };
  const [one, other] = [a.fit.basis.design.outcome, b.fit.basis.design.outcome];
  if (one.name !== other.name) refuse("outcome", [one.name, other.name]);
  let same = a.cases.length === b.cases.length;
  for (let i = 0; same && i < a.cases.length; i++) same = a.cases[i] === b.cases[i] && one.values[i] === other.values[i];
  if (!same) refuse("sample", [a.cases.length, b.cases.length]);
}

/** exp(−Δ/2) of each criterion over the sum of all. */
function weights(criteria: readonly (number | null)[]): (number | null)[] {
  const known = criteria.filter((c) => c !== null);
  if (known.length < criteria.length) return criteria.map(() => null);
  const least = Math.min(...known);
  const shares = known.map((c) => Math.exp((least - c) / 2));
  const sum = shares.reduce((total, share) => total + share, 0);
  return shares.map((share) => share / sum);
}

function pairOf(a: Candidate, b: Candidate, bicA: number | null, bicB: number | null, sd: number): ComparedPair {
  const signed = a.fit.residuals.map((e, i) => (b.fit.residuals[i]! - e) / sd); // ŷ_A − ŷ_B = e_B − e_A
  const absolute = signed.map(Math.abs);
  const half = bicA === null || bicB === null ? null : (bicB - bicA) / 2;
  const factor = half === null ? null : Math.exp(half);
  const nested = nestedChange(a, b) ?? nestedChange(b, a);
  const order = orderOf(absolute);
  return {
    first: a.name,
    second: b.name,
    bayesFactor: factor !== null && Number.isFinite(factor) ? factor : null,
    log10BayesFactor: half === null ? null : half / Math.LN10,
    signed: fiveNumbers(signed),
    absolute: { ...fiveNumbers(absolute), mean: absolute.reduce((sum, v) => sum + v / absolute.length, 0) },
    nested,
    together: nested ? null : bothTogether(a.fit, b.fit),
    histogram: evenBins(signed, binsFor(signed.length)),
    farthest: Array.from(order.slice(-FARTHEST).reverse(), (i) => ({ case: a.cases[i]!, difference: signed[i]! })),
  };
}

/** A model of the columns of both. */
function bothTogether(a: Fit, b: Fit): NonNullable<ComparedPair["together"]> {
  const columnsOf = ({ basis }: Fit) => basis.kept.slice(1).map((k) => basis.design.columns[k - 1]!);
  const columns = [...columnsOf(a), ...columnsOf(b)];
  const both = leastSquares(prepareDesign(columns, a.basis.design.outcome), columns.length);
  const adds = (to: Fit): Adds => {
    const { change, F, df, p } = rSquaredChange(to, both);
    return { change, F, df, p };
  };
  return { R2: both.ssRegression / both.ssTotal, first: adds(b), second: adds(a) };
}

function fiveNumbers(values: Float64Array): FiveNumbers {
  const sorted = values.slice().sort();
  const at = (share: number) => quantile(sorted, share);
  return { min: at(0), q1: at(0.25), median: at(0.5), q3: at(0.75), max: at(1) };
}

/** What the larger model adds when the smaller one's columns all follow from its own; null when they do not. */
function nestedChange(smaller: Candidate, larger: Candidate): ComparedPair["nested"] {
  const [few, many] = [smaller.fit, larger.fit];
  if (many.columns.length <= few.columns.length) return null;
  const sameDesign = few.basis.design === many.basis.design;
  const inside = few.basis.kept.slice(1).every((k) => {
    if (sameDesign && many.basis.kept.includes(k)) return true;
    const { values, centre, scale } = few.basis.design.columns[k - 1]!;
    return (
      shareOutside(
        many,
        values.map((v) => (v - centre) * scale),
      ) < INSIDE
    );
  });
  if (!inside) return null;
  const { change, F, df, p } = rSquaredChange(few, many);
  return { larger: larger.name, change, F, df, p };
}

import { tTwoSided } from "../distributions/t-distribution";
import type { Coefficient, Estimate } from "./coefficients";
import type { ModelSummary } from "./model-summary";
import { type Term, termName } from "./terms";

/**
 * A predictor whose β cannot be read off its own correlation with the outcome: points at suppression among the predictors.
 * - "stronger": |β| lies above |r|, and |r| below the interval of |β|.
 * - "other-sign": β and r differ in sign, each with p < .05.
 * - "hidden": r is near zero (|r| < .10, p ≥ .05) and the predictor still adds to the model (p < .05).
 */
export interface SuppressionSign {
  predictor: string;
  signs: ("stronger" | "other-sign" | "hidden")[];
}

/** With exactly two predictors the pattern has a name; `suppressor` is the predictor that makes it, or both. */
export interface SuppressionPair {
  kind: "classical" | "negative" | "reciprocal";
  predictors: readonly [string, string];
  suppressor: string | "both";
}

export type SuppressionFlag = ({ scope: "predictor" } & SuppressionSign) | ({ scope: "pair" } & SuppressionPair);

const NEAR_ZERO = 0.1;
const NOT_SIGNIFICANT = 0.05;

/**
 * Reading aids for one step (docs/methods.md, “Suppression”). Only numeric predictors that are in no product of the step: beside a
 * product, or for one level against another, β and r do not speak of the same thing.
 * @param terms all terms in the model at this step
 * Sources: Conger (1974), Educational and Psychological Measurement 34, 35–46; Tzelgov & Henik (1991), Psychological Bulletin 109, 524–536.
 */
export function suppressionFlags(coefficients: readonly Coefficient[], { n }: ModelSummary, terms: readonly Term[]): SuppressionFlag[] {
  const inProducts = new Set(terms.flatMap((term) => (term.components.length > 1 ? term.components : [])));
  const predictors = coefficients.flatMap((c): Predictor[] => {
    const term = terms.find((one) => termName(one) === c.term)!;
    const [name] = term.components;
    if (c.column !== c.term || term.components.length > 1 || inProducts.has(name!) || c.zeroOrder === null || c.beta === null) return [];
    return [{ name: name!, r: c.zeroOrder, pOfR: pOfCorrelation(c.zeroOrder, n), beta: c.beta, pOfBeta: c.b.p }];
  });
  const flags: SuppressionFlag[] = [];
  if (predictors.length === 2 && coefficients.length === 2) {
    const pair = pairOf(predictors[0]!, predictors[1]!);
    if (pair) flags.push({ scope: "pair", ...pair });
  }
  if (coefficients.length < 2) return flags;
  for (const predictor of predictors) {
    const signs = signsOf(predictor);
    if (signs.length > 0) flags.push({ scope: "predictor", predictor: predictor.name, signs });
  }
  return flags;
}

interface Predictor {
  name: string;
  r: number;
  pOfR: number;
  beta: Estimate;
  pOfBeta: number | null;
}

/** Two-sided, by t with n − 2. @param r −1…1 */
export function pOfCorrelation(r: number, n: number): number {
  return n < 3 ? 1 : tTwoSided(r * Math.sqrt((n - 2) / Math.max(0, 1 - r * r)), n - 2);
}

const isNearZero = ({ r, pOfR }: Predictor) => Math.abs(r) < NEAR_ZERO && pOfR >= NOT_SIGNIFICANT;
const isStronger = ({ r, beta }: Predictor) => Math.abs(beta.estimate) > Math.abs(r);
const differsInSign = ({ r, beta }: Predictor) => Math.sign(beta.estimate) * Math.sign(r) < 0;

/** The three kinds, tried in this order: a suppressor with r near zero may have either sign. */
function pairOf(a: Predictor, b: Predictor): SuppressionPair | null {
  const predictors = [a.name, b.name] as const;
  const classical = [a, b].find((p) => isNearZero(p) && isStronger(p));
  if (classical) return { kind: "classical", predictors, suppressor: classical.name };
  const negative = [a, b].filter(differsInSign);
  if (negative.length > 0) return { kind: "negative", predictors, suppressor: negative.length === 2 ? "both" : negative[0]!.name };
  return isStronger(a) && isStronger(b) ? { kind: "reciprocal", predictors, suppressor: "both" } : null;
}

function signsOf(predictor: Predictor): SuppressionSign["signs"] {
  const { r, pOfR, beta, pOfBeta: p } = predictor;
  const { lower, upper } = beta;
  const signs: SuppressionSign["signs"] = [];
  if (lower === null || upper === null || p === null) return signs;
  const lowest = beta.estimate < 0 ? -upper : lower; // of |β|
  if (isStronger(predictor) && Math.abs(r) < lowest) signs.push("stronger");
  if (differsInSign(predictor) && p < NOT_SIGNIFICANT && pOfR < NOT_SIGNIFICANT) signs.push("other-sign");
  if (isNearZero(predictor) && p < NOT_SIGNIFICANT) signs.push("hidden");
  return signs;
}

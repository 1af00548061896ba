import { combination, combinationCovariance, inference, isEstimable } from "./covariance";
import { type Estimate, rescaled } from "./coefficients";
import {
  dividedBy,
  entered,
  type HeldAt,
  heldAtLevel,
  NUMBERS,
  placeAt,
  predictionWeights,
  slopeWeights,
  type SpreadOf,
} from "./design-point";
import type { ProbeGround } from "./probe-ground";
import { partKey } from "./terms";

/** What is asked of a predictor: the slope of a number, or one level of a category against another. */
export type FocalEffect = { readonly variable: string } | { readonly variable: string; readonly level: string; readonly minus: string };

/** A variable held at a value in its own units, or at a level. */
export type Held = { readonly variable: string; readonly value: number } | { readonly variable: string; readonly level: string };

const spreadIn =
  (ground: ProbeGround): SpreadOf<number> =>
  ({ variable }, sds) => {
    const { centre, sd } = ground.spreads.get(variable)!;
    return entered(ground.design, variable, centre + sds * sd);
  };

function componentsHeld(ground: ProbeGround, held: readonly Held[]): HeldAt[] {
  return held.flatMap((at) =>
    "level" in at
      ? heldAtLevel(ground.design, at.variable, at.level)
      : [{ component: partKey({ variable: at.variable, level: null }), unit: "raw" as const, value: at.value }],
  );
}

/** A weight per column of the step: 1 for what it counts in the outcome predicted at a place; the intercept counts 1. */
function predicted(ground: ProbeGround, held: readonly Held[]): number[] {
  const place = placeAt(NUMBERS, ground.design, componentsHeld(ground, held), spreadIn(ground));
  return predictionWeights(NUMBERS, ground.design.columns, place);
}

/** A weight per column: what it counts in an effect at a place; the intercept counts nothing. Per raw unit of a number. */
function effectRow(ground: ProbeGround, effect: FocalEffect, held: readonly Held[]): number[] {
  const others = held.filter((at) => at.variable !== effect.variable);
  if ("level" in effect) {
    const { variable, level, minus } = effect;
    const [to, from] = [level, minus].map((one) => predicted(ground, [...others, { variable, level: one }]));
    return to!.map((weight, i) => weight - from![i]!);
  }
  const key = partKey({ variable: effect.variable, level: null });
  const place = placeAt(NUMBERS, ground.design, componentsHeld(ground, held), spreadIn(ground));
  const unit = dividedBy(ground.design, key);
  return slopeWeights(NUMBERS, ground.design.columns, key, place).map((weight) => weight / unit);
}

/** Null: a column was dropped that it depends on. */
function estimated(ground: ProbeGround, intercept: number, row: readonly number[]): Estimate | null {
  return isEstimable(ground.fit, intercept, row)
    ? combination(ground.fit, ground.of, weightsOf(ground, intercept, row), ground.confidence)
    : null;
}

const weightsOf = ({ fit }: ProbeGround, intercept: number, row: readonly number[]) =>
  fit.basis.kept.map((column) => (column === 0 ? intercept : row[column - 1]!));

/** How many units of the metric one raw unit of an effect is: outcome SDs per SD of a number, outcome SDs for a level. */
function unitOf(ground: ProbeGround, effect: FocalEffect, metric: "raw" | "z"): number {
  if (metric === "raw") return 1;
  return ("level" in effect ? 1 : ground.spreads.get(effect.variable)!.sd) / ground.outcomeSd;
}

/**
 * The effect of a predictor at a place (docs/methods.md, “Simple slopes”): the others at their means, categories at equal weights.
 * @param held the moderators; of a square its own variable
 * @returns null where the sample does not hold what it would be told from
 * Source: Aiken & West (1991), Multiple Regression: Testing and Interpreting Interactions, 2 and 7.
 */
export function simpleEffect(
  ground: ProbeGround,
  effect: FocalEffect,
  held: readonly Held[],
  metric: "raw" | "z" = "raw",
): Estimate | null {
  const found = estimated(ground, 0, effectRow(ground, effect, held));
  return found && rescaled(found, unitOf(ground, effect, metric));
}

/** One effect minus another, tested. Source: Dawson & Richter (2006), Journal of Applied Psychology 91, 917–926. */
export function effectDifference(
  ground: ProbeGround,
  effect: FocalEffect,
  first: readonly Held[],
  second: readonly Held[],
  metric: "raw" | "z" = "raw",
): Estimate | null {
  const [a, b] = [effectRow(ground, effect, first), effectRow(ground, effect, second)];
  const found = estimated(
    ground,
    0,
    a.map((weight, i) => weighed([weight, -b[i]!])),
  );
  return found && rescaled(found, unitOf(ground, effect, metric));
}

/** What is left of parts that cancel but for their rounding is nothing: the mean of three places evenly apart is the middle one, and has no test against it. */
function weighed(parts: readonly number[]): number {
  const sum = parts.reduce((total, part) => total + part, 0);
  const size = parts.reduce((total, part) => total + Math.abs(part), 0);
  return Math.abs(sum) <= 4 * parts.length * Number.EPSILON * size ? 0 : sum;
}

/** The outcome predicted at a place, the rest at their averages. */
export function predictedAt(ground: ProbeGround, held: readonly Held[]): Estimate | null {
  return estimated(ground, 1, predicted(ground, held));
}

/** A weighted sum of predicted outcomes whose weights add up to nothing, tested: a difference, one against the mean of several. */
export function predictionContrast(ground: ProbeGround, parts: readonly { held: readonly Held[]; weight: number }[]): Estimate | null {
  const rows = parts.map(({ held }) => predicted(ground, held));
  const sum = ground.design.columns.map((_, i) => weighed(parts.map(({ weight }, k) => weight * rows[k]![i]!)));
  return estimated(ground, 0, sum);
}

/** An effect along a numeric moderator: effect and variance at any of its values, and where the band around it leaves zero. */
export interface EffectAlong {
  moderator: string;
  /** Effect = a0 + a1·t and variance = v00 + 2·v01·t + v11·t², t the moderator's z-score. */
  a: readonly [number, number];
  v: readonly [number, number, number];
  centre: number;
  sd: number;
  critical: number;
  /** Values of the moderator at which p is 1 − confidence, ascending; outside the data as well. */
  bounds: number[];
  /** Where the effect can be told from zero. */
  holds: "everywhere" | "nowhere" | "between" | "outside" | "above" | "below";
}

/** Why there is none. */
export type NoAlong = { reason: "not-estimable" | "not-a-line" | "perfect-fit" | "does-not-vary" };

/**
 * An effect along one of its moderators, the others where they are held.
 * Source: Johnson & Neyman (1936), Statistical Research Memoirs 1, 57–93; Bauer & Curran (2005), Multivariate Behavioral Research 40, 373–400.
 */
export function effectAlong(
  ground: ProbeGround,
  effect: FocalEffect,
  moderator: string,
  held: readonly Held[],
  metric: "raw" | "z" = "raw",
): EffectAlong | NoAlong {
  if (ground.fit.perfect) return { reason: "perfect-fit" };
  const { centre, sd } = ground.spreads.get(moderator)!;
  if (!(sd > 0)) return { reason: "does-not-vary" };
  const others = held.filter((at) => at.variable !== moderator);
  const rows = [0, 1, 2].map((t) => effectRow(ground, effect, [...others, { variable: moderator, value: centre + t * sd }]));
  const [row, next, far] = [rows[0]!, rows[1]!, rows[2]!];
  const size = Math.max(...next.map(Math.abs), ...far.map(Math.abs), 1e-300);
  const bent = far.some((weight, i) => Math.abs(weight - 2 * next[i]! + row[i]!) > 1e-9 * size);
  if (bent) return { reason: "not-a-line" };
  if (!isEstimable(ground.fit, 0, row) || !isEstimable(ground.fit, 0, next)) return { reason: "not-estimable" };
  const at0 = weightsOf(ground, 0, row);
  const perSd = weightsOf(
    ground,
    0,
    next.map((weight, i) => weight - row[i]!),
  );
  const value = (weights: number[]) => combination(ground.fit, ground.of, weights, ground.confidence).estimate;
  const unit = unitOf(ground, effect, metric);
  const a = [unit * value(at0), unit * value(perSd)] as const;
  const v = combinationCovariance(ground.fit, ground.of, at0, perSd).map((one) => one * unit * unit) as [number, number, number];
  const { critical } = inference(ground.fit, ground.of, ground.confidence);
  const { roots, holds } = region(a, v, critical);
  return { moderator, a, v, centre, sd, critical, bounds: roots.map((t) => centre + t * sd), holds };
}

/** The effect and its interval at a value of the moderator. */
export function effectAt({ a, v, centre, sd, critical }: EffectAlong, value: number): { y: number; lower: number; upper: number } {
  const t = (value - centre) / sd;
  const y = a[0] + a[1] * t;
  const half = critical * Math.sqrt(Math.max(0, v[0] + 2 * v[1] * t + v[2] * t * t));
  return { y, lower: y - half, upper: y + half };
}

/** Roots in t of (a0 + a1·t)² = c²·(v00 + 2·v01·t + v11·t²), and on which side of them the left is larger. */
function region(a: EffectAlong["a"], v: EffectAlong["v"], critical: number): { roots: number[]; holds: EffectAlong["holds"] } {
  const c2 = critical * critical;
  const [p, half, q] = [a[1] ** 2 - c2 * v[2], a[0] * a[1] - c2 * v[1], a[0] ** 2 - c2 * v[0]];
  const size = Math.max(a[1] ** 2, c2 * v[2]);
  if (Math.abs(p) <= 1e-14 * size) {
    if (half === 0) return { roots: [], holds: q > 0 ? "everywhere" : "nowhere" };
    return { roots: [-q / (2 * half)], holds: half > 0 ? "above" : "below" };
  }
  const discriminant = half * half - p * q;
  if (discriminant <= 0) return { roots: [], holds: p > 0 ? "everywhere" : "nowhere" };
  const far = -(half + Math.sign(half || 1) * Math.sqrt(discriminant)); // no cancellation: the other follows from the product
  const roots = [far / p, q / far].sort((x, y) => x - y);
  return { roots, holds: p > 0 ? "outside" : "between" };
}

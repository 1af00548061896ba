import { mean } from "@/core/describe/mean";
import { standardDeviation } from "@/core/describe/standard-deviation";
import { lowess } from "@/core/describe/lowess";
import { orderOf } from "@/core/describe/order-of";
import { type PerCase } from "@/core/diagnostics/case-statistics";
import type { Desk } from "../kinds/kind";
import type { Residuals } from "../model/residuals";

/** Smooths are told at so many places. */
const SMOOTH_AT = 60;

export interface ResidualLevel {
  level: string;
  n: number;
  mean: number;
  /** Null for a single respondent. */
  sd: number | null;
}

/** Smooths of the residuals and of √|studentized| at a place of what they are seen along; of a level their means. */
export interface SmoothPoint {
  x: number;
  residual: number;
  spread: number;
}

/** What each case is seen along; NaN for who has no value of it: such are in no picture of it, and in all numbers. */
export function seenAlong({ along, rows: byRow }: Residuals, { study, columns }: Desk, rows: ArrayLike<number>, fitted: Float64Array) {
  if (byRow) return { xs: Float64Array.from(rows), levels: null };
  if (along === null) return { xs: fitted, levels: null };
  if (study.codebook.some(({ name, kind }) => name === along && kind === "category")) {
    const { levels, codes, missing } = columns.categories(along);
    return { xs: Float64Array.from(rows, (row) => (missing[row - 1] ? NaN : codes[row - 1]!)), levels };
  }
  const { values, missing } = columns.numbers(along);
  return { xs: Float64Array.from(rows, (row) => (missing[row - 1] ? NaN : values[row - 1]!)), levels: null };
}

export function smoothOf(xs: Float64Array, residuals: Float64Array, studentized: PerCase): SmoothPoint[] {
  const having = Int32Array.from(xs.keys()).filter((i) => !Number.isNaN(xs[i]!));
  const there = orderOf(Float64Array.from(having, (i) => xs[i]!)).map((k) => having[k]!);
  const x = Float64Array.from(there, (i) => xs[i]!);
  const own = lowess(x, Float64Array.from(there, (i) => residuals[i]!)); // prettier-ignore
  const spread = lowess(x, Float64Array.from(there, (i) => Math.sqrt(Math.abs(studentized[i] ?? 0)))); // prettier-ignore
  const pace = Math.max(1, Math.floor(x.length / SMOOTH_AT));
  const places = Array.from(x, (_, k) => k).filter((k) => k % pace === 0 || k === x.length - 1);
  return places.map((i) => ({ x: x[i]!, residual: own[i]!, spread: spread[i]! }));
}

/** Level by level, those that nobody has left out. */
export function byLevel(
  names: readonly string[],
  xs: Float64Array,
  residuals: Float64Array,
  studentized: PerCase,
): { levels: ResidualLevel[]; smooth: SmoothPoint[] } {
  const told = names.flatMap((level, at) => {
    const own = Int32Array.from(xs.keys()).filter((i) => xs[i] === at);
    if (own.length === 0) return [];
    const e = Float64Array.from(own, (i) => residuals[i]!);
    const spread = mean(Float64Array.from(own, (i) => Math.sqrt(Math.abs(studentized[i] ?? 0))));
    return [{ level, at, n: own.length, mean: mean(e), sd: own.length > 1 ? standardDeviation(e) : null, spread }];
  });
  return {
    levels: told.map(({ level, n, mean: centre, sd }) => ({ level, n, mean: centre, sd })),
    smooth: told.map(({ at, mean: residual, spread }) => ({ x: at, residual, spread })),
  };
}

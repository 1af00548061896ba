import { cholesky, solveLower, solveLowerTransposed } from "../linear-algebra/cholesky";

/** A point where the path turns: a column joins or leaves, or the path is at its end. Coefficients are those before the change. */
export interface Knot {
  lambda: number;
  event: "enters" | "leaves" | "end";
  /** Place of the column; null at the end. */
  column: number | null;
  /** Length q. */
  beta: Float64Array;
}

/** Correlations of q columns, row-major, and with the outcome. */
export interface Correlations {
  G: Float64Array;
  r: Float64Array;
}

/** Two places on the path closer than this, relative to λ, are one. */
const SAME = 1e-10;

/**
 * Least-angle path, and with `lasso` that of Σe²/(2(n − 1)) + λΣ|β| exactly: a column whose coefficient reaches 0 leaves, and may return.
 * Between knots coefficients are linear in λ; the path goes down to λ = 0.
 * @param most columns at once: n − 1 − the controls' columns
 * Source: Efron, Hastie, Johnstone & Tibshirani (2004), Annals of Statistics 32, 407–499.
 */
export function leastAnglePath({ G, r }: Correlations, most: number, lasso: boolean): Knot[] {
  const q = r.length;
  const knots: Knot[] = [];
  let active: number[] = [];
  const sign = new Int8Array(q);
  const never = new Uint8Array(q);
  const beta = new Float64Array(q);
  let lambda = 0;
  for (let j = 0; j < q; j++) lambda = Math.max(lambda, Math.abs(r[j]!));
  const first = r.findIndex((value) => Math.abs(value) === lambda);
  if (first < 0 || lambda === 0) return [{ lambda: 0, event: "end", column: null, beta }];
  const at = (value: number, event: Knot["event"], column: number | null) =>
    knots.push({ lambda: value, event, column, beta: beta.slice() });
  at(lambda, "enters", first);
  active.push(first);
  sign[first] = Math.sign(r[first]!);
  let left = -1; // the column that has just left does not come back at the same place
  for (let turn = 0; turn < 20 * q + 20; turn++) {
    const m = active.length;
    const l = cholesky(sub(G, q, active), m);
    if (l === null) break;
    const solve = (right: Float64Array) => solveLowerTransposed(l, solveLower(l, right, m), m);
    const u = solve(Float64Array.from(active, (j) => r[j]!));
    const v = solve(Float64Array.from(active, (j) => sign[j]!));
    let next = 0;
    let column = -1;
    let leaves = false;
    if (m < most) {
      for (let j = 0; j < q; j++) {
        if (never[j] || active.includes(j)) continue;
        let [a, d] = [r[j]!, 0];
        for (let k = 0; k < m; k++) {
          a -= G[j * q + active[k]!]! * u[k]!;
          d += G[j * q + active[k]!]! * v[k]!;
        }
        for (const candidate of [a / (1 - d), -a / (1 + d)]) {
          if (!(candidate > 0) || candidate > lambda * (1 + SAME)) continue;
          if (j === left && candidate > lambda * (1 - SAME)) continue;
          if (candidate > next * (1 + SAME)) {
            next = Math.min(candidate, lambda);
            column = j;
            leaves = false;
          }
        }
      }
    }
    if (lasso) {
      for (let k = 0; k < m; k++) {
        const candidate = u[k]! / v[k]!;
        if (!(candidate > 0) || candidate >= lambda * (1 - SAME) || !(candidate > next * (1 + SAME))) continue;
        next = candidate;
        column = active[k]!;
        leaves = true;
      }
    }
    for (let k = 0; k < m; k++) beta[active[k]!] = u[k]! - next * v[k]!;
    lambda = next;
    if (column < 0) {
      at(0, "end", null);
      return knots;
    }
    if (leaves) {
      beta[column] = 0;
      at(lambda, "leaves", column);
      active = active.filter((j) => j !== column);
      sign[column] = 0;
      left = column;
      continue;
    }
    left = -1;
    // a combination of those that are in adds nothing, and never will while they are
    if (cholesky(sub(G, q, [...active, column]), m + 1) === null) {
      never[column] = 1;
      continue;
    }
    at(lambda, "enters", column);
    let along = r[column]!;
    for (let k = 0; k < m; k++) along -= G[column * q + active[k]!]! * beta[active[k]!]!;
    sign[column] = Math.sign(along);
    active.push(column);
  }
  at(lambda, "end", null);
  return knots;
}

function sub(G: Float64Array, q: number, set: readonly number[]): Float64Array {
  const m = set.length;
  const part = new Float64Array(m * m);
  for (let i = 0; i < m; i++) for (let j = 0; j < m; j++) part[i * m + j] = G[set[i]! * q + set[j]!]!;
  return part;
}

/** Coefficients at any λ: linear between the knots beside it. */
export function pathAt(knots: readonly Knot[], lambda: number): Float64Array {
  const first = knots[0]!;
  if (lambda >= first.lambda) return first.beta.slice();
  const below = knots.findIndex((knot) => knot.lambda <= lambda);
  if (below < 0) return knots.at(-1)!.beta.slice();
  const [upper, lower] = [knots[below - 1]!, knots[below]!];
  const share = upper.lambda === lower.lambda ? 1 : (upper.lambda - lambda) / (upper.lambda - lower.lambda);
  return upper.beta.map((value, j) => value + share * (lower.beta[j]! - value));
}

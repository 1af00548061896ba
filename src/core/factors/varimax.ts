import { multiply, type Rotation, unitRows } from "./rotation";
import { rotationStarts } from "./rotation-starts";

const MOST_SWEEPS = 500;
/** Largest angle, in radians, that counts as none. */
const STILL = 1e-11;

/**
 * Orthogonal rotation to the greatest variance of squared loadings within factors, rows at unit length while it turns. Plane by plane, from several
 * starts; the best is kept.
 * @param loadings k × m, row-major
 * Source: Kaiser (1958), Psychometrika 23, 187–200.
 */
export function varimax(loadings: Float64Array, k: number, m: number): Rotation {
  const { rows, lengths } = unitRows(loadings, k, m);
  let best = { at: rows, height: -Infinity, settled: true };
  for (const start of rotationStarts(m)) {
    const at = multiply(rows, start, k, m, m);
    const settled = turnPlanes(at, k, m);
    const height = variance(at, k, m);
    // a start that ends at the same peak a rounding higher does not count as better
    if (height > best.height + 1e-10) best = { at, height, settled };
  }
  return { pattern: best.at.map((x, at) => x * lengths[Math.floor(at / m)]!), correlations: null, settled: best.settled };
}

/** Turns every pair of factors in its plane until none moves. @returns whether it settled */
function turnPlanes(l: Float64Array, k: number, m: number): boolean {
  for (let sweep = 0; sweep < MOST_SWEEPS; sweep++) {
    let moved = 0;
    for (let a = 0; a < m; a++) {
      for (let b = a + 1; b < m; b++) {
        let [sumU, sumV, squares, product] = [0, 0, 0, 0];
        for (let i = 0; i < k; i++) {
          const [x, y] = [l[i * m + a]!, l[i * m + b]!];
          const [u, v] = [x * x - y * y, 2 * x * y];
          sumU += u;
          sumV += v;
          squares += u * u - v * v;
          product += 2 * u * v;
        }
        const angle = Math.atan2(product - (2 * sumU * sumV) / k, squares - (sumU * sumU - sumV * sumV) / k) / 4;
        moved = Math.max(moved, Math.abs(angle));
        const [cosine, sine] = [Math.cos(angle), Math.sin(angle)];
        for (let i = 0; i < k; i++) {
          const [x, y] = [l[i * m + a]!, l[i * m + b]!];
          l[i * m + a] = cosine * x + sine * y;
          l[i * m + b] = cosine * y - sine * x;
        }
      }
    }
    if (moved < STILL) return true;
  }
  return false;
}

function variance(l: Float64Array, k: number, m: number): number {
  let height = 0;
  for (let a = 0; a < m; a++) {
    let [squares, fourths] = [0, 0];
    for (let i = 0; i < k; i++) {
      squares += l[i * m + a]! ** 2 / k;
      fourths += l[i * m + a]! ** 4 / k;
    }
    height += fourths - squares * squares;
  }
  return height;
}

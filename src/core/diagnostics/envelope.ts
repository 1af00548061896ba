import { quantile } from "../describe/quantile";
import { randomStream } from "../random/random-stream";
import type { Fit } from "../regression/least-squares";
import { hasFullLeverage, leverages, orthonormalBasis } from "../regression/orthonormal-basis";

/** Between which values the residual of each rank lies when all is as the model has it. */
export interface Envelope {
  /** By rank, from the lowest residual; length n. */
  lower: Float64Array;
  upper: Float64Array;
  samples: number;
  seed: number;
}

const SHARE = 0.95;

/**
 * Simulated envelope of internally studentized residuals: e = (I − H)z with normal z, studentized and sorted; pointwise 2.5th and 97.5th percentiles of each rank.
 * @param progress samples done
 * @returns null where a case has leverage 1, or no degree of freedom is left: it has no studentized residual
 * Source: Atkinson (1981), Biometrika 68, 13–20.
 */
export function simulatedEnvelope(
  fit: Fit,
  { samples = 1000, seed = 1 }: { samples?: number; seed?: number } = {},
  progress?: (done: number) => void,
): Envelope | null {
  const { n, dfResidual: df } = fit;
  const q = fit.basis.kept.length;
  const h = leverages(fit);
  if (df < 1 || h.some(hasFullLeverage)) return null;
  const basis = orthonormalBasis(fit.basis.design);
  const root = h.map((one) => Math.sqrt(1 - one));
  const stream = randomStream(seed);
  const all = new Float64Array(samples * n);
  const e = new Float64Array(n);
  for (let b = 0; b < samples; b++) {
    for (let i = 0; i < n; i++) e[i] = stream.normal();
    for (let k = 0; k < q; k++) {
      const column = basis.subarray(k * n, (k + 1) * n);
      let along = 0;
      for (let i = 0; i < n; i++) along += column[i]! * e[i]!;
      for (let i = 0; i < n; i++) e[i] = e[i]! - along * column[i]!;
    }
    let squares = 0;
    for (let i = 0; i < n; i++) squares += e[i]! ** 2;
    const s = Math.sqrt(squares / df);
    const own = all.subarray(b * n, (b + 1) * n);
    for (let i = 0; i < n; i++) own[i] = e[i]! / (s * root[i]!);
    own.sort();
    if (b % 50 === 49) progress?.(b + 1);
  }
  const lower = new Float64Array(n);
  const upper = new Float64Array(n);
  const ofRank = new Float64Array(samples);
  for (let i = 0; i < n; i++) {
    for (let b = 0; b < samples; b++) ofRank[b] = all[b * n + i]!;
    ofRank.sort();
    lower[i] = quantile(ofRank, (1 - SHARE) / 2);
    upper[i] = quantile(ofRank, (1 + SHARE) / 2);
  }
  return { lower, upper, samples, seed };
}

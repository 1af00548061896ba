import { randomStream } from "../random/random-stream";

const SEED = 1958;
/** Random places to begin from, besides the loadings as they were extracted. */
const RANDOM_STARTS = 8;

/**
 * Orthogonal m × m matrices from which a rotation begins, the unturned one first: a criterion may have several peaks, and
 * the best is kept. The same on every machine.
 */
export function rotationStarts(m: number): Float64Array[] {
  const unit = Float64Array.from({ length: m * m }, (_, at) => (at % (m + 1) === 0 ? 1 : 0));
  return [unit, ...Array.from({ length: RANDOM_STARTS }, (_, start) => randomOrthogonal(m, start))];
}

/** Gram and Schmidt's process on normal deviates, done twice so that no rounding is left. */
function randomOrthogonal(m: number, stream: number): Float64Array {
  const random = randomStream(SEED, stream);
  const rows = Float64Array.from({ length: m * m }, () => random.normal());
  for (let i = 0; i < m; i++) {
    for (let again = 0; again < 2; again++) {
      for (let j = 0; j < i; j++) {
        let along = 0;
        for (let l = 0; l < m; l++) along += rows[i * m + l]! * rows[j * m + l]!;
        for (let l = 0; l < m; l++) rows[i * m + l] = rows[i * m + l]! - along * rows[j * m + l]!;
      }
    }
    const length = Math.sqrt(rows.subarray(i * m, i * m + m).reduce((sum, x) => sum + x * x, 0));
    for (let l = 0; l < m; l++) rows[i * m + l] = rows[i * m + l]! / length;
  }
  return rows;
}

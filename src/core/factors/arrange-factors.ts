import { multiply, transposed } from "./rotation";

/** Factors in their printed form. */
export interface ArrangedFactors {
  pattern: Float64Array;
  /** m × m; null for orthogonal factors. */
  correlations: Float64Array | null;
  /** Variance each factor explains: the diagonal of ΦP′P, the sum of squared loadings when factors are orthogonal. */
  variance: Float64Array;
}

/** Each factor's largest loading becomes positive; factors stand by the variance they explain, largest first. */
export function arrangeFactors(pattern: Float64Array, correlations: Float64Array | null, k: number, m: number): ArrangedFactors {
  const cross = multiply(transposed(pattern, k, m), pattern, m, k, m);
  const explained = correlations ? multiply(correlations, cross, m, m, m) : cross;
  const variance = Float64Array.from({ length: m }, (_, c) => explained[c * m + c]!);
  const order = Array.from({ length: m }, (_, c) => c).sort((a, b) => variance[b]! - variance[a]!);
  const signs = Array.from({ length: m }, (_, c) => {
    let largest = 0;
    for (let i = 0; i < k; i++) if (Math.abs(pattern[i * m + c]!) > Math.abs(largest)) largest = pattern[i * m + c]!;
    return largest < 0 ? -1 : 1;
  });
  const from = (c: number) => order[c]!;
  return {
    pattern: pattern.map((_, at) => pattern[Math.floor(at / m) * m + from(at % m)]! * signs[from(at % m)]!),
    correlations:
      correlations &&
      correlations.map((_, at) => {
        const [a, b] = [from(Math.floor(at / m)), from(at % m)];
        return correlations[a * m + b]! * signs[a]! * signs[b]!;
      }),
    variance: Float64Array.from(order, (c) => variance[c]!),
  };
}

/** Loadings turned to where they read most simply. */
export interface Rotation {
  /** k items × m factors: the weights of the factors in each item; of orthogonal factors the correlations too. */
  pattern: Float64Array;
  /** m × m; null for orthogonal factors. */
  correlations: Float64Array | null;
  /** False when the rounds allowed did not suffice. */
  settled: boolean;
}

/** Rows scaled to length 1 (Kaiser's normalization), and what they were; a row of zeros stays. */
export function unitRows(loadings: Float64Array, k: number, m: number): { rows: Float64Array; lengths: Float64Array } {
  const lengths = Float64Array.from({ length: k }, (_, i) =>
    Math.sqrt(loadings.subarray(i * m, i * m + m).reduce((sum, x) => sum + x * x, 0)),
  );
  return { rows: loadings.map((x, at) => x / (lengths[Math.floor(at / m)]! || 1)), lengths };
}

/** a (p × q) times b (q × s), row-major. */
export function multiply(a: Float64Array, b: Float64Array, p: number, q: number, s: number): Float64Array {
  const product = new Float64Array(p * s);
  for (let i = 0; i < p; i++) {
    for (let j = 0; j < q; j++) {
      const x = a[i * q + j]!;
      for (let l = 0; l < s; l++) product[i * s + l] = product[i * s + l]! + x * b[j * s + l]!;
    }
  }
  return product;
}

/** The other way round: q × p from p × q. */
export function transposed(a: Float64Array, p: number, q: number): Float64Array {
  return Float64Array.from({ length: p * q }, (_, at) => a[(at % p) * q + Math.floor(at / p)]!);
}

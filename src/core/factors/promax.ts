import { cholesky, inverseFromCholesky, solveLower, solveLowerTransposed } from "../linear-algebra/cholesky";
import { multiply, type Rotation, transposed, unitRows } from "./rotation";
import { varimax } from "./varimax";

/**
 * Oblique rotation: the varimax loadings at unit row length (A) are brought as near as least squares can to a target A·|A|^(κ−1), in which small loadings
 * have all but vanished; factors keep variance 1, rows get their length back.
 * @param loadings k × m, row-major, of full column rank
 * @returns the varimax solution as it is where no least-squares fit exists
 * Source: Hendrickson & White (1964), British Journal of Statistical Psychology 17, 65–70.
 */
export function promax(loadings: Float64Array, k: number, m: number, kappa = 4): Rotation {
  const start = varimax(loadings, k, m);
  const { rows, lengths } = unitRows(start.pattern, k, m);
  const target = rows.map((x) => x * Math.abs(x) ** (kappa - 1));
  const across = transposed(rows, k, m);
  const l = cholesky(multiply(across, rows, m, k, m), m);
  if (!l) return start;
  const right = transposed(multiply(across, target, m, k, m), m, m);
  const u = new Float64Array(m * m); // column by column
  for (let c = 0; c < m; c++) u.set(solveLowerTransposed(l, solveLower(l, right.subarray(c * m, c * m + m), m), m), c * m);
  const turn = transposed(u, m, m);
  const inner = cholesky(multiply(transposed(turn, m, m), turn, m, m, m), m);
  if (!inner) return start;
  const inverse = inverseFromCholesky(inner, m);
  const sizes = Float64Array.from({ length: m }, (_, c) => Math.sqrt(inverse[c * m + c]!));
  const scaled = turn.map((x, at) => x * sizes[at % m]!);
  return {
    pattern: multiply(rows, scaled, k, m, m).map((x, at) => x * lengths[Math.floor(at / m)]!),
    correlations: inverse.map((x, at) => x / (sizes[Math.floor(at / m)]! * sizes[at % m]!)),
    settled: start.settled,
  };
}

import { mean } from "../describe/mean";
import { standardDeviation } from "../describe/standard-deviation";
import { fUpperTail } from "../distributions/f-distribution";
import type { Fit } from "../regression/least-squares";
import { shareOutside } from "../regression/orthonormal-basis";
import type { NoTest } from "./residual-tests";

/** Does the square of a column add anything to the step? */
export interface Bend {
  F: number;
  df: readonly [1, number];
  p: number;
  /** True: the relation opens upwards. */
  upwards: boolean;
}

/** Less than this share of the square is left: the step's columns determine it, as for a column of two values. */
const NOTHING_LEFT = 1e-10;

/**
 * F of entering the square of a column beside all of a step, without another fit: the residuals have nothing in common with the columns, so what the square explains is its
 * product with them over what the columns leave of it.
 * @param values of the column, length n
 */
export function bendOf(fit: Fit, values: Float64Array): Bend | NoTest {
  if (fit.perfect) return { reason: "perfect-fit" };
  const df = fit.dfResidual - 1;
  if (df < 1) return { reason: "no-degrees-of-freedom" };
  const [centre, sd] = [mean(values), standardDeviation(values)];
  if (!(sd > 0)) return { reason: "nothing-to-add" };
  const squares = values.map((v) => ((v - centre) / sd) ** 2);
  const middle = mean(squares);
  const centred = squares.map((v) => v - middle);
  const share = shareOutside(fit, centred);
  if (share < NOTHING_LEFT) return { reason: "nothing-to-add" };
  const left = share * centred.reduce((sum, v) => sum + v * v, 0);
  const along = centred.reduce((sum, v, i) => sum + v * fit.residuals[i]!, 0);
  const explained = along ** 2 / left;
  const rest = fit.ssResidual - explained;
  if (!(rest > 1e-12 * fit.ssResidual)) return { reason: "perfect-fit" };
  const F = explained / (rest / df);
  return { F, df: [1, df], p: fUpperTail(F, 1, df), upwards: along > 0 };
}

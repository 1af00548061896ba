import { centredSumOfSquares } from "../describe/centred-sum-of-squares";
import { mean } from "../describe/mean";
import type { Fit } from "../regression/least-squares";
import { hasFullLeverage, leverages } from "../regression/orthonormal-basis";

/**
 * How far ΔR² would move without each case: with it less without it, from one pass. SSE without a case is SSE − e²/(1 − h), SST without it SST − (y − ȳ)²·n/(n − 1); columns stay as
 * they are, which changes nothing where products stand beside their parts.
 * @param before the step before; null for the first
 * @returns per case; 0 where one of the two fits cannot do without it
 */
export function changeWithoutEach(before: Fit | null, after: Fit, y: Float64Array): Float64Array {
  const n = y.length;
  const [total, centre] = [centredSumOfSquares(y), mean(y)];
  const smaller = before && { fit: before, h: leverages(before) };
  const h = leverages(after);
  const change = (sseBefore: number, sseAfter: number, sst: number) => (sseBefore - sseAfter) / sst;
  const whole = change(before?.ssResidual ?? total, after.ssResidual, total);
  return Float64Array.from(y, (value, i) => {
    const sst = total - ((value - centre) ** 2 * n) / (n - 1);
    if (hasFullLeverage(h[i]!) || (smaller && hasFullLeverage(smaller.h[i]!)) || !(sst > 0)) return 0;
    const sseAfter = after.ssResidual - after.residuals[i]! ** 2 / (1 - h[i]!);
    const sseBefore = smaller ? smaller.fit.ssResidual - smaller.fit.residuals[i]! ** 2 / (1 - smaller.h[i]!) : sst;
    return whole - change(sseBefore, sseAfter, sst);
  });
}

import type { CorrelationMatrix } from "./correlation-matrix";
import type { InverseCorrelations } from "./inverse-correlations";

/** Kaiser, Meyer and Olkin's measure, 0…1: how much of the items' correlations is shared with more than one other item. */
export interface SamplingAdequacy {
  overall: number;
  /** One an item, in their order. */
  perItem: Float64Array;
}

/**
 * Σr² / (Σr² + Σq²) off the diagonal, q the partial correlations given all other items (anti-image correlations).
 * @returns null when no two items correlate at all: 0/0
 * Source: Kaiser (1970), Psychometrika 35, 401–415; Kaiser & Rice (1974), Educational and Psychological Measurement 34, 111–117.
 */
export function samplingAdequacy({ r, items: k }: CorrelationMatrix, { inverse }: InverseCorrelations): SamplingAdequacy | null {
  const perItem = new Float64Array(k);
  let [allR, allQ] = [0, 0];
  for (let i = 0; i < k; i++) {
    let [sumR, sumQ] = [0, 0];
    for (let j = 0; j < k; j++) {
      if (i === j) continue;
      sumR += r[i * k + j]! ** 2;
      sumQ += inverse[i * k + j]! ** 2 / (inverse[i * k + i]! * inverse[j * k + j]!);
    }
    if (sumR + sumQ === 0) return null;
    perItem[i] = sumR / (sumR + sumQ);
    allR += sumR;
    allQ += sumQ;
  }
  return { overall: allR / (allR + allQ), perItem };
}

import type { Correlations } from "./lasso-path";

/** Many small steps, each towards the column that goes most with what is left. */
export interface Stagewise {
  epsilon: number;
  /** Of each step, the place of the column, and whether its coefficient rose. */
  columns: Int32Array;
  signs: Int8Array;
  steps: number;
  stopped: "no-improvement" | "steps";
  /** Largest |z′e|/(n − 1) after the last step. */
  left: number;
}

/**
 * Forward stagewise from β = 0: ε·sign(cⱼ) to the coefficient with the largest |cⱼ|, until the error would not fall.
 * @param most steps at most
 */
export function stagewise({ G, r }: Correlations, epsilon = 0.01, most = 10_000): Stagewise {
  const q = r.length;
  const c = r.slice();
  const columns: number[] = [];
  const signs: number[] = [];
  const largest = () => {
    let at = 0;
    for (let j = 1; j < q; j++) if (Math.abs(c[j]!) > Math.abs(c[at]!)) at = j;
    return at;
  };
  let stopped: Stagewise["stopped"] = "steps";
  while (columns.length < most) {
    const at = largest();
    if (q === 0 || Math.abs(c[at]!) <= epsilon / 2) {
      stopped = "no-improvement";
      break;
    }
    const sign = Math.sign(c[at]!);
    for (let j = 0; j < q; j++) c[j] = c[j]! - epsilon * sign * G[j * q + at]!;
    columns.push(at);
    signs.push(sign);
  }
  return {
    epsilon,
    columns: Int32Array.from(columns),
    signs: Int8Array.from(signs),
    steps: columns.length,
    stopped,
    left: q === 0 ? 0 : Math.abs(c[largest()]!),
  };
}

/** Steps up minus steps down of each column after so many steps. */
export function netSteps({ columns, signs }: Stagewise, q: number, after: number): Int32Array {
  const net = new Int32Array(q);
  for (let k = 0; k < after; k++) net[columns[k]!]! += signs[k]!;
  return net;
}

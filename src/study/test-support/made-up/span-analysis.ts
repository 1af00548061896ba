import type { Analysis } from "../../kinds/kind";

export interface SpanResult {
  low: number;
  high: number;
}

export const analysis: Analysis<{ of: string }, { of: string }, SpanResult> = {
  run({ of }, { columns, progress }) {
    const { values, missing } = columns.numbers(of);
    const present = Array.from(values).filter((_, row) => missing[row] === 0);
    progress(1, 1);
    return { low: Math.min(...present), high: Math.max(...present) };
  },
  results(of, desk) {
    return this.run(of, desk);
  },
};

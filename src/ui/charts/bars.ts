import type { Shape } from "@/study/analyse/analyse-look";

/** A bar of a distribution: its values from `from` to below `to`, of the last one all from `from`. */
export interface Bar {
  from: number;
  to: number;
  last: boolean;
  count: number;
  name: (format: (v: number) => string) => string;
}

/** Distinct values as bars about them, others as bins. */
export function barsOf(shape: Shape): Bar[] {
  if (shape.kind === "bins") {
    const { edges, counts } = shape.histogram;
    return counts.map((count, i) => ({ from: edges[i]!, to: edges[i + 1]!, last: i === counts.length - 1, count, name: (format) => `${format(edges[i]!)} to ${format(edges[i + 1]!)}` })); // prettier-ignore
  }
  const { values } = shape;
  const step = values.slice(1).reduce((least, v, i) => Math.min(least, v.value - values[i]!.value), Infinity);
  const half = (Number.isFinite(step) ? step : 1) / 2;
  return values.map(({ value, count }, i) => ({ from: value - half, to: value + half, last: i === values.length - 1, count, name: (format) => format(value) })); // prettier-ignore
}

export const isIn = ({ from, to, last }: Bar, v: number): boolean => v >= from && (last || v < to);

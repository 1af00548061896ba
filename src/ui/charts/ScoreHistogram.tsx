import { scaleLinear } from "d3-scale";
import type { Histogram } from "@/core/describe/histogram";
import { ticksBelow } from "./axis-ticks";

/** The distribution of a score as bars on a labelled axis. */
export function ScoreHistogram(props: {
  histogram: Histogram;
  width: number;
  height: number;
  title: string;
  n: number;
  format: (v: number) => string;
}) {
  const { histogram, width, height } = props;
  const base = height - 18;
  const x = scaleLinear()
    .domain([histogram.edges[0]!, histogram.edges.at(-1)!])
    .range([10, width - 10]);
  const y = scaleLinear()
    .domain([0, Math.max(...histogram.counts)])
    .range([base, 4]);
  const ticks = ticksBelow(x, 5, 11, width, props.format);
  return (
    <svg
      role="img"
      aria-label={`${props.title}: distribution of ${props.n} scores from ${props.format(histogram.edges[0]!)} to ${props.format(histogram.edges.at(-1)!)}`}
      viewBox={`0 0 ${width} ${height}`}
      width="100%"
      style={{ display: "block", maxWidth: width }}
    >
      {histogram.counts.map((count, i) => (
        <rect
          key={histogram.edges[i]}
          x={x(histogram.edges[i]!) + 0.75}
          y={y(count)}
          width={x(histogram.edges[i + 1]!) - x(histogram.edges[i]!) - 1.5}
          height={base - y(count)}
          fill="var(--plum)"
        >
          <title>{`${props.format(histogram.edges[i]!)} to ${props.format(histogram.edges[i + 1]!)}: ${count}`}</title>
        </rect>
      ))}
      <line x1={x.range()[0]} x2={x.range()[1]} y1={base + 0.5} y2={base + 0.5} stroke="var(--ink)" />
      {ticks.map(({ value, middle, label }) => (
        <text key={value} x={middle} y={height - 4} textAnchor="middle" fontSize={11} fill="var(--quiet)">
          {label}
        </text>
      ))}
    </svg>
  );
}

import { scaleLinear } from "d3-scale";
import type { Histogram } from "@/core/describe/histogram";
import { ticksBelow, within } from "./axis-ticks";

const FRAME = { width: 640, height: 190, left: 12, right: 12, top: 26, bottom: 38 };

/** Replicates as bars: dark between the limits, pale beyond them, with the limits and the estimate marked. */
export function ReplicateChart(props: {
  histogram: Histogram;
  interval: { estimate: number; lower: number; upper: number };
  title: string;
  /** What the axis counts. */
  axis: string;
  format: (v: number) => string;
}) {
  const { histogram, interval, format } = props;
  const base = FRAME.height - FRAME.bottom;
  const { edges, counts } = histogram;
  const x = scaleLinear()
    .domain([Math.min(edges[0]!, interval.lower), Math.max(edges.at(-1)!, interval.upper)])
    .range([FRAME.left, FRAME.width - FRAME.right]);
  const y = scaleLinear()
    .domain([0, Math.max(...counts)])
    .range([base, FRAME.top]);
  const marks = [
    { at: interval.lower, dash: "4 3", anchor: "end", dx: -4 },
    { at: interval.upper, dash: "4 3", anchor: "start", dx: 4 },
    { at: interval.estimate, dash: "", anchor: "middle", dx: 0 },
  ] as const;
  return (
    <svg
      role="img"
      aria-label={`${props.title}: most near ${format(interval.estimate)}, limits at ${format(interval.lower)} and ${format(interval.upper)}`}
      viewBox={`0 0 ${FRAME.width} ${FRAME.height}`}
      width="100%"
      style={{ display: "block", maxWidth: FRAME.width }}
      fontFamily="var(--sans)"
      fontSize={12}
    >
      {counts.map((count, i) => {
        const middle = (edges[i]! + edges[i + 1]!) / 2;
        const inside = middle >= interval.lower && middle <= interval.upper;
        return (
          <rect
            key={edges[i]}
            x={x(edges[i]!) + 0.5}
            y={y(count)}
            width={Math.max(0.5, x(edges[i + 1]!) - x(edges[i]!) - 1)}
            height={base - y(count)}
            fill={inside ? "var(--plum)" : "var(--plum-faint)"}
          >
            <title>{`${format(edges[i]!)} to ${format(edges[i + 1]!)}: ${count}`}</title>
          </rect>
        );
      })}
      <line x1={x.range()[0]} x2={x.range()[1]} y1={base + 0.5} y2={base + 0.5} stroke="var(--ink)" />
      {marks.map(({ at, dash, anchor, dx }) => (
        <g key={`${anchor} ${at}`}>
          <line x1={x(at)} x2={x(at)} y1={FRAME.top - 8} y2={base} stroke="var(--ink)" strokeDasharray={dash} />
          <text
            x={within(x(at) + dx, anchor, format(at), 12, FRAME.width)}
            y={anchor === "middle" ? FRAME.top - 12 : FRAME.top}
            textAnchor={anchor}
            fill="var(--ink)"
          >
            {format(at)}
          </text>
        </g>
      ))}
      {ticksBelow(x, 6, 12, FRAME.width, format).map(({ value, middle, label }) => (
        <text key={value} x={middle} y={base + 15} textAnchor="middle" fill="var(--quiet)">
          {label}
        </text>
      ))}
      <text x={FRAME.width / 2} y={FRAME.height - 4} textAnchor="middle" fill="var(--ink)">
        {props.axis}
      </text>
    </svg>
  );
}

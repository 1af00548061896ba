import { memo } from "react";
import { scaleLinear } from "d3-scale";
import { area, line } from "d3-shape";
import { ticksBelow, ticksBeside } from "./axis-ticks";
import { apart, lineStyle } from "./line-styles";

const FRAME = { width: 470, height: 300, left: 46, right: 104, top: 26, bottom: 44 };

export interface PredictedLine {
  name: string;
  points: { x: number; y: number; lower: number | null; upper: number | null }[];
}

/** Points, or how many lie in each field of a grid, row after row from the lowest. */
type Scatter =
  | { x: Float64Array; y: Float64Array }
  | { columns: number; rows: number; counts: Uint32Array; x: readonly [number, number]; y: readonly [number, number] };

/** Predicted outcomes as lines with their bands, named at their ends; pale beyond the 5th and 95th percentile, where the data are thin. */
export function PredictedLines(props: {
  lines: readonly PredictedLine[];
  /** Respondents as points; null: not shown. */
  points: Scatter | null;
  /** Between these nine tenths of the respondents lie. */
  thick: [number, number];
  title: string;
  axis: string;
  outcome: string;
  format: (v: number) => string;
}) {
  const { lines, points, thick, format } = props;
  const all = lines.flatMap((one) => one.points);
  const ys = all.flatMap((p) => [p.y, p.lower ?? p.y, p.upper ?? p.y]);
  const shown = points ? [...ys, ...points.y] : ys; // of a grid the ends
  const base = FRAME.height - FRAME.bottom;
  const x = scaleLinear()
    .domain([all[0]!.x, lines[0]!.points.at(-1)!.x])
    .range([FRAME.left, FRAME.width - FRAME.right]);
  const y = scaleLinear()
    .domain([shown.reduce((a, b) => Math.min(a, b)), shown.reduce((a, b) => Math.max(a, b))])
    .nice(5)
    .range([base, FRAME.top]);
  const beside = ticksBeside(y, 5, 12, FRAME.left - 8);
  const stroke = line<PredictedLine["points"][number]>()
    .x((p) => x(p.x))
    .y((p) => y(p.y));
  const band = area<PredictedLine["points"][number]>()
    .x((p) => x(p.x))
    .y0((p) => y(p.lower ?? p.y))
    .y1((p) => y(p.upper ?? p.y));
  const ends = apart(
    lines.map((one) => y(one.points.at(-1)!.y) + 4),
    15,
    FRAME.top + 8,
    base,
  );
  const right = FRAME.width - FRAME.right;
  return (
    <svg
      role="img"
      aria-label={`${props.title}: ${lines.map((one) => `${one.name} from ${format(one.points[0]!.y)} to ${format(one.points.at(-1)!.y)}`).join("; ")}`}
      viewBox={`0 0 ${FRAME.width} ${FRAME.height}`}
      width="100%"
      style={{ display: "block", maxWidth: FRAME.width }}
      fontFamily="var(--sans)"
      fontSize={12}
    >
      {beside.ticks.map(({ value, at, label }) => (
        <g key={value}>
          <line x1={FRAME.left} x2={right} y1={at} y2={at} stroke="var(--rule-pale)" />
          <text x={FRAME.left - 8} y={at + 4} textAnchor="end" fill="var(--quiet)">
            {label}
          </text>
        </g>
      ))}
      <text x={4} y={12} fill="var(--ink)">
        {props.outcome}
        {beside.power && ` (${beside.power})`}
      </text>
      {points && <Respondents points={points} x0={x.domain()[0]!} x1={x.domain()[1]!} y0={y.domain()[0]!} y1={y.domain()[1]!} />}
      {lines.map((one, i) => (
        <path key={one.name} d={band(one.points)!} fill={lineStyle(i).colour} fillOpacity={0.1} />
      ))}
      {lines.map((one, i) => {
        const { colour, dash } = lineStyle(i);
        return (
          <g key={one.name}>
            <path d={stroke(one.points)!} fill="none" stroke={colour} strokeWidth={2} strokeDasharray={dash} />
            <text x={right + 8} y={ends[i]} fill={colour} fontWeight={600}>
              {one.name.length > 16 ? `${one.name.slice(0, 15)}…` : one.name}
            </text>
          </g>
        );
      })}
      {[
        { from: x.range()[0]!, to: x(thick[0]) },
        { from: x(thick[1]), to: x.range()[1]! },
      ].map(({ from, to }, i) => (
        <rect
          key={i}
          x={from}
          y={FRAME.top}
          width={Math.max(0, to - from)}
          height={base - FRAME.top}
          fill="var(--paper)"
          fillOpacity={0.62}
        >
          <title>One in twenty respondents lies here: the data are thin.</title>
        </rect>
      ))}
      <line x1={FRAME.left} x2={right} y1={base + 0.5} y2={base + 0.5} stroke="var(--ink)" />
      {ticksBelow(x, 5, 12, FRAME.width).map(({ value, middle, label }) => (
        <text key={value} x={middle} y={base + 16} textAnchor="middle" fill="var(--quiet)">
          {label}
        </text>
      ))}
      <text x={(FRAME.left + right) / 2} y={FRAME.height - 8} textAnchor="middle" fill="var(--ink)">
        {props.axis}
      </text>
    </svg>
  );
}

/** Drawn again only when the axes change: lines are dragged over thousands of points. */
const Respondents = memo(function Respondents(props: { points: Scatter; x0: number; x1: number; y0: number; y1: number }) {
  const { points } = props;
  const x = scaleLinear().domain([props.x0, props.x1]).range([FRAME.left, FRAME.width - FRAME.right]); // prettier-ignore
  const y = scaleLinear().domain([props.y0, props.y1]).range([FRAME.height - FRAME.bottom, FRAME.top]); // prettier-ignore
  if ("counts" in points) return <Density of={points} x={x} y={y} />;
  return (
    <g>
      {Array.from(points.x, (value, i) => (
        <circle key={i} cx={x(value)} cy={y(points.y[i]!)} r={1.6} fill="var(--pencil)" fillOpacity={points.x.length > 800 ? 0.25 : 0.5} />
      ))}
    </g>
  );
});

/** Too many points to be told apart: the darker a field, the more lie in it. */
function Density({ of, x, y }: { of: Extract<Scatter, { counts: Uint32Array }>; x: (v: number) => number; y: (v: number) => number }) {
  const most = of.counts.reduce((a, b) => Math.max(a, b));
  const across = (x(of.x[1]) - x(of.x[0])) / of.columns;
  const up = (y(of.y[0]) - y(of.y[1])) / of.rows;
  return (
    <g aria-hidden="true">
      {Array.from(of.counts, (count, i) =>
        count === 0 ? null : (
          <rect
            key={i}
            x={x(of.x[0]) + (i % of.columns) * across}
            y={y(of.y[0]) - (Math.floor(i / of.columns) + 1) * up}
            width={across + 0.3}
            height={up + 0.3}
            fill="var(--pencil)"
            fillOpacity={0.08 + 0.62 * Math.sqrt(count / most)}
          />
        ),
      )}
    </g>
  );
}

import { memo } from "react";
import { scaleLinear } from "d3-scale";
import { area, line as path } from "d3-shape";
import { ticksBelow, ticksBeside } from "./axis-ticks";
import { apart, lineStyle } from "./line-styles";

/** Respondents as points. */
export interface ScatterPoints {
  x: Float64Array;
  y: Float64Array;
  /** Part of each, from 0; −1: in none. Null: not told apart. */
  group: Int32Array | null;
}

export interface ScatterLine {
  name: string;
  /** Place among the groups, for its colour and dash; null: everybody's. */
  group: number | null;
  points: readonly { x: number; y: number; lower: number | null; upper: number | null }[];
  look: "line" | "smooth" | "faint" | "without";
}

export interface ScatterFrame {
  width: number;
  height: number;
  x: readonly [number, number];
  y: readonly [number, number];
  /** True: room for the names of lines at their ends. */
  names: boolean;
}

const [LEFT, RIGHT, TOP, BOTTOM] = [44, 96, 34, 42];
const NARROW = 30;
const EDGE = 24;
/** More points than this are told by squares, the darker the more lie in them; of marked ones fewer are drawn one by one. */
export const MOST_POINTS = 5000;
const MOST_MARKS = 1500;
const [COLUMNS, ROWS] = [48, 36];

/** Where a place of the data stands in a picture, and back. */
export function scalesOf({ width, height, x, y, names }: ScatterFrame, bare: boolean) {
  const [left, right, top, bottom] = bare ? [4, 4, 4, 4] : [LEFT, names ? RIGHT : NARROW, TOP, BOTTOM];
  return {
    x: scaleLinear()
      .domain(wide(x))
      .range([left, width - right]),
    y: scaleLinear()
      .domain(wide(y))
      .range([height - bottom, top]),
  };
}

const wide = ([low, high]: readonly [number, number]): [number, number] => (low < high ? [low, high] : [low - 0.5, high + 0.5]);

/**
 * Two numbers against each other: points (or squares by density), lines with bands, smooths, how each lies along its edge, and the respondents that are marked.
 */
export function ScatterChart(props: {
  points: ScatterPoints;
  lines: readonly ScatterLine[];
  /** Places of the marked respondents among the points. */
  marked: ReadonlySet<number>;
  /** The one that keys have reached; null: none. */
  cursor: number | null;
  frame: ScatterFrame;
  title: string;
  axis: string;
  outcome: string;
  format: (v: number) => string;
  /** True: without axes, names and edges, for a matrix. */
  bare?: boolean;
}) {
  const { points, lines, frame, bare = false } = props;
  const { x, y } = scalesOf(frame, bare);
  const [left, right] = x.range() as [number, number];
  const [base, top] = y.range() as [number, number];
  const named = bare ? [] : lines.filter((l) => l.look !== "faint" && l.name !== "");
  const ends = apart(named.map((l) => y(l.points.at(-1)?.y ?? 0) + 4), 14, top + 8, base); // prettier-ignore
  const beside = ticksBeside(y, 5, 12, left - 8);
  const stroke = path<ScatterLine["points"][number]>().x((p) => x(p.x)).y((p) => y(p.y)); // prettier-ignore
  const band = area<ScatterLine["points"][number]>().x((p) => x(p.x)).y0((p) => y(p.lower ?? p.y)).y1((p) => y(p.upper ?? p.y)); // prettier-ignore
  const shown = [...props.marked];
  return (
    <svg
      role="img"
      aria-label={`${props.title}: ${points.x.length} respondents${lines.map((l) => (l.points.length > 0 && l.look !== "faint" ? `; ${l.name || "line"} from ${props.format(l.points[0]!.y)} to ${props.format(l.points.at(-1)!.y)}` : "")).join("")}${shown.length > 0 ? `; ${shown.length} marked` : ""}`}
      viewBox={`0 0 ${frame.width} ${frame.height}`}
      width="100%"
      style={{ display: "block", maxWidth: frame.width }}
      fontFamily="var(--sans)"
      fontSize={12}
    >
      {!bare && (
        <>
          {beside.ticks.map(({ value, at, label }) => (
            <g key={value}>
              <line x1={left} x2={right} y1={at} y2={at} stroke="var(--rule-pale)" />
              <text x={left - 8} y={at + 4} textAnchor="end" fill="var(--quiet)">
                {label}
              </text>
            </g>
          ))}
          {ticksBelow(x, 6, 12, frame.width).map(({ value, middle, label }) => (
            <text key={value} x={middle} y={base + 16} textAnchor="middle" fill="var(--quiet)">
              {label}
            </text>
          ))}
          <text x={4} y={12} fill="var(--ink)">
            {props.outcome}
            {beside.power && ` (${beside.power})`}
          </text>
          <text x={(left + right) / 2} y={frame.height - 6} textAnchor="middle" fill="var(--ink)">
            {props.axis}
          </text>
        </>
      )}
      <Cloud
        points={points}
        x0={x.domain()[0]!}
        x1={x.domain()[1]!}
        y0={y.domain()[0]!}
        y1={y.domain()[1]!}
        width={frame.width}
        height={frame.height}
        names={frame.names}
        bare={bare}
      />
      {lines.map(
        (l, i) =>
          l.look === "line" && <path key={i} d={band(l.points as ScatterLine["points"][number][])!} fill={colourOf(l)} fillOpacity={0.1} />,
      )}
      {lines.map((l, i) => (
        <path
          key={i}
          d={stroke(l.points as ScatterLine["points"][number][])!}
          fill="none"
          stroke={colourOf(l)}
          strokeWidth={l.look === "faint" ? 1.2 : 2}
          strokeOpacity={l.look === "faint" ? 0.35 : 1}
          strokeDasharray={l.look === "smooth" ? "1.5 3.5" : l.look === "without" ? "6 3" : l.group === null ? "" : lineStyle(l.group).dash}
          strokeLinecap="round"
        />
      ))}
      {named.map((l, i) => (
        <text key={i} x={right + 7} y={ends[i]} fill={colourOf(l)} fontWeight={600}>
          {l.name.length > 14 ? `${l.name.slice(0, 13)}…` : l.name}
        </text>
      ))}
      {shown.length > MOST_MARKS ? (
        <Squares points={taken(points, shown)} x={x} y={y} fill="var(--plum)" />
      ) : (
        shown.map((i) => (
          <circle
            key={i}
            cx={x(points.x[i]!)}
            cy={y(points.y[i]!)}
            r={bare ? 2.2 : 3.4}
            fill="var(--plum)"
            stroke="var(--paper)"
            strokeWidth={0.7}
          />
        ))
      )}
      {props.cursor !== null && (
        <circle cx={x(points.x[props.cursor]!)} cy={y(points.y[props.cursor]!)} r={7} fill="none" stroke="var(--plum)" strokeWidth={1.8} />
      )}
      {!bare && <line x1={left} x2={right} y1={base + 0.5} y2={base + 0.5} stroke="var(--ink)" />}
    </svg>
  );
}

const colourOf = ({ group, look }: ScatterLine) => (look === "without" ? "var(--plum)" : group === null ? "var(--ink)" : lineStyle(group).colour); // prettier-ignore

/** Drawn again only when points or axes change: marks and lines move over thousands of points. */
const Cloud = memo(function Cloud(props: {
  points: ScatterPoints;
  x0: number;
  x1: number;
  y0: number;
  y1: number;
  width: number;
  height: number;
  names: boolean;
  bare: boolean;
}) {
  const { points, bare, width, height, names } = props;
  const { x, y } = scalesOf({ width, height, names, x: [props.x0, props.x1], y: [props.y0, props.y1] }, bare);
  const n = points.x.length;
  return (
    <g aria-hidden="true">
      {n > MOST_POINTS ? (
        <Squares points={points} x={x} y={y} fill="var(--pencil)" />
      ) : (
        Array.from({ length: n }, (_, i) => (
          <circle
            key={i}
            cx={x(points.x[i]!)}
            cy={y(points.y[i]!)}
            r={bare ? 1.1 : 2}
            fill={points.group && points.group[i]! >= 0 ? lineStyle(points.group[i]!).colour : "var(--pencil)"}
            fillOpacity={n > 800 ? 0.25 : 0.5}
          />
        ))
      )}
      {!bare && <Edge values={points.x} along="x" scale={x} at={(y.range()[1] as number) - 4} />}
      {!bare && <Edge values={points.y} along="y" scale={y} at={(x.range()[1] as number) + 4} />}
    </g>
  );
});

type Scale = ReturnType<typeof scalesOf>["x"];

function taken({ x, y }: ScatterPoints, places: readonly number[]): ScatterPoints {
  return { x: Float64Array.from(places, (i) => x[i]!), y: Float64Array.from(places, (i) => y[i]!), group: null };
}

function Squares({ points, x, y, fill }: { points: ScatterPoints; x: Scale; y: Scale; fill: string }) {
  const counts = new Uint32Array(COLUMNS * ROWS);
  const [x0, x1] = x.domain() as [number, number];
  const [y0, y1] = y.domain() as [number, number];
  const field = (v: number, low: number, high: number, many: number) => Math.max(0, Math.min(many - 1, Math.floor(((v - low) / (high - low)) * many))); // prettier-ignore
  for (let i = 0; i < points.x.length; i++) counts[field(points.y[i]!, y0, y1, ROWS) * COLUMNS + field(points.x[i]!, x0, x1, COLUMNS)]!++;
  const most = counts.reduce((a, b) => Math.max(a, b), 1);
  const [across, up] = [(x(x1) - x(x0)) / COLUMNS, (y(y0) - y(y1)) / ROWS];
  return Array.from(counts, (count, i) =>
    count === 0 ? null : (
      <rect
        key={i}
        x={x(x0) + (i % COLUMNS) * across}
        y={y(y0) - (Math.floor(i / COLUMNS) + 1) * up}
        width={across + 0.3}
        height={up + 0.3}
        fill={fill}
        fillOpacity={0.08 + 0.72 * Math.sqrt(count / most)}
      />
    ),
  );
}

/** How the values lie along an edge, in small. */
function Edge({ values, along, scale, at }: { values: Float64Array; along: "x" | "y"; scale: Scale; at: number }) {
  const [low, high] = scale.domain() as [number, number];
  const counts = new Array<number>(40).fill(0);
  for (const v of values) counts[Math.max(0, Math.min(39, Math.floor(((v - low) / (high - low)) * 40)))]!++;
  const most = Math.max(...counts, 1);
  const step = (scale(high) - scale(low)) / 40;
  return counts.map((count, i) => {
    const size = (count / most) * (EDGE - 6);
    const from = scale(low) + i * step;
    return along === "x" ? (
      <rect key={i} x={from} y={at - size} width={Math.abs(step) - 0.4} height={size} fill="var(--rule)" />
    ) : (
      <rect key={i} x={at} y={from + step} width={size} height={Math.abs(step) - 0.4} fill="var(--rule)" />
    );
  });
}

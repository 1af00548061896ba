import { memo } from "react";
import { scaleLinear } from "d3-scale";
import { line } from "d3-shape";
import { ticksBelow, ticksBeside } from "./axis-ticks";
import { wrapped } from "./wrapped";

const FRAME = { width: 330, height: 260, left: 44, right: 12, top: 12, bottom: 40 };

export interface ResidualPoint {
  row: number;
  x: number;
  y: number;
}

type Curve = { points: readonly { x: number; y: number }[]; dash: string; name: string };

/** Residuals as points with curves through or about them; one respondent may be lit, and the pointer lights the nearest. */
export function ResidualChart(props: {
  title: string;
  points: readonly ResidualPoint[];
  curves: readonly Curve[];
  /** A level that means nothing is left: drawn as a line; null for none. */
  zero: number | null;
  /** Where both axes reach; as far as there is something when left out. */
  domain?: { x: [number, number]; y: [number, number] };
  /** Names along the axis in place of numbers. */
  ticks?: readonly { at: number; name: string }[] | undefined;
  axis: string;
  outcome: string;
  format: (v: number) => string;
  lit: number | null;
  onLight: (row: number | null) => void;
}) {
  const { points, curves, lit, format } = props;
  const ends = (of: (p: { x: number; y: number }) => number): [number, number] => {
    let [low, high] = [Infinity, -Infinity];
    for (const p of points) {
      low = Math.min(low, of(p));
      high = Math.max(high, of(p));
    }
    for (const curve of curves)
      for (const p of curve.points) {
        low = Math.min(low, of(p));
        high = Math.max(high, of(p));
      }
    return low < high ? [low, high] : [low - 0.5, high + 0.5];
  };
  const base = FRAME.height - FRAME.bottom;
  const x = scaleLinear()
    .domain(props.domain?.x ?? ends((p) => p.x))
    .range([FRAME.left, FRAME.width - FRAME.right]);
  const y = scaleLinear()
    .domain(props.domain?.y ?? ends((p) => p.y))
    .nice(4)
    .range([base, FRAME.top]);
  const beside = ticksBeside(y, 4, 11, FRAME.left - 5, format);
  const stroke = line<{ x: number; y: number }>()
    .x((p) => x(p.x))
    .y((p) => y(p.y));
  const shown = points.find((p) => p.row === lit);
  const nearest = (event: React.PointerEvent<SVGSVGElement>) => {
    const box = event.currentTarget.getBoundingClientRect();
    const [px, py] = [((event.clientX - box.left) / box.width) * FRAME.width, ((event.clientY - box.top) / box.height) * FRAME.height];
    let best: { row: number; d: number } | null = null;
    for (const p of points) {
      const d = (x(p.x) - px) ** 2 + (y(p.y) - py) ** 2;
      if (d < 200 && (!best || d < best.d)) best = { row: p.row, d };
    }
    props.onLight(best?.row ?? null);
  };
  return (
    <svg
      role="img"
      aria-label={`${props.title}: ${points.length} respondents, ${props.outcome} from ${format(y.domain()[0]!)} to ${format(y.domain()[1]!)}`}
      viewBox={`0 0 ${FRAME.width} ${FRAME.height}`}
      width="100%"
      style={{ display: "block", maxWidth: FRAME.width }}
      fontFamily="var(--sans)"
      fontSize={11}
      onPointerMove={nearest}
      onPointerLeave={() => props.onLight(null)}
    >
      {beside.power && (
        <text y={8} fill="var(--quiet)">
          {beside.power}
        </text>
      )}
      {beside.ticks.map(({ value, at, label }) => (
        <g key={value}>
          <line x1={FRAME.left} x2={FRAME.width - FRAME.right} y1={at} y2={at} stroke="var(--rule)" strokeWidth={0.6} />
          <text x={FRAME.left - 5} y={at + 4} textAnchor="end" fill="var(--quiet)">
            {label}
          </text>
        </g>
      ))}
      {(props.ticks?.map(({ at, name }) => ({ middle: x(at), label: name })) ?? ticksBelow(x, 5, 11, FRAME.width, format)).map(
        ({ middle, label }) => (
          <text key={middle} x={middle} y={base + 15} textAnchor="middle" fill="var(--quiet)">
            {wrapped(label, 14, 1)[0]}
          </text>
        ),
      )}
      <text x={(FRAME.left + FRAME.width) / 2} y={FRAME.height - 6} textAnchor="middle" fill="var(--ink)">
        {props.axis}
      </text>
      {props.zero !== null && (
        <line x1={FRAME.left} x2={FRAME.width - FRAME.right} y1={y(props.zero)} y2={y(props.zero)} stroke="var(--ink)" strokeWidth={0.8} />
      )}
      <Points points={points} x={x} y={y} />
      {curves.map((curve) => (
        <path
          key={curve.name}
          d={stroke([...curve.points]) ?? ""}
          fill="none"
          stroke="var(--rust)"
          strokeWidth={1.5}
          strokeDasharray={curve.dash}
        >
          <title>{curve.name}</title>
        </path>
      ))}
      {shown && (
        <g>
          <circle cx={x(shown.x)} cy={y(shown.y)} r={5} fill="var(--plum)" />
          <text x={Math.min(x(shown.x) + 8, FRAME.width - 46)} y={y(shown.y) - 7} fill="var(--ink)">
            row {shown.row}
          </text>
        </g>
      )}
    </svg>
  );
}

/** Drawn once, however often another respondent is lit. */
const Points = memo(
  function Points({ points, x, y }: { points: readonly ResidualPoint[]; x: (v: number) => number; y: (v: number) => number }) {
    const d = points.map((p) => `M${x(p.x).toFixed(1)} ${y(p.y).toFixed(1)}h0`).join("");
    return (
      <path
        d={d}
        stroke="var(--slate)"
        strokeWidth={points.length > 1500 ? 2 : 3.4}
        strokeLinecap="round"
        strokeOpacity={points.length > 1500 ? 0.3 : 0.55}
        fill="none"
      />
    );
  },
  (before, after) => before.points === after.points,
);

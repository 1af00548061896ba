import { scaleLinear } from "d3-scale";
import { symbol, symbolCircle, symbolDiamond, symbolSquare, symbolTriangle } from "d3-shape";
import { ticksBelow } from "./axis-ticks";
import { lineStyle } from "./line-styles";
import { wrapped } from "./wrapped";

const WIDTH = 720;
const LABELS = 220;
const ROW = 26;
const HEAD = 18;
const BOTTOM = 44;
const MARKS = [symbolCircle, symbolSquare, symbolTriangle, symbolDiamond] as const;

export interface MeansRow {
  name: string;
  marks: { series: string; value: number; lower: number | null; upper: number | null; told: boolean }[];
}

/** Predicted outcomes with their intervals, a row a level, so that names of any length have room; a mark is filled where it can be told from what it is held against. */
export function MeansChart(props: {
  rows: readonly MeansRow[];
  series: readonly string[];
  /** The mean of all, as a line; null: not shown. */
  line: { value: number; name: string } | null;
  title: string;
  axis: string;
  format: (v: number) => string;
  /** How the axis is told; plainly when left out. */
  tick?: (v: number) => string;
}) {
  const { rows, series, line, format } = props;
  const gap = 15;
  const TOP = line ? HEAD + 12 : HEAD;
  const heights = rows.map((row) => Math.max(ROW, wrapped(row.name).length * 15 + 8, row.marks.length * gap + 8));
  const tops = heights.map((_, i) => TOP + heights.slice(0, i).reduce((sum, h) => sum + h, 0));
  const base = TOP + heights.reduce((sum, h) => sum + h, 0);
  const all = rows.flatMap((row) => row.marks.flatMap((m) => [m.value, m.lower ?? m.value, m.upper ?? m.value]));
  const x = scaleLinear()
    .domain([Math.min(...all, line?.value ?? Infinity), Math.max(...all, line?.value ?? -Infinity)])
    .nice(6)
    .range([LABELS + 14, WIDTH - 90]);
  const height = base + BOTTOM;
  return (
    <svg
      role="img"
      aria-label={`${props.title}: ${rows.flatMap((row) => row.marks.map((m) => `${[row.name, m.series].filter(Boolean).join(", ")} ${format(m.value)}`)).join("; ")}`}
      viewBox={`0 0 ${WIDTH} ${height}`}
      width="100%"
      style={{ display: "block", maxWidth: WIDTH }}
      fontFamily="var(--sans)"
      fontSize={12.5}
    >
      {ticksBelow(x, 6, 12.5, WIDTH, props.tick).map(({ value, at, middle, label }) => (
        <g key={value}>
          <line x1={at} x2={at} y1={TOP - 6} y2={base} stroke="var(--rule-pale)" />
          <text x={middle} y={base + 16} textAnchor="middle" fill="var(--quiet)">
            {label}
          </text>
        </g>
      ))}
      {line && (
        <g>
          <line x1={x(line.value)} x2={x(line.value)} y1={TOP - 6} y2={base + 2} stroke="var(--ink)" strokeDasharray="2 3" />
          <text x={x(line.value)} y={TOP - 12} textAnchor="middle" fill="var(--quiet)">
            {`${line.name} ${format(line.value)}`}
          </text>
        </g>
      )}
      {rows.map((row, i) => {
        const middle = tops[i]! + heights[i]! / 2;
        const lines = wrapped(row.name);
        return (
          <g key={i}>
            {lines.map((words, k) => (
              <text key={k} x={LABELS} y={middle + 4 + (k - (lines.length - 1) / 2) * 15} textAnchor="end" fill="var(--ink)">
                {words}
              </text>
            ))}
            {row.marks.map((mark) => {
              const at = series.indexOf(mark.series);
              const { colour, dash } = lineStyle(at < 0 ? 6 : at);
              const y = middle + (row.marks.indexOf(mark) - (row.marks.length - 1) / 2) * gap;
              return (
                <g key={at}>
                  {mark.lower !== null && mark.upper !== null && (
                    <line
                      x1={x(mark.lower)}
                      x2={x(mark.upper)}
                      y1={y}
                      y2={y}
                      stroke={colour}
                      strokeWidth={1.6}
                      strokeDasharray={series.length > 1 ? dash : ""}
                    />
                  )}
                  <path
                    d={symbol(MARKS[Math.max(0, at) % MARKS.length], 70)()!}
                    transform={`translate(${x(mark.value)} ${y})`}
                    fill={mark.told ? colour : "var(--paper)"}
                    stroke={colour}
                    strokeWidth={1.6}
                  />
                  {i === 0 && mark.series !== "" && (
                    <text x={x(mark.upper ?? mark.value) + 8} y={y + 4} fill={colour} fontWeight={600}>
                      {mark.series.length > 14 ? `${mark.series.slice(0, 13)}…` : mark.series}
                    </text>
                  )}
                </g>
              );
            })}
          </g>
        );
      })}
      <line x1={x.range()[0]} x2={x.range()[1]} y1={base + 0.5} y2={base + 0.5} stroke="var(--ink)" />
      <text x={(x.range()[0]! + x.range()[1]!) / 2} y={base + 34} textAnchor="middle" fill="var(--ink)">
        {props.axis}
      </text>
    </svg>
  );
}

import { scaleLinear } from "d3-scale";
import { symbol, symbolCircle, symbolSquare, symbolTriangle } from "d3-shape";
import { ticksBelow } from "./axis-ticks";
import { lineStyle } from "./line-styles";
import { wrapped } from "./wrapped";

const WIDTH = 720;
const LABELS = 220;
const RIGHT = 150;
const LINE = 14;
const TOP = 14;
const BOTTOM = 44;
const SHAPES = [symbolCircle, symbolSquare, symbolTriangle] as const;
const SHORT = 20;

export interface GroupsChartRow {
  name: string;
  /** One a group; null: the group cannot tell it. */
  marks: readonly ({ value: number; lower: number | null; upper: number | null } | null)[];
  /** The two that differ most surely, and whether they can be told apart; null: there are none. */
  span: { first: number; second: number; told: boolean } | null;
}

/** A row a term, a mark a group (or a row a level of one category, a mark a level of another); between the two that differ most a span, thick where they can be told apart. Groups are named once, at the row that differs most. */
export function GroupsChart(props: {
  rows: readonly GroupsChartRow[];
  groups: readonly string[];
  /** Place of the row at which groups are named. */
  named: number;
  title: string;
  axis: string;
  /** True: the axis holds zero. */
  zero: boolean;
  format: (v: number) => string;
}) {
  const { rows, groups, format } = props;
  const high = groups.length * LINE + 12;
  const heights = rows.map((row) => Math.max(high, wrapped(row.name).length * 15 + 12));
  const tops = heights.map((_, i) => TOP + heights.slice(0, i).reduce((sum, h) => sum + h, 0));
  const base = TOP + heights.reduce((sum, h) => sum + h, 0);
  const all = rows.flatMap(({ marks }) => marks.flatMap((m) => (m ? [m.value, m.lower ?? m.value, m.upper ?? m.value] : [])));
  const zero = props.zero ? [0] : [];
  const x = scaleLinear().domain([Math.min(...zero, ...all), Math.max(...zero, ...all)]).nice(6).range([LABELS + 14, WIDTH - RIGHT]); // prettier-ignore
  const cut = groups.some((name) => name.length > SHORT);
  const legend = cut ? groups.length * 16 + 8 : 0;
  return (
    <svg
      role="img"
      aria-label={`${props.title}: ${rows.map((row) => `${row.name}, ${row.marks.map((m, g) => `${groups[g]!} ${m ? format(m.value) : "not told"}`).join(", ")}`).join("; ")}`}
      viewBox={`0 0 ${WIDTH} ${base + BOTTOM + legend}`}
      width="100%"
      style={{ display: "block", maxWidth: WIDTH }}
      fontFamily="var(--sans)"
      fontSize={12.5}
    >
      {ticksBelow(x, 6, 12.5, WIDTH, format).map(({ value, at, middle, label }) => (
        <g key={value}>
          <line x1={at} x2={at} y1={TOP - 6} y2={base} stroke={value === 0 ? "var(--quiet)" : "var(--rule-pale)"} />
          <text x={middle} y={base + 16} textAnchor="middle" fill="var(--quiet)">
            {label}
          </text>
        </g>
      ))}
      {rows.map((row, i) => {
        const middle = tops[i]! + heights[i]! / 2;
        const lines = wrapped(row.name);
        const bold = i === props.named;
        const [from, to] = [row.span && row.marks[row.span.first], row.span && row.marks[row.span.second]];
        return (
          <g key={i}>
            {i > 0 && <line x1={LABELS + 14} x2={WIDTH - RIGHT} y1={tops[i]} y2={tops[i]} stroke="var(--rule-pale)" />}
            {lines.map((words, k) => (
              <text
                key={k}
                x={LABELS}
                y={middle + 4 + (k - (lines.length - 1) / 2) * 15}
                textAnchor="end"
                fill="var(--ink)"
                fontWeight={bold ? 600 : 400}
              >
                {words}
              </text>
            ))}
            {from && to && (
              <line
                x1={x(from.value)}
                x2={x(to.value)}
                y1={middle}
                y2={middle}
                stroke="var(--ink)"
                strokeWidth={row.span!.told ? 4 : 1}
                strokeDasharray={row.span!.told ? "" : "2 3"}
                strokeOpacity={row.span!.told ? 0.55 : 1}
              />
            )}
            {row.marks.map((mark, g) => {
              if (!mark) return null;
              const y = middle + (g - (groups.length - 1) / 2) * LINE;
              const { colour } = lineStyle(g);
              const end = mark.upper ?? mark.value;
              return (
                <g key={g}>
                  {mark.lower !== null && mark.upper !== null && (
                    <line x1={x(mark.lower)} x2={x(mark.upper)} y1={y} y2={y} stroke={colour} strokeWidth={1.6} />
                  )}
                  <GroupMark at={g} x={x(mark.value)} y={y} />
                  {bold && (
                    <text x={x(end) + 8} y={y + 4} fill={colour} fontWeight={600}>
                      {short(groups[g]!)}
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
      {cut &&
        groups.map((name, g) => (
          <g key={g}>
            <GroupMark at={g} x={LABELS + 20} y={base + BOTTOM + 8 + g * 16} />
            <text x={LABELS + 34} y={base + BOTTOM + 12 + g * 16} fill={lineStyle(g).colour}>
              {name.length > 60 ? `${name.slice(0, 59)}…` : name}
            </text>
          </g>
        ))}
    </svg>
  );
}

const short = (name: string) => (name.length > SHORT ? `${name.slice(0, SHORT - 1)}…` : name);

/** Circle, square, triangle, then letters. */
function GroupMark({ at, x, y }: { at: number; x: number; y: number }) {
  const { colour } = lineStyle(at);
  const shape = SHAPES[at];
  if (shape) return <path d={symbol(shape, 62)()!} transform={`translate(${x} ${y})`} fill={colour} />;
  return (
    <g>
      <circle cx={x} cy={y} r={6.5} fill="var(--paper)" stroke={colour} strokeWidth={1.4} />
      <text x={x} y={y + 3.5} textAnchor="middle" fontSize={10} fontWeight={600} fill={colour}>
        {String.fromCharCode(65 + at)}
      </text>
    </g>
  );
}

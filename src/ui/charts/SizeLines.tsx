import { scaleLinear } from "d3-scale";
import { line } from "d3-shape";
import { apart, lineStyle } from "./line-styles";

const FRAME = { width: 620, height: 280, left: 46, right: 130, top: 14, bottom: 40 };

/** A value by size for several methods, told apart by dash and by the name at the end; the chosen size is an upright rule. */
export function SizeLines(props: {
  title: string;
  lines: readonly { name: string; points: readonly { size: number; value: number }[] }[];
  /** Size that is chosen, and by which line. */
  chosen: { size: number; value: number } | null;
  axis: string;
  format: (value: number) => string;
}) {
  const { lines, chosen, format } = props;
  const all = lines.flatMap((one) => one.points);
  const base = FRAME.height - FRAME.bottom;
  const right = FRAME.width - FRAME.right;
  const most = Math.max(1, ...all.map((p) => p.size));
  const x = scaleLinear().domain([0, most]).range([FRAME.left, right]);
  const y = scaleLinear()
    .domain([0, Math.max(...all.map((p) => p.value), 0.01)])
    .nice(4)
    .range([base, FRAME.top]);
  const stroke = line<{ size: number; value: number }>()
    .x((p) => x(p.size))
    .y((p) => y(p.value));
  const ends = apart(
    lines.map((one) => y(one.points.at(-1)!.value) + 4),
    14,
    FRAME.top + 8,
    base,
  );
  return (
    <svg
      role="img"
      aria-label={`${props.title}: ${lines.map((one) => `${one.name} up to ${format(one.points.at(-1)!.value)} with ${one.points.at(-1)!.size}`).join("; ")}`}
      viewBox={`0 0 ${FRAME.width} ${FRAME.height}`}
      width="100%"
      style={{ display: "block", maxWidth: FRAME.width }}
      fontFamily="var(--sans)"
      fontSize={12}
    >
      {y.ticks(4).map((tick) => (
        <g key={tick}>
          <line x1={FRAME.left} x2={right} y1={y(tick)} y2={y(tick)} stroke="var(--rule)" />
          <text x={FRAME.left - 6} y={y(tick) + 4} textAnchor="end" fill="var(--quiet)">
            {format(tick)}
          </text>
        </g>
      ))}
      {x
        .ticks(Math.min(most, 12))
        .filter(Number.isInteger)
        .map((tick) => (
          <text key={tick} x={x(tick)} y={base + 16} textAnchor="middle" fill="var(--quiet)">
            {tick}
          </text>
        ))}
      <text x={(FRAME.left + right) / 2} y={FRAME.height - 6} textAnchor="middle" fill="var(--ink)">
        {props.axis}
      </text>
      {chosen && (
        <g>
          <line x1={x(chosen.size)} x2={x(chosen.size)} y1={FRAME.top} y2={base} stroke="var(--plum)" strokeWidth={1.5} />
          <circle cx={x(chosen.size)} cy={y(chosen.value)} r={4.5} fill="var(--plum)" />
        </g>
      )}
      {lines.map((one, i) => (
        <g key={one.name}>
          <path
            d={stroke([...one.points]) ?? ""}
            fill="none"
            stroke={lineStyle(i).colour}
            strokeDasharray={lineStyle(i).dash}
            strokeWidth={1.6}
          />
          <text x={right + 8} y={ends[i]} fill="var(--ink)">
            {one.name}
          </text>
        </g>
      ))}
    </svg>
  );
}

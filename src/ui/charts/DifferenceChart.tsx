import { scaleLinear } from "d3-scale";
import { ticksBelow } from "./axis-ticks";

const FRAME = { width: 560, height: 190, left: 40, right: 12, top: 10, bottom: 44 };

/** How far two predictions lie apart, respondent by respondent: counts of differences, with a bracket over the middle half. */
export function DifferenceChart(props: {
  title: string;
  histogram: { edges: readonly number[]; counts: readonly number[] };
  quartiles: readonly [number, number, number];
  axis: string;
  format: (v: number) => string;
}) {
  const { histogram, quartiles, format } = props;
  const { edges, counts } = histogram;
  const base = FRAME.height - FRAME.bottom;
  const reach = Math.max(Math.abs(edges[0]!), Math.abs(edges.at(-1)!), 0.05);
  const x = scaleLinear().domain([-reach, reach]).range([FRAME.left, FRAME.width - FRAME.right]); // prettier-ignore
  const y = scaleLinear().domain([0, Math.max(...counts)]).nice(3).range([base, FRAME.top + 14]); // prettier-ignore
  const [q1, median, q3] = quartiles;
  return (
    <svg
      role="img"
      aria-label={`${props.title}: the middle half from ${format(q1)} to ${format(q3)}, median ${format(median)}`}
      viewBox={`0 0 ${FRAME.width} ${FRAME.height}`}
      width="100%"
      style={{ display: "block", maxWidth: FRAME.width }}
      fontFamily="var(--sans)"
      fontSize={12}
    >
      {y.ticks(3).map((tick) => (
        <g key={tick}>
          <line x1={FRAME.left} x2={FRAME.width - FRAME.right} y1={y(tick)} y2={y(tick)} stroke="var(--rule)" strokeWidth={0.6} />
          <text x={FRAME.left - 5} y={y(tick) + 4} textAnchor="end" fill="var(--quiet)">
            {tick}
          </text>
        </g>
      ))}
      {counts.map((count, k) => (
        <rect
          key={k}
          x={x(edges[k]!) + 0.5}
          y={y(count)}
          width={Math.max(0.5, x(edges[k + 1]!) - x(edges[k]!) - 1)}
          height={base - y(count)}
          fill="var(--slate)"
          fillOpacity={0.55}
        >
          <title>{`${format(edges[k]!)} to ${format(edges[k + 1]!)}: ${count}`}</title>
        </rect>
      ))}
      <line x1={x(0)} x2={x(0)} y1={FRAME.top} y2={base} stroke="var(--ink)" strokeWidth={0.9} />
      <path d={`M${x(q1)} ${FRAME.top + 8}v-5H${x(q3)}v5`} fill="none" stroke="var(--plum)" strokeWidth={1.4} />
      {ticksBelow(x, 7, 12, FRAME.width, format).map(({ value, middle, label }) => (
        <text key={value} x={middle} y={base + 16} textAnchor="middle" fill="var(--quiet)">
          {label}
        </text>
      ))}
      <text x={(FRAME.left + FRAME.width) / 2} y={FRAME.height - 8} textAnchor="middle" fill="var(--ink)">
        {props.axis}
      </text>
    </svg>
  );
}

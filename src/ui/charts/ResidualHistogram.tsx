import { scaleLinear } from "d3-scale";
import { line } from "d3-shape";
import { ticksBelow } from "./axis-ticks";

const FRAME = { width: 330, height: 260, left: 44, right: 12, top: 12, bottom: 40 };

/** Counts of residuals with the curve that normal ones would follow. */
export function ResidualHistogram(props: {
  title: string;
  histogram: { edges: readonly number[]; counts: readonly number[]; normal: readonly { x: number; y: number }[] };
  format: (v: number) => string;
}) {
  const { histogram, format } = props;
  const { edges, counts, normal } = histogram;
  const n = counts.reduce((sum, count) => sum + count, 0);
  const [low, high] = [edges[0]!, edges.at(-1)!];
  const base = FRAME.height - FRAME.bottom;
  const x = scaleLinear().domain([low, high]).range([FRAME.left, FRAME.width - FRAME.right]); // prettier-ignore
  const y = scaleLinear()
    .domain([0, Math.max(...counts, ...normal.map((point) => point.y))])
    .nice(4)
    .range([base, FRAME.top]);
  const curve = line<{ x: number; y: number }>().x((p) => x(p.x)).y((p) => y(p.y)); // prettier-ignore
  return (
    <svg
      role="img"
      aria-label={`${props.title}: ${n} respondents from ${format(low)} to ${format(high)}`}
      viewBox={`0 0 ${FRAME.width} ${FRAME.height}`}
      width="100%"
      style={{ display: "block", maxWidth: FRAME.width }}
      fontFamily="var(--sans)"
      fontSize={11}
    >
      {y.ticks(4).map((tick) => (
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
          x={x(edges[k]!) + 0.6}
          y={y(count)}
          width={Math.max(0.5, x(edges[k + 1]!) - x(edges[k]!) - 1.2)}
          height={base - y(count)}
          fill="var(--pencil)"
        >
          <title>{`${format(edges[k]!)} to ${format(edges[k + 1]!)}: ${count}`}</title>
        </rect>
      ))}
      <path d={curve([...normal]) ?? ""} fill="none" stroke="var(--rust)" strokeWidth={1.5}>
        <title>normal curve</title>
      </path>
      {ticksBelow(x, 5, 11, FRAME.width, format).map(({ value, middle, label }) => (
        <text key={value} x={middle} y={base + 15} textAnchor="middle" fill="var(--quiet)">
          {label}
        </text>
      ))}
      <text x={(FRAME.left + FRAME.width) / 2} y={FRAME.height - 6} textAnchor="middle" fill="var(--ink)">
        residual
      </text>
    </svg>
  );
}

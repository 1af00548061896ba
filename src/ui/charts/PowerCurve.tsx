import { scaleLinear } from "d3-scale";
import { line } from "d3-shape";

const FRAME = { width: 640, height: 220, left: 48, right: 96, top: 14, bottom: 40 };

/** Power over the number of respondents: where the sample stands, and where the power that is wanted is reached. */
export function PowerCurve(props: {
  title: string;
  curve: readonly { n: number; power: number }[];
  /** Respondents there are, with their power; null: there is none. */
  n: number;
  power: number | null;
  wanted: number;
  needed: number | null;
  /** What a product's unreliability leaves: power at n, and respondents needed. */
  shrunk: { power: number | null; needed: number | null } | null;
  format: (power: number | null) => string;
  count: (n: number) => string;
}) {
  const { curve, n, power, wanted, needed, format, count } = props;
  const shrunk = props.shrunk?.power ?? null;
  const known = curve.filter((point) => !Number.isNaN(point.power));
  const x = scaleLinear([known[0]?.n ?? 0, known.at(-1)?.n ?? 1], [FRAME.left, FRAME.width - FRAME.right]);
  const y = scaleLinear([0, 1], [FRAME.height - FRAME.bottom, FRAME.top]);
  const path = line<{ n: number; power: number }>((point) => x(point.n), (point) => y(point.power))(known); // prettier-ignore
  const shown = (at: number | null) => at !== null && at <= (known.at(-1)?.n ?? 0);
  const base = y(0);
  return (
    <svg
      role="img"
      aria-label={`${props.title}: ${format(power)} with ${count(n)} respondents${needed === null ? "" : `; ${format(wanted)} with ${count(needed)}`}`}
      viewBox={`0 0 ${FRAME.width} ${FRAME.height}`}
      width="100%"
      style={{ display: "block", maxWidth: FRAME.width }}
      fontFamily="var(--sans)"
      fontSize={12}
    >
      {[0, 0.25, 0.5, 0.75, 1].map((tick) => (
        <g key={tick}>
          <line x1={FRAME.left} x2={FRAME.width - FRAME.right} y1={y(tick)} y2={y(tick)} stroke="var(--rule)" />
          <text x={FRAME.left - 6} y={y(tick) + 4} textAnchor="end" fill="var(--quiet)">
            {tick === 0 || tick === 1 ? tick : tick.toFixed(2).slice(1)}
          </text>
        </g>
      ))}
      {x.ticks(6).map((tick) => (
        <text key={tick} x={x(tick)} y={base + 15} textAnchor="middle" fill="var(--quiet)">
          {count(tick)}
        </text>
      ))}
      <text x={(FRAME.left + FRAME.width - FRAME.right) / 2} y={FRAME.height - 6} textAnchor="middle" fill="var(--ink)">
        Respondents
      </text>
      <text transform={`translate(12 ${(FRAME.top + base) / 2}) rotate(-90)`} textAnchor="middle" fill="var(--ink)">
        Power
      </text>
      <line x1={FRAME.left} x2={FRAME.width - FRAME.right} y1={y(wanted)} y2={y(wanted)} stroke="var(--rust)" strokeDasharray="4 3" />
      <text x={FRAME.width - FRAME.right + 5} y={y(wanted) + 4} fill="var(--rust)">
        wanted {format(wanted)}
      </text>
      {path && <path d={path} fill="none" stroke="var(--plum)" strokeWidth={2} />}
      {shown(needed) && (
        <g>
          <line x1={x(needed!)} x2={x(needed!)} y1={y(wanted)} y2={base} stroke="var(--rust)" strokeDasharray="4 3" />
          <text x={x(needed!) + 5} y={base - 6} fill="var(--rust)">
            {count(needed!)}
          </text>
        </g>
      )}
      {shown(n) && power !== null && (
        <g>
          <circle cx={x(n)} cy={y(power)} r={5} fill="var(--plum)" />
          <text x={x(n) + 8} y={y(power) + (y(power) < y(0.9) ? 17 : -7)} fill="var(--ink)">
            {count(n)}: {format(power)}
          </text>
        </g>
      )}
      {shrunk !== null && shown(n) && (
        <g>
          <circle cx={x(n)} cy={y(shrunk)} r={5} fill="var(--sheet)" stroke="var(--plum)" strokeWidth={1.6} />
          <text x={x(n) + 8} y={y(shrunk) + 16} fill="var(--quiet)">
            as measured: {format(shrunk)}
          </text>
        </g>
      )}
    </svg>
  );
}

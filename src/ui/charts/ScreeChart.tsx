import { layoutScree } from "./layout-scree";

const FRAME = { width: 640, height: 216, left: 44, right: 92, top: 10, bottom: 36 };

/** Eigenvalues beside those of random data: filled where larger, hollow where not. */
export function ScreeChart(props: {
  eigenvalues: readonly number[];
  random: readonly number[];
  retained: number;
  title: string;
  format: (v: number) => string;
}) {
  const { eigenvalues, random, retained, format } = props;
  const { x, y, places, ticks, own, random: line, labels } = layoutScree(eigenvalues, random, FRAME);
  const [left, right, base] = [FRAME.left - 8, FRAME.width - FRAME.right + 8, FRAME.height - FRAME.bottom + 6];
  return (
    <svg
      role="img"
      aria-label={`${props.title}. The first ${retained} of ${eigenvalues.length} lie above those of random data.`}
      viewBox={`0 0 ${FRAME.width} ${FRAME.height}`}
      width="100%"
      style={{ display: "block", maxWidth: FRAME.width }}
      fontFamily="var(--sans)"
      fontSize={12}
    >
      {ticks.map((tick) => (
        <g key={tick}>
          <line x1={left} x2={right} y1={y(tick)} y2={y(tick)} stroke="var(--rule)" />
          <text x={left - 5} y={y(tick) + 4} textAnchor="end" fill="var(--quiet)">
            {format(tick)}
          </text>
        </g>
      ))}
      <line x1={left} x2={right} y1={base} y2={base} stroke="var(--ink)" />
      {places.map((place) => (
        <text key={place} x={x(place)} y={base + 14} textAnchor="middle" fill="var(--quiet)">
          {place}
        </text>
      ))}
      <text x={(left + right) / 2} y={FRAME.height - 3} textAnchor="middle" fill="var(--ink)">
        Factor, by size of its eigenvalue
      </text>
      <text transform={`translate(11 ${(FRAME.top + base) / 2}) rotate(-90)`} textAnchor="middle" fill="var(--ink)">
        Eigenvalue
      </text>
      <path d={line} fill="none" stroke="var(--slate)" strokeWidth={1.5} strokeDasharray="5 3" />
      <path d={own} fill="none" stroke="var(--plum)" strokeWidth={1.5} />
      {eigenvalues.map((value, i) => (
        <circle
          key={i}
          cx={x(i + 1)}
          cy={y(value)}
          r={3.6}
          fill={i < retained ? "var(--plum)" : "var(--paper)"}
          stroke="var(--plum)"
          strokeWidth={1.4}
        >
          <title>{`${i + 1}: ${format(value)}, random data ${format(random[i]!)}`}</title>
        </circle>
      ))}
      <text x={right + 4} y={labels.own + 4} fill="var(--plum)">
        these items
      </text>
      <text x={right + 4} y={labels.random + 4} fill="var(--slate)">
        random data
      </text>
    </svg>
  );
}

import { lineStyle } from "./line-styles";
import { wrapped } from "./wrapped";

const [WIDTH, LABELS, BAR] = [300, 118, 9];

/** Shares as bars, a row a level; several groups stand below each other in a row. */
export function ShareBars({
  rows,
  name,
}: {
  rows: readonly { name: string; marks: readonly { series: string; share: number; count: number }[] }[];
  name: string;
}) {
  const heights = rows.map((row) => Math.max(20, row.marks.length * (BAR + 2) + 8, Math.min(2, wrapped(row.name).length) * 13 + 6));
  const tops = heights.map((_, i) => heights.slice(0, i).reduce((sum, h) => sum + h, 4));
  const most = Math.max(...rows.flatMap((row) => row.marks.map((m) => m.share)), 0.01);
  return (
    <svg
      role="img"
      aria-label={`${name}: ${rows.map((row) => `${row.name} ${row.marks.map((m) => m.count).join(", ")}`).join("; ")}`}
      viewBox={`0 0 ${WIDTH} ${tops.at(-1)! + heights.at(-1)! + 4}`}
      width="100%"
      style={{ display: "block", maxWidth: WIDTH }}
      fontFamily="var(--sans)"
      fontSize={11}
    >
      {rows.map((row, i) => {
        const lines = wrapped(row.name).slice(0, 2);
        const middle = tops[i]! + heights[i]! / 2;
        return (
          <g key={i}>
            {lines.map((text, k) => (
              <text key={k} x={LABELS - 6} y={middle + 4 + (k - (lines.length - 1) / 2) * 13} textAnchor="end" fill="var(--ink)">
                {text.length > 20 ? `${text.slice(0, 19)}…` : text}
              </text>
            ))}
            {row.marks.map((m, g) => {
              const y = middle + (g - (row.marks.length - 1) / 2) * (BAR + 2) - BAR / 2;
              const width = (m.share / most) * (WIDTH - LABELS - 40);
              return (
                <g key={g}>
                  <rect
                    x={LABELS}
                    y={y}
                    width={Math.max(0.5, width)}
                    height={BAR}
                    fill={row.marks.length === 1 ? "var(--rule)" : lineStyle(g).colour}
                    fillOpacity={row.marks.length === 1 ? 1 : 0.6}
                  />
                  <text x={LABELS + width + 4} y={y + BAR - 0.5} fill="var(--quiet)" fontSize={10}>
                    {m.count}
                  </text>
                </g>
              );
            })}
          </g>
        );
      })}
    </svg>
  );
}

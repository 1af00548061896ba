import { scaleBand, scaleLinear } from "d3-scale";
import type { MissingPattern } from "@/study/analyse/responses/missing-pattern";

const ROW = 17;
const TOP = 74;
const LEFT = 60;
const WIDTH = 700;
const BARS = 110;

/** A row a pattern of open answers, a column a variable: filled where it is open; at the right how many respondents have the pattern. */
export function MissingPatternChart({ pattern, title }: { pattern: MissingPattern; title: (name: string) => string }) {
  const { across, patterns, respondents } = pattern;
  const height = TOP + patterns.length * ROW + 26;
  const x = scaleBand<number>()
    .domain(across.map((_, i) => i))
    .range([LEFT, Math.min(WIDTH - BARS, LEFT + across.length * 26)])
    .paddingInner(0.14);
  const right = x.range()[1]! + 12;
  const most = Math.max(1, ...patterns.map((p) => p.respondents));
  const bar = scaleLinear()
    .domain([0, most])
    .range([0, WIDTH - right - 50]);
  const words = patterns
    .slice(0, 5)
    .map((p) => {
      const open = across.filter((_, i) => p.open[i]);
      return `${p.respondents} with ${open.length === 0 ? "nothing" : open.join(", ")} open`;
    })
    .join("; ");
  return (
    <svg
      role="img"
      aria-label={`Patterns of missing answers among ${respondents} respondents: ${words}.`}
      viewBox={`0 0 ${WIDTH} ${height}`}
      width="100%"
      style={{ maxWidth: WIDTH, display: "block" }}
    >
      {across.map((name, i) => {
        const words = title(name);
        return (
          <text key={name} transform={`translate(${x(i)! + x.bandwidth() / 2 + 4} ${TOP - 6}) rotate(-48)`} fontSize={11} fill="var(--ink)">
            <title>{words}</title>
            {words.length > 14 ? `${words.slice(0, 13)}…` : words}
          </text>
        );
      })}
      {patterns.map((p, row) => {
        const gaps = p.open.filter(Boolean).length;
        return (
          <g key={row} transform={`translate(0 ${TOP + row * ROW})`}>
            <text x={LEFT - 8} y={12} fontSize={11} textAnchor="end" fill="var(--quiet)">
              {gaps === 0 ? "complete" : `${gaps} open`}
            </text>
            {across.map((name, i) => (
              <rect
                key={name}
                x={x(i)}
                y={2}
                width={x.bandwidth()}
                height={ROW - 4}
                fill={p.open[i] ? "var(--plum)" : "var(--shade)"}
                stroke={p.open[i] ? "none" : "var(--rule)"}
                strokeWidth={0.5}
              />
            ))}
            <rect x={right} y={3} width={Math.max(1, bar(p.respondents))} height={ROW - 6} fill="var(--slate)" />
            <text x={right + bar(p.respondents) + 5} y={12} fontSize={11} fill="var(--ink)">
              {p.respondents}
            </text>
          </g>
        );
      })}
      <text x={LEFT} y={height - 6} fontSize={11} fill="var(--quiet)">
        Filled: no answer. Bars: respondents with the pattern, n = {respondents}.
      </text>
    </svg>
  );
}

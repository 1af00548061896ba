import { brackets, EDGE, heightOf, LEFT, middleOf, ROW, STROKES, type TheoryPicture, TOP, wedgePlaces, WIDTH } from "./layout-theory";
import { wrapped } from "./wrapped";

/** The theory as a loom: a thread a predictor, in the order of the steps, to the edge that is the outcome. */
export function TheoryLoom({ title, picture }: { title: string; picture: TheoryPicture }) {
  const { threads, wedges, outcome } = picture;
  const height = heightOf(picture);
  const places = wedgePlaces(wedges.length);
  const at = (key: string) => threads.findIndex((thread) => thread.key === key);
  const told = [
    ...threads.flatMap(({ name, claims }) => claims.map(({ code, sign, verdict }) => `${code} ${name} ${sign}, ${verdict}`)),
    ...wedges.map(({ from, on, opens, claim }) => `${claim.code} ${name(from)} ${acts(opens)} ${name(on)}, ${claim.verdict}`),
    ...picture.steps.flatMap(({ name: step, claim }) => (claim ? [`${claim.code} ${step} adds, ${claim.verdict}`] : [])),
  ];
  function name(key: string) {
    return threads.find((thread) => thread.key === key)?.name ?? key;
  }
  return (
    <svg
      role="img"
      aria-label={`${title}: ${told.join("; ")}`}
      viewBox={`0 0 ${WIDTH} ${height}`}
      width="100%"
      style={{ display: "block", maxWidth: WIDTH }}
      fontFamily="var(--sans)"
      fontSize={12}
    >
      <text x={EDGE} y={20} textAnchor="middle" fontFamily="var(--serif)" fontSize={15} fontWeight={600} fill="var(--ink)">
        {outcome}
      </text>
      <line x1={EDGE} x2={EDGE} y1={TOP - 8} y2={TOP + threads.length * ROW + 4} stroke="var(--plum)" strokeWidth={5} />
      {brackets(picture).map(({ step, from, to }) => {
        const { name: words, claim } = picture.steps[step]!;
        const [top, foot] = [middleOf(from) - ROW / 2 + 4, middleOf(to) + ROW / 2 - 4];
        return (
          <g key={step}>
            <path
              d={`M16 ${top}h-8V${foot}h8`}
              fill="none"
              stroke={claim ? "var(--rust)" : "var(--pencil)"}
              strokeWidth={claim ? 1.8 : 1.2}
            />
            <text x={22} y={top + 12} fill="var(--quiet)">
              {words}
            </text>
            {claim && (
              <text x={22} y={top + 27} fill="var(--rust)">
                <tspan fontWeight={600}>{claim.code} adds</tspan> {claim.verdict}
              </text>
            )}
          </g>
        );
      })}
      {threads.map((thread, k) => {
        const y = middleOf(k);
        const [first, ...more] = thread.claims;
        const stroke = first ? STROKES[first.verdict]! : null;
        const lines = wrapped(thread.name, 24, 2);
        return (
          <g key={thread.key}>
            {lines.map((text, row) => (
              <text
                key={row}
                x={LEFT - 12}
                y={y + 5 + (row - (lines.length - 1) / 2) * 16}
                textAnchor="end"
                fontFamily="var(--serif)"
                fontSize={15}
                fontWeight={first?.verdict === "supported" ? 600 : 400}
                fill="var(--ink)"
              >
                {text}
              </text>
            ))}
            <line
              x1={LEFT}
              x2={EDGE - 8}
              y1={y}
              y2={y}
              stroke={first ? "var(--ink)" : "var(--rule)"}
              strokeWidth={stroke?.width ?? 1.4}
              strokeDasharray={stroke?.dash}
              strokeOpacity={first?.verdict === "not testable yet" ? 0.45 : 1}
            />
            {[first, ...more].flatMap((claim, row) =>
              claim ? (
                <text key={claim.code} x={EDGE + 14} y={y + 4 + row * 14} fill="var(--ink)">
                  <tspan fontWeight={600}>{claim.code}</tspan> <tspan fontSize={15}>{claim.sign}</tspan> {claim.verdict}
                </text>
              ) : (
                []
              ),
            )}
          </g>
        );
      })}
      {wedges.map((wedge, k) => {
        const [from, on] = [at(wedge.from), at(wedge.on)];
        if (from < 0 || on < 0) return null;
        const [x, y, start] = [places[k]!, middleOf(on), middleOf(from)];
        const up = start > y ? 1 : -1;
        const stroke = STROKES[wedge.claim.verdict]!;
        return (
          <g key={wedge.claim.code}>
            <line
              x1={x}
              x2={x}
              y1={start}
              y2={y + up * 9}
              stroke="var(--pine)"
              strokeWidth={Math.max(1.2, stroke.width - 0.6)}
              strokeDasharray={stroke.dash}
            />
            <circle cx={x} cy={start} r={4} fill="var(--pine)" />
            <path
              d={wedgePath(x, y, wedge.opens)}
              fill={wedge.claim.verdict === "supported" ? "var(--pine)" : "var(--sheet)"}
              stroke="var(--pine)"
            />
            <text x={x + 12} y={(start + y) / 2 + 4} fill="var(--pine)">
              <tspan fontWeight={600}>{wedge.claim.code}</tspan> {acts(wedge.opens)}, {wedge.claim.verdict}
            </text>
          </g>
        );
      })}
      <text x={8} y={height - 8} fill="var(--quiet)" fontSize={11}>
        Full: supported. Dashes: too uncertain. Dots: practically nothing. Dash and dot: not supported. Pale: no hypothesis.
      </text>
    </svg>
  );
}

const acts = (opens: boolean | null) => (opens === null ? "changes" : opens ? "strengthens" : "weakens");

/** Opens towards the outcome, closes towards it, or is as wide on both sides. */
function wedgePath(x: number, y: number, opens: boolean | null): string {
  if (opens === null) return `M${x - 16} ${y - 6}h32v12h-32z`;
  return opens ? `M${x - 16} ${y}L${x + 16} ${y - 9}V${y + 9}Z` : `M${x + 16} ${y}L${x - 16} ${y - 9}V${y + 9}Z`;
}

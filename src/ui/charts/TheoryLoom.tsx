import type { KeyboardEvent, ReactNode } from "react";
import type { Claimed, TheoryPicture } from "@/study/report/theory/theory-picture";
import { brackets, EDGE, heightOf, LEFT, LINE, linesOf, NAME_LINE, nameLines, rowsOf, stepLines, STROKES, TOP, WEDGE_WORDS, wedgePlaces, WIDTH } from "./layout-theory"; // prettier-ignore
import { wrapped } from "./wrapped";

/** What of the picture can be chosen to begin a hypothesis with. */
export type Begun = { thread: string } | { step: number };

/**
 * The theory as a loom: a thread a predictor, in the order of the steps, to the edge that is the outcome.
 * @param begin told when a thread or a bracket is chosen; without it nothing can be
 */
export function TheoryLoom({ title, picture, begin }: { title: string; picture: TheoryPicture; begin?: (what: Begun) => void }) {
  const { threads, wedges, ties, outcome } = picture;
  const rows = rowsOf(picture);
  const height = heightOf(picture);
  const places = wedgePlaces(wedges.length + ties.length);
  const at = (key: string) => threads.findIndex((thread) => thread.key === key);
  const called = (key: string) => threads[at(key)]?.name ?? key;
  const told = [
    ...threads.flatMap(({ name: own, claims }) => claims.map((claim) => `${claim.code} ${own} ${claimWords(claim)}`)),
    ...wedges.map(({ from, on, opens, claim }) => `${claim.code} ${called(from)} ${acts(opens)} ${called(on)}, ${claim.verdict}`),
    ...picture.steps.flatMap(({ name: step, claim }) => (claim ? [`${claim.code} ${step} adds, ${claim.verdict}`] : [])),
  ];
  return (
    <svg
      role={begin ? "group" : "img"}
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
      <line x1={EDGE} x2={EDGE} y1={TOP - 8} y2={height - 30} stroke="var(--plum)" strokeWidth={5} />
      {brackets(picture).map(({ step, from, to }) => {
        const { name: words, claim } = picture.steps[step]!;
        const { name, adds, verdict, apart } = stepLines(picture.steps[step]!);
        const [top, foot] = [rows[from]!.top + 4, rows[to]!.foot - 4];
        return (
          <Chosen key={step} label={`Begin with ${words}`} begin={begin && (() => begin({ step }))}>
            <path
              d={`M16 ${top}h-8V${foot}h8`}
              fill="none"
              stroke={claim ? "var(--rust)" : "var(--pencil)"}
              strokeWidth={claim ? 1.8 : 1.2}
            />
            {name.map((line, row) => (
              <text key={row} x={22} y={top + 12 + row * LINE} fill="var(--quiet)">
                {line}
              </text>
            ))}
            {claim && (
              <text x={22} y={top + 12 + name.length * LINE} fill="var(--rust)">
                <tspan fontWeight={600}>{adds}</tspan> <tspan {...(apart ? { x: 22, dy: LINE } : {})}>{verdict}</tspan>
              </text>
            )}
          </Chosen>
        );
      })}
      {threads.map((thread, k) => {
        const y = rows[k]!.middle;
        const [first] = thread.claims;
        const stroke = first ? STROKES[first.verdict]! : null;
        const lines = nameLines(thread.name);
        return (
          <g key={thread.key}>
            <Chosen label={`Begin with ${thread.name}`} begin={begin && (() => begin({ thread: thread.key }))}>
              {lines.map((text, row) => (
                <text
                  key={row}
                  x={LEFT - 12}
                  y={y + 5 + (row - (lines.length - 1) / 2) * NAME_LINE}
                  textAnchor="end"
                  fontFamily="var(--serif)"
                  fontSize={15}
                  fontWeight={first?.verdict === "supported" ? 600 : 400}
                  fill="var(--ink)"
                >
                  {text}
                </text>
              ))}
            </Chosen>
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
            <Claims claims={thread.claims} middle={y} />
          </g>
        );
      })}
      {wedges.map((wedge, k) => {
        const [from, on] = [rows[at(wedge.from)], rows[at(wedge.on)]];
        if (!from || !on) return null;
        const [x, y, start] = [places[k]!, on.middle, from.middle];
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
            <WedgeWords wedge={wedge} x={x} middle={(start + y) / 2} />
          </g>
        );
      })}
      {ties.map((tie, k) => {
        const [first, second] = [rows[at(tie.first)], rows[at(tie.second)]];
        if (!first || !second) return null;
        const x = places[wedges.length + k]!;
        const stroke = STROKES[tie.claim.verdict]!;
        return (
          <g key={tie.claim.code} stroke="var(--ink)">
            <line
              x1={x}
              x2={x}
              y1={first.middle}
              y2={second.middle}
              strokeWidth={Math.max(1.2, stroke.width - 0.6)}
              strokeDasharray={stroke.dash}
            />
            {[first, second].map(({ middle }) => (
              <path key={middle} d={`M${x - 6} ${middle - 5}L${x + 6} ${middle + 5}`} strokeWidth={1.6} />
            ))}
          </g>
        );
      })}
      <text x={8} y={height - 8} fill="var(--quiet)" fontSize={11}>
        Full: supported. Dashes: too uncertain. Thin dots: practically nothing. Thick dots: opposite direction. Dash and dot: not supported.
        Pale: no hypothesis.
      </text>
    </svg>
  );
}

/** Beside its line, on the side where there is room before the edge. */
function WedgeWords({ wedge: { opens, claim }, x, middle }: { wedge: TheoryPicture["wedges"][number]; x: number; middle: number }) {
  const left = x + WEDGE_WORDS > EDGE - 8;
  const at = { x: left ? x - 12 : x + 12, textAnchor: left ? ("end" as const) : ("start" as const), fill: "var(--pine)" };
  return (
    <>
      <text {...at} y={middle - 2}>
        <tspan fontWeight={600}>{claim.code}</tspan> {acts(opens)}
      </text>
      <text {...at} y={middle + 12}>
        {claim.verdict}
      </text>
    </>
  );
}

/** What is claimed of a thread, at its end. */
function Claims({ claims, middle }: { claims: readonly Claimed[]; middle: number }) {
  let y = middle + 4 - ((linesOf(claims) - 1) * LINE) / 2;
  return claims.map((claim) => {
    const own = y;
    y += claim.where === "" ? LINE : 2 * LINE;
    return (
      <g key={claim.code} fill="var(--ink)">
        <text x={EDGE + 14} y={own}>
          <tspan fontWeight={600}>{claim.code}</tspan> <tspan fontSize={15}>{claim.sign}</tspan> {claim.verdict}
        </text>
        {claim.where !== "" && (
          <text x={EDGE + 14} y={own + LINE - 2} fontSize={11} fill="var(--quiet)">
            {wrapped(claim.where, 34, 1)[0]}
          </text>
        )}
      </g>
    );
  });
}

const claimWords = ({ sign, verdict, where }: Claimed) => `${sign}${where === "" ? "" : ` (${where})`}, ${verdict}`;

/** A part of the picture that can be chosen, where something begins with it. */
function Chosen({ label, begin, children }: { label: string; begin: (() => void) | undefined; children: ReactNode }) {
  if (!begin) return <g>{children}</g>;
  const key = (event: KeyboardEvent) => {
    if (event.key !== "Enter" && event.key !== " ") return;
    event.preventDefault();
    begin();
  };
  return (
    <g role="button" tabIndex={0} aria-label={label} style={{ cursor: "pointer" }} onClick={begin} onKeyDown={key}>
      {children}
    </g>
  );
}

const acts = (opens: boolean | null) => (opens === null ? "changes" : opens ? "strengthens" : "weakens");

/** Opens towards the outcome, closes towards it, or is as wide on both sides. */
function wedgePath(x: number, y: number, opens: boolean | null): string {
  if (opens === null) return `M${x - 16} ${y - 6}h32v12h-32z`;
  return opens ? `M${x - 16} ${y}L${x + 16} ${y - 9}V${y + 9}Z` : `M${x + 16} ${y}L${x - 16} ${y - 9}V${y + 9}Z`;
}

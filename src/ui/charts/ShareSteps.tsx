import { scaleLinear } from "d3-scale";
import { wrapped } from "./wrapped";

const [WIDTH, LABELS, ROW, NUMBERS] = [580, 214, 30, 56];

/** Shares of a whole as a stair that goes down: each tread begins where the one before has ended, so that the last ends at the sum. */
export function ShareSteps(props: {
  title: string;
  /** With the ends of an interval, where there is one. */
  parts: readonly { name: string; share: number; quiet: boolean; lower?: number; upper?: number }[];
  format: (share: number) => string;
}) {
  const { parts, format } = props;
  const ends = parts.map((_, i) => parts.slice(0, i + 1).reduce((sum, part) => sum + part.share, 0));
  const x = scaleLinear()
    .domain([0, Math.max(...ends, ...parts.map((part, i) => ends[i]! - part.share + (part.upper ?? 0)), 1e-9)])
    .range([LABELS, WIDTH - NUMBERS]);
  return (
    <svg
      role="img"
      aria-label={`${props.title}: ${parts.map((part) => `${part.name} ${format(part.share)}`).join("; ")}`}
      viewBox={`0 0 ${WIDTH} ${parts.length * ROW + 8}`}
      width="100%"
      style={{ display: "block", maxWidth: WIDTH }}
      fontFamily="var(--sans)"
      fontSize={12}
    >
      {parts.map((part, i) => {
        const [from, to] = [x(ends[i]! - part.share), x(ends[i]!)];
        const top = 4 + i * ROW;
        const lines = wrapped(part.name).slice(0, 2);
        return (
          <g key={i}>
            {lines.map((text, k) => (
              <text key={k} x={LABELS - 8} y={top + ROW / 2 + 4 + (k - (lines.length - 1) / 2) * 13} textAnchor="end" fill="var(--ink)">
                {text.length > 32 ? `${text.slice(0, 31)}…` : text}
              </text>
            ))}
            {i > 0 && <line x1={from} x2={from} y1={top - ROW / 2 + 7} y2={top + ROW / 2} stroke="var(--rule)" />}
            <rect
              x={from}
              y={top + ROW / 2 - 6}
              width={Math.max(1.5, to - from)}
              height={12}
              fill={part.quiet ? "var(--rule)" : "var(--plum)"}
            />
            {part.lower !== undefined && part.upper !== undefined && (
              <path
                d={`M${x(ends[i]! - part.share + part.lower)} ${top + ROW / 2 + 10}h${x(part.upper) - x(part.lower)}m0 -3v6M${x(ends[i]! - part.share + part.lower)} ${top + ROW / 2 + 7}v6`}
                stroke="var(--ink)"
                strokeWidth={1}
                fill="none"
              />
            )}
            <text x={to + 6} y={top + ROW / 2 + 4} fill="var(--ink)">
              {format(part.share)}
            </text>
          </g>
        );
      })}
    </svg>
  );
}

import { scaleLinear } from "d3-scale";
import { wrapped } from "./wrapped";

const [WIDTH, LABELS, ROW, NUMBERS] = [600, 214, 30, 62];

/** A value before, what each newcomer takes from it or gives, one after the other, and the value after: every bar begins where the one above has ended. */
export function ShiftStairs(props: {
  title: string;
  before: { name: string; value: number };
  after: { name: string; value: number };
  parts: readonly { name: string; taken: number }[];
  format: (value: number) => string;
}) {
  const { before, after, parts, format } = props;
  const levels = parts.reduce((all, part) => [...all, all.at(-1)! - part.taken], [before.value]);
  const all = [0, ...levels, after.value];
  const x = scaleLinear()
    .domain([Math.min(...all), Math.max(...all)])
    .nice(5)
    .range([LABELS, WIDTH - NUMBERS]);
  const rows = parts.length + 2;
  const height = rows * ROW + 8;
  const middle = (row: number) => 4 + row * ROW + ROW / 2;
  const end = (row: number, name: string, value: number) => (
    <g>
      <Label y={middle(row)} name={name} strong />
      <line x1={x(0)} x2={x(value)} y1={middle(row)} y2={middle(row)} stroke="var(--ink)" strokeWidth={1.2} />
      <circle cx={x(value)} cy={middle(row)} r={5} fill="var(--plum)" />
      <text x={Math.max(x(value), x(0)) + 10} y={middle(row) + 4} fill="var(--ink)">
        {format(value)}
      </text>
    </g>
  );
  return (
    <svg
      role="img"
      aria-label={`${props.title}: ${before.name} ${format(before.value)}; ${parts.map((part) => `${part.name} takes ${format(part.taken)}`).join("; ")}; ${after.name} ${format(after.value)}`}
      viewBox={`0 0 ${WIDTH} ${height}`}
      width="100%"
      style={{ display: "block", maxWidth: WIDTH }}
      fontFamily="var(--sans)"
      fontSize={12}
    >
      <line x1={x(0)} x2={x(0)} y1={2} y2={height - 2} stroke="var(--ink)" strokeWidth={0.8} />
      {end(0, before.name, before.value)}
      {parts.map((part, i) => {
        const [from, to] = [x(levels[i]!), x(levels[i + 1]!)];
        return (
          <g key={i}>
            <Label y={middle(i + 1)} name={part.name} strong={false} />
            <line x1={from} x2={from} y1={middle(i)} y2={middle(i + 1)} stroke="var(--pencil)" strokeDasharray="2 3" />
            <rect
              x={Math.min(from, to)}
              y={middle(i + 1) - 6}
              width={Math.max(1.5, Math.abs(to - from))}
              height={12}
              fill={part.taken * before.value >= 0 ? "var(--slate)" : "none"}
              stroke="var(--slate)"
            />{" "}
            {/* prettier-ignore */}
            <text x={Math.max(from, to) + 8} y={middle(i + 1) + 4} fill="var(--ink)">
              {format(-part.taken)}
            </text>
          </g>
        );
      })}
      <line
        x1={x(after.value)}
        x2={x(after.value)}
        y1={middle(rows - 2)}
        y2={middle(rows - 1)}
        stroke="var(--pencil)"
        strokeDasharray="2 3"
      />
      {end(rows - 1, after.name, after.value)}
    </svg>
  );
}

function Label({ y, name, strong }: { y: number; name: string; strong: boolean }) {
  const lines = wrapped(name, 32, 2);
  return lines.map((text, k) => (
    <text
      key={k}
      x={LABELS - 12}
      y={y + 4 + (k - (lines.length - 1) / 2) * 13}
      textAnchor="end"
      fill="var(--ink)"
      fontWeight={strong ? 600 : 400}
    >
      {text}
    </text>
  ));
}

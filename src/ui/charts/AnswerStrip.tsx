import { scaleLinear } from "d3-scale";
import type { AnswerStrip as Strip } from "@/study/analyse/answer-strip";

const LOW = ["var(--plum)", "var(--plum-pale)"];
const HIGH = ["var(--pine-pale)", "var(--pine)"];

/** The colour of an answer: plum for the low end, pine for the high end, sand between. */
function colourOf(position: number): string {
  if (position <= 0.01) return LOW[0]!;
  if (position < 0.4) return LOW[1]!;
  if (position <= 0.6) return "var(--strip-middle)";
  return position < 0.99 ? HIGH[0]! : HIGH[1]!;
}

/** How the answers to an item are spread: one piece an answer, as wide as its share. */
export function AnswerStrip({ strip, width, height = 13 }: { strip: Strip; width: number; height?: number }) {
  const total = strip.answers.reduce((sum, a) => sum + a.count, 0);
  const scale = scaleLinear()
    .domain([0, Math.max(1, total)])
    .range([0, width]);
  const words = strip.answers.map((a) => `${a.value}: ${a.count}`).join(", ");
  const last = strip.answers.length - 1;
  const starts = strip.answers.map((_, i) => strip.answers.slice(0, i).reduce((sum, a) => sum + a.count, 0));
  return (
    <svg
      role="img"
      aria-label={total === 0 ? `${strip.variable}: no answers to show` : `${strip.variable}, answers and how often: ${words}`}
      width={width}
      height={height}
      viewBox={`0 0 ${width} ${height}`}
      preserveAspectRatio="none"
      style={{ display: "block", maxWidth: "100%" }}
    >
      {total === 0 && <rect width={width} height={height} fill="none" stroke="var(--rule)" />}
      {strip.answers.map((answer, i) => (
        <rect
          key={answer.value}
          x={scale(starts[i]!)}
          width={Math.max(0, scale(answer.count) - 0.8)}
          height={height}
          fill={colourOf(last === 0 ? 0.5 : i / last)}
        >
          <title>{`${answer.value}: ${answer.count}`}</title>
        </rect>
      ))}
    </svg>
  );
}

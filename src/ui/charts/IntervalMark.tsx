import type { IntervalMark as Layout } from "./layout-intervals";

/** A line with a dot: filled when the interval excludes zero, hollow when not. The numbers stand beside it as text. */
export function IntervalMark({ mark, width, colour }: { mark: Layout; width: number; colour: string }) {
  return (
    <svg aria-hidden="true" width={width} height={18} style={{ display: "block" }}>
      <line x1={mark.zero} x2={mark.zero} y1={1} y2={17} stroke="var(--rule-strong)" />
      <line x1={mark.from} x2={mark.to} y1={9} y2={9} stroke={colour} strokeWidth={1.5} />
      <circle cx={mark.dot} cy={9} r={4} fill={mark.excludesZero ? colour : "var(--paper)"} stroke={colour} strokeWidth={1.5} />
    </svg>
  );
}

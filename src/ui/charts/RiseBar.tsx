import type { RiseBar as Layout } from "./layout-rise";

/** One step of the rise: explained before in sand, added in the step's colour with the interval of what it adds, with a dotted drop to the next step. */
export function RiseBar(props: { bar: Layout; width: number; height: number; colour: string; label: string; last: boolean }) {
  const { bar, width, height, colour } = props;
  const [top, thick] = [height / 2 - 10, 20];
  return (
    <svg role="img" aria-label={props.label} width={width + 2} height={height} style={{ display: "block", overflow: "visible" }}>
      <line x1={0.5} x2={0.5} y1={-200} y2={height + 200} stroke="var(--rule)" />
      <rect x={0} y={top} width={bar.before} height={thick} fill="var(--rule)" />
      <rect x={bar.before} y={top} width={Math.max(bar.added, bar.added > 0 ? 1 : 0)} height={thick} fill={colour} />
      {bar.interval && (
        <>
          <line x1={bar.interval.from} x2={bar.interval.to} y1={height / 2} y2={height / 2} stroke="var(--paper)" strokeWidth={3.5} />
          <line x1={bar.interval.from} x2={bar.interval.to} y1={height / 2} y2={height / 2} stroke="var(--ink)" strokeWidth={1.5} />
        </>
      )}
      {!props.last && <line x1={bar.end} x2={bar.end} y1={top + thick} y2={height + 200} stroke={colour} strokeDasharray="2 2" />}
    </svg>
  );
}

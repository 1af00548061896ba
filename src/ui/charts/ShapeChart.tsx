import { scaleLinear } from "d3-scale";
import { area } from "d3-shape";
import type { Shape } from "@/study/analyse/analyse-look";
import { ticksBelow } from "./axis-ticks";
import { type Bar, barsOf, isIn } from "./bars";

/** A distribution in small: distinct values as bars, others in bins with an outline. `wide` ones have an axis. */
export function ShapeChart(props: {
  shape: Shape;
  name: string;
  width: number;
  height: number;
  format: (v: number) => string;
  wide: boolean;
  /** Values of the marked respondents: their share of each bar is drawn in it. */
  marked?: readonly number[];
  onBar?: (pressed: Bar) => void;
}) {
  const { shape, width, height, wide, format } = props;
  const base = wide ? height - 18 : height - 1;
  const bars = barsOf(shape);
  const most = Math.max(...bars.map((b) => b.count), 1);
  const x = scaleLinear().domain([bars[0]!.from, bars.at(-1)!.to]).range([wide ? 8 : 0, width - (wide ? 8 : 0)]); // prettier-ignore
  const y = scaleLinear()
    .domain([0, most])
    .range([base, wide ? 6 : 1]);
  const total = bars.reduce((sum, b) => sum + b.count, 0);
  const unit = bars[0]!.to - bars[0]!.from;
  const outline = shape.kind === "bins" && wide && shape.outline ? [...shape.outline.x].map((at, i) => ({ at, y: shape.outline!.y[i]! * total * unit })) : null; // prettier-ignore
  const drawn = area<{ at: number; y: number }>().x((p) => x(p.at)).y0(base).y1((p) => y(Math.min(most * 1.05, p.y))); // prettier-ignore
  return (
    <svg
      role="img"
      aria-label={`${props.name}: ${total} respondents from ${format(bars[0]!.from)} to ${format(bars.at(-1)!.to)}`}
      viewBox={`0 0 ${width} ${height}`}
      width={wide ? "100%" : width}
      style={{ display: "block", maxWidth: width }}
      fontFamily="var(--sans)"
      fontSize={11}
    >
      {bars.map((bar, i) => (
        <rect
          key={i}
          x={x(bar.from) + (wide ? 0.6 : 0.2)}
          y={y(bar.count)}
          width={Math.max(0.5, x(bar.to) - x(bar.from) - (wide ? 1.2 : 0.4))}
          height={Math.max(0, base - y(bar.count))}
          fill={wide ? "var(--rule)" : "var(--pencil)"}
          style={props.onBar ? { cursor: "pointer" } : undefined}
          onClick={() => props.onBar?.(bar)}
        >
          {wide && <title>{`${bar.name(format)}: ${bar.count}`}</title>}
        </rect>
      ))}
      {outline && (
        <path
          d={drawn(outline.filter((p) => p.at >= x.domain()[0]! && p.at <= x.domain()[1]!))!}
          fill="var(--plum)"
          fillOpacity={0.12}
          stroke="var(--plum)"
          strokeWidth={1.2}
          pointerEvents="none"
        />
      )}
      {(props.marked ?? []).length > 0 &&
        bars.map((bar, i) => {
          const own = props.marked!.filter((v) => isIn(bar, v)).length;
          return own === 0 ? null : <rect key={i} x={x(bar.from) + 0.6} y={Math.min(y(own), base - 2)} width={Math.max(1, x(bar.to) - x(bar.from) - 1.2)} height={base - Math.min(y(own), base - 2)} fill="var(--plum)" pointerEvents="none" />; // prettier-ignore
        })}
      {wide && (
        <>
          <line x1={x.range()[0]} x2={x.range()[1]} y1={base + 0.5} y2={base + 0.5} stroke="var(--ink)" />
          {ticksBelow(x, 5, 11, width).map(({ value, middle, label }) => (
            <text key={value} x={middle} y={height - 4} textAnchor="middle" fill="var(--quiet)">
              {label}
            </text>
          ))}
        </>
      )}
    </svg>
  );
}

"use client";

import { scaleLinear } from "d3-scale";
import { area, line } from "d3-shape";
import { type KeyboardEvent, type PointerEvent, useId, useRef } from "react";
import { ticksBelow, ticksBeside } from "./axis-ticks";
import { apart, lineStyle } from "./line-styles";

const FRAME = { width: 470, height: 300, left: 46, right: 16, top: 22, bottom: 44 };
/** Height of the distribution the slope stands on. */
const GROUND = 64;
const HANDLES = 20;

interface AlongPoint {
  x: number;
  y: number;
  lower: number;
  upper: number;
}

/** An effect with its band along a moderator, standing on the moderator's distribution; its marks are dragged there, or moved with the arrow keys. */
export function EffectAlongChart(props: {
  /** One for each place of the other moderators. */
  curves: readonly { name: string; points: AlongPoint[] }[];
  /** Values within the data at which the band leaves zero, and stretches in which it holds it; told when there is one curve. */
  bounds: readonly number[];
  unsure: readonly { from: number; to: number }[];
  histogram: { edges: readonly number[]; counts: readonly number[] };
  marks: readonly { name: string; value: number }[];
  /** How far an arrow key moves a mark. */
  unit: number;
  title: string;
  axis: string;
  format: (v: number) => string;
  onMove?: (mark: number, to: number) => void;
  /** A mark was let go. */
  onRest?: () => void;
}) {
  const { curves, marks, histogram, format, onMove, onRest } = props;
  const frame = useRef<SVGSVGElement>(null);
  const held = useRef<number | null>(null);
  const hatch = useId();
  const bottom = FRAME.height - FRAME.bottom - HANDLES;
  const zero = bottom - GROUND;
  const all = curves.flatMap((one) => one.points);
  const [low, high] = [all[0]!.x, curves[0]!.points.at(-1)!.x];
  const x = scaleLinear()
    .domain([low, high])
    .range([FRAME.left, FRAME.width - FRAME.right]);
  const y = scaleLinear()
    .domain([Math.min(0, ...all.map((p) => p.lower)), Math.max(0, ...all.map((p) => p.upper))])
    .nice(4)
    .range([zero - 8, FRAME.top]);
  const beside = ticksBeside(y, 4, 12, FRAME.left - 8);
  const tall = scaleLinear()
    .domain([0, Math.max(1, ...histogram.counts)])
    .range([0, GROUND - 6]);
  const stroke = line<AlongPoint>()
    .x((p) => x(p.x))
    .y((p) => y(p.y));
  const band = area<AlongPoint>()
    .x((p) => x(p.x))
    .y0((p) => y(p.lower))
    .y1((p) => y(p.upper));
  const ends = apart(
    curves.map((curve) => y(curve.points.at(-1)!.y) - 6),
    14,
    FRAME.top,
    zero,
  );
  const single = curves.length === 1 ? curves[0]! : null;
  const at = (event: PointerEvent) => {
    const box = frame.current!.getBoundingClientRect();
    return Math.max(low, Math.min(high, x.invert(((event.clientX - box.left) * FRAME.width) / box.width)));
  };
  const key = (event: KeyboardEvent, i: number) => {
    const steps: Record<string, number> = { ArrowLeft: -1, ArrowRight: 1, PageDown: -10, PageUp: 10 };
    const step = steps[event.key];
    if (step === undefined || !onMove) return;
    event.preventDefault();
    event.stopPropagation();
    onMove(i, Math.max(low, Math.min(high, marks[i]!.value + step * props.unit)));
  };
  const letGo = () => {
    if (held.current === null) return;
    held.current = null;
    onRest?.();
  };
  return (
    <svg
      ref={frame}
      role="group"
      aria-label={props.title}
      viewBox={`0 0 ${FRAME.width} ${FRAME.height}`}
      width="100%"
      style={{ display: "block", maxWidth: FRAME.width, touchAction: "none" }}
      fontFamily="var(--sans)"
      fontSize={12}
      onPointerMove={(event) => held.current !== null && onMove?.(held.current, at(event))}
      onPointerUp={letGo}
      onPointerCancel={letGo}
    >
      <defs>
        <pattern id={hatch} width={6} height={6} patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
          <line x1={0} x2={0} y1={0} y2={6} stroke="var(--pencil)" strokeWidth={1} strokeOpacity={0.7} />
        </pattern>
      </defs>
      {single &&
        props.unsure.map(({ from, to }) => (
          <rect key={from} x={x(from)} y={FRAME.top} width={x(to) - x(from)} height={zero - 8 - FRAME.top} fill={`url(#${hatch})`}>
            <title>Here the band holds zero.</title>
          </rect>
        ))}
      {beside.power && (
        <text y={FRAME.top - 8} fill="var(--quiet)">
          {beside.power}
        </text>
      )}
      {beside.ticks.map(({ value, at: place, label }) => (
        <text key={value} x={FRAME.left - 8} y={place + 4} textAnchor="end" fill="var(--quiet)">
          {label}
        </text>
      ))}
      <line x1={x.range()[0]} x2={x.range()[1]} y1={y(0)} y2={y(0)} stroke="var(--quiet)" />
      {curves.map((curve, i) => (
        <path key={curve.name} d={band(curve.points)!} fill={single ? "var(--plum)" : lineStyle(i).colour} fillOpacity={0.13} />
      ))}
      {curves.map((curve, i) => (
        <g key={curve.name}>
          <path
            d={stroke(curve.points)!}
            fill="none"
            stroke={single ? "var(--plum)" : lineStyle(i).colour}
            strokeDasharray={single ? "" : lineStyle(i).dash}
            strokeWidth={2}
          />
          {!single && (
            <text x={x.range()[1]! - 2} y={ends[i]} textAnchor="end" fill={lineStyle(i).colour} fontWeight={600}>
              {curve.name}
            </text>
          )}
        </g>
      ))}
      {single &&
        props.bounds.map((bound) => (
          <g key={bound}>
            <line x1={x(bound)} x2={x(bound)} y1={FRAME.top - 6} y2={bottom} stroke="var(--plum)" strokeDasharray="2 3" />
            <text
              x={x(bound) + (x(bound) > FRAME.width / 2 ? -5 : 5)}
              y={FRAME.top - 8}
              textAnchor={x(bound) > FRAME.width / 2 ? "end" : "start"}
              fill="var(--plum)"
            >
              {format(bound)}
            </text>
          </g>
        ))}
      {histogram.counts.map((count, i) => (
        <rect
          key={histogram.edges[i]}
          x={x(histogram.edges[i]!) + 0.5}
          y={bottom - tall(count)}
          width={Math.max(0.5, x(histogram.edges[i + 1]!) - x(histogram.edges[i]!) - 1)}
          height={tall(count)}
          fill="var(--strip-middle)"
        >
          <title>{`${format(histogram.edges[i]!)} to ${format(histogram.edges[i + 1]!)}: ${count}`}</title>
        </rect>
      ))}
      <line x1={x.range()[0]} x2={x.range()[1]} y1={bottom + 0.5} y2={bottom + 0.5} stroke="var(--ink)" />
      {marks.map((mark, i) => {
        const { colour } = single ? lineStyle(i) : { colour: "var(--ink)" };
        const inside = mark.value >= low && mark.value <= high;
        if (!inside) return null;
        const effect = single && effectOn(single.points, mark.value);
        return (
          <g
            key={i}
            transform={`translate(${x(mark.value)} 0)`}
            {...(onMove && {
              role: "slider",
              tabIndex: 0,
              "aria-label": `${mark.name}, value of ${props.axis}`,
              "aria-valuenow": mark.value,
              "aria-valuemin": low,
              "aria-valuemax": high,
              "aria-valuetext": format(mark.value),
              style: { cursor: "ew-resize" },
              onKeyDown: (event: KeyboardEvent) => key(event, i),
              onKeyUp: (event: KeyboardEvent) => /^(Arrow|Page)/.test(event.key) && onRest?.(),
              onPointerDown: (event: PointerEvent) => {
                held.current = i;
                frame.current!.setPointerCapture(event.pointerId);
              },
            })}
          >
            <rect x={-9} y={FRAME.top} width={18} height={bottom + HANDLES - FRAME.top} fill="transparent" />
            <line y1={effect === null ? zero : y(effect)} y2={bottom + 5} stroke={colour} strokeWidth={1.2} />
            {effect !== null && <circle cy={y(effect)} r={4} fill={colour} />}
            <path d={`M-5 ${bottom + 5}h10v7l-5 5l-5 -5z`} fill={colour} />
          </g>
        );
      })}
      {ticksBelow(x, 5, 12, FRAME.width).map(({ value, middle, label }) => (
        <text key={value} x={middle} y={bottom + HANDLES + 14} textAnchor="middle" fill="var(--quiet)">
          {label}
        </text>
      ))}
      <text x={(FRAME.left + FRAME.width - FRAME.right) / 2} y={FRAME.height - 6} textAnchor="middle" fill="var(--ink)">
        {props.axis}
      </text>
    </svg>
  );
}

/** The effect on a curve of points, between its neighbours. */
function effectOn(points: readonly AlongPoint[], at: number): number {
  const next = Math.max(
    1,
    points.findIndex((p) => p.x >= at),
  );
  const [a, b] = [points[next - 1]!, points[next]!];
  return a.y + ((b.y - a.y) * (at - a.x)) / (b.x - a.x);
}

"use client";

import { scaleLinear } from "d3-scale";
import { type KeyboardEvent, type PointerEvent, useRef } from "react";
import type { Histogram } from "@/core/describe/histogram";
import { ticksBelow } from "./axis-ticks";

interface Props {
  histogram: Histogram;
  width: number;
  height: number;
  title: string;
  /** Ascending; a value on an edge belongs to the range above. */
  edges: readonly number[];
  labels: readonly string[];
  /** How far an arrow key moves an edge. */
  unit: number;
  format: (v: number) => string;
  onMove: (edge: number, to: number) => void;
}

/** A distribution with edges drawn on it that can be dragged, or moved with the arrow keys. */
export function CutHistogram({ histogram, width, height, title, edges, labels, unit, format, onMove }: Props) {
  const frame = useRef<SVGSVGElement>(null);
  const held = useRef<number | null>(null);
  const base = height - 34;
  const low = Math.min(histogram.edges[0]!, ...edges);
  const high = Math.max(histogram.edges.at(-1)!, ...edges);
  const x = scaleLinear()
    .domain([low, high])
    .range([12, width - 12]);
  const y = scaleLinear()
    .domain([0, Math.max(...histogram.counts)])
    .range([base, 8]);
  /** The picture shrinks with a narrow sheet: what the pointer says is in its own measure. */
  const at = (event: PointerEvent) => {
    const box = frame.current!.getBoundingClientRect();
    return x.invert(((event.clientX - box.left) * width) / box.width);
  };
  const key = (event: KeyboardEvent, i: number) => {
    const steps: Record<string, number> = { ArrowLeft: -1, ArrowRight: 1, PageDown: -10, PageUp: 10 };
    const step = steps[event.key];
    if (step === undefined) return;
    event.preventDefault();
    onMove(i, edges[i]! + step * unit);
  };
  const places = [x.range()[0]!, ...edges.map((edge) => x(edge)), x.range()[1]!];
  return (
    <svg
      ref={frame}
      role="group"
      aria-label={`${title} cut into ${labels.join(", ")}`}
      viewBox={`0 0 ${width} ${height}`}
      width="100%"
      style={{ display: "block", maxWidth: width, touchAction: "none" }}
      onPointerMove={(event) => held.current !== null && onMove(held.current, at(event))}
      onPointerUp={() => (held.current = null)}
      onPointerCancel={() => (held.current = null)}
    >
      {labels.map((_, i) => (
        <rect
          key={i}
          x={places[i]}
          y={4}
          width={Math.max(0, places[i + 1]! - places[i]!)}
          height={base - 4}
          fill={i % 2 === 0 ? "var(--shade)" : "transparent"}
        />
      ))}
      {histogram.counts.map((count, i) => (
        <rect
          key={histogram.edges[i]}
          x={x(histogram.edges[i]!) + 0.75}
          y={y(count)}
          width={Math.max(1, x(histogram.edges[i + 1]!) - x(histogram.edges[i]!) - 1.5)}
          height={base - y(count)}
          fill="var(--slate)"
        >
          <title>{`${format(histogram.edges[i]!)} to ${format(histogram.edges[i + 1]!)}: ${count}`}</title>
        </rect>
      ))}
      <line x1={x.range()[0]} x2={x.range()[1]} y1={base + 0.5} y2={base + 0.5} stroke="var(--ink)" />
      {ticksBelow(x, 6, 11, width, format).map(({ value, middle, label }) => (
        <text key={value} x={middle} y={base + 14} textAnchor="middle" fontSize={11} fill="var(--quiet)">
          {label}
        </text>
      ))}
      {labels.map((label, i) => {
        const room = places[i + 1]! - places[i]!;
        const most = Math.floor(room / 6.2);
        return (
          most >= 2 && (
            <text
              key={i}
              x={(places[i]! + places[i + 1]!) / 2}
              y={height - 4}
              textAnchor="middle"
              fontSize={12}
              fontWeight={600}
              fill="var(--ink)"
            >
              {label.length > most ? `${label.slice(0, most - 1)}…` : label}
            </text>
          )
        );
      })}
      {edges.map((edge, i) => (
        <g
          key={i}
          role="slider"
          tabIndex={0}
          aria-label={`Edge between ${labels[i]} and ${labels[i + 1]}`}
          aria-valuenow={edge}
          aria-valuemin={low}
          aria-valuemax={high}
          aria-valuetext={format(edge)}
          transform={`translate(${x(edge)} 0)`}
          style={{ cursor: "ew-resize" }}
          onKeyDown={(event) => key(event, i)}
          onPointerDown={(event) => {
            held.current = i;
            frame.current!.setPointerCapture(event.pointerId);
          }}
        >
          <rect x={-7} y={0} width={14} height={base} fill="transparent" />
          <line y1={2} y2={base} stroke="var(--plum)" strokeWidth={2} />
          <circle cy={6} r={5} fill="var(--paper)" stroke="var(--plum)" strokeWidth={2} />
        </g>
      ))}
    </svg>
  );
}

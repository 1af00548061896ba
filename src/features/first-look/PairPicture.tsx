"use client";

import { type KeyboardEvent, type PointerEvent, useMemo, useRef, useState } from "react";
import { formatValue } from "@/study/report/format-number";
import { ScatterChart, type ScatterFrame, type ScatterLine, type ScatterPoints, scalesOf } from "@/ui/charts/ScatterChart";
import { useMarked } from "./marked";
import css from "./first-look.module.css";

/**
 * A scatter in which respondents can be marked: drag a frame with the pointer (with Shift it adds), or go from one to the next with the arrow keys and mark with
 * Enter or Space.
 */
export function PairPicture(props: {
  rows: Int32Array;
  /** Where they are drawn: what stands on few steps a little apart. */
  points: ScatterPoints;
  /** What they answered. */
  values: Pick<ScatterPoints, "x" | "y">;
  lines: readonly ScatterLine[];
  frame: ScatterFrame;
  title: string;
  axis: string;
  outcome: string;
}) {
  const { rows, points, values, frame } = props;
  const marked = useMarked();
  const place = useRef<HTMLDivElement>(null);
  const [cursor, setCursor] = useState<number | null>(null);
  const [drag, setDrag] = useState<{ x0: number; y0: number; x1: number; y1: number; add: boolean } | null>(null);
  const order = useMemo(
    () => Int32Array.from(points.x.keys()).sort((a, b) => points.x[a]! - points.x[b]! || points.y[a]! - points.y[b]!),
    [points],
  );
  const places = useMemo(() => new Set([...rows.keys()].filter((i) => marked.rows.has(rows[i]!))), [rows, marked.rows]);
  const at = (event: PointerEvent) => {
    const box = place.current!.getBoundingClientRect();
    const unit = frame.width / box.width;
    return { x: (event.clientX - box.left) * unit, y: (event.clientY - box.top) * unit };
  };
  const within = (box: NonNullable<typeof drag>) => {
    const { x, y } = scalesOf(frame, false);
    const [fromX, toX] = [x.invert(Math.min(box.x0, box.x1)), x.invert(Math.max(box.x0, box.x1))];
    const [toY, fromY] = [y.invert(Math.min(box.y0, box.y1)), y.invert(Math.max(box.y0, box.y1))];
    const found: number[] = [];
    for (let i = 0; i < rows.length; i++) {
      if (points.x[i]! >= fromX && points.x[i]! <= toX && points.y[i]! >= fromY && points.y[i]! <= toY) found.push(rows[i]!);
    }
    return found;
  };
  const press = (event: PointerEvent) => {
    if (event.button !== 0) return;
    event.currentTarget.setPointerCapture(event.pointerId);
    const { x, y } = at(event);
    setDrag({ x0: x, y0: y, x1: x, y1: y, add: event.shiftKey });
  };
  const move = (event: PointerEvent) => {
    if (!drag) return;
    const { x, y } = at(event);
    setDrag({ ...drag, x1: x, y1: y });
  };
  const release = () => {
    if (!drag) return;
    // a click is a small frame about a point
    const small = Math.abs(drag.x1 - drag.x0) < 4 && Math.abs(drag.y1 - drag.y0) < 4;
    const box = small ? { ...drag, x0: drag.x0 - 5, y0: drag.y0 - 5, x1: drag.x0 + 5, y1: drag.y0 + 5 } : drag;
    marked.mark(within(box), drag.add);
    setDrag(null);
  };
  const key = (event: KeyboardEvent) => {
    const step =
      event.key === "ArrowRight" || event.key === "ArrowUp" ? 1 : event.key === "ArrowLeft" || event.key === "ArrowDown" ? -1 : 0;
    if (step !== 0 && order.length > 0) {
      event.preventDefault();
      const now = cursor === null ? (step > 0 ? -1 : order.length) : order.indexOf(cursor);
      setCursor(order[Math.max(0, Math.min(order.length - 1, now + step))]!);
    } else if ((event.key === "Enter" || event.key === " ") && cursor !== null) {
      event.preventDefault();
      const row = rows[cursor]!;
      if (marked.rows.has(row))
        marked.mark([...marked.rows].filter((one) => one !== row), false); // prettier-ignore
      else marked.mark([row], true);
    } else if (event.key === "Escape") setCursor(null);
  };
  const told = cursor === null ? "" : `Row ${rows[cursor]!}: ${props.axis} ${formatValue(values.x[cursor]!)}, ${props.outcome} ${formatValue(values.y[cursor]!)}${marked.rows.has(rows[cursor]!) ? ", marked" : ""}`; // prettier-ignore
  return (
    <div
      ref={place}
      className={css.brush}
      role="application"
      tabIndex={0}
      aria-label={`${props.title}: drag a frame to mark respondents, or arrow keys and Enter`}
      onPointerDown={press}
      onPointerMove={move}
      onPointerUp={release}
      onPointerCancel={() => setDrag(null)}
      onKeyDown={key}
      onBlur={() => setCursor(null)}
    >
      <ScatterChart
        points={points}
        lines={props.lines}
        marked={drag ? new Set([...(drag.add ? places : []), ...placesOf(within(drag), rows)]) : places}
        cursor={cursor}
        frame={frame}
        title={props.title}
        axis={props.axis}
        outcome={props.outcome}
        format={formatValue}
      />
      {drag && (
        <div
          className={css.box}
          style={{
            left: `${(Math.min(drag.x0, drag.x1) / frame.width) * 100}%`,
            top: `${(Math.min(drag.y0, drag.y1) / frame.height) * 100}%`,
            width: `${(Math.abs(drag.x1 - drag.x0) / frame.width) * 100}%`,
            height: `${(Math.abs(drag.y1 - drag.y0) / frame.height) * 100}%`,
          }}
        />
      )}
      <p className={css.cursor} role="status">
        {told}
      </p>
    </div>
  );
}

function placesOf(found: readonly number[], rows: Int32Array): number[] {
  const wanted = new Set(found);
  return [...rows.keys()].filter((i) => wanted.has(rows[i]!));
}

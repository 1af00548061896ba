import { scaleLinear } from "d3-scale";
import { line } from "d3-shape";
import { type KeyboardEvent, type PointerEvent, useRef } from "react";
import { layoutLoom, type LoomRow } from "./layout-loom";
import { lineStyle } from "./line-styles";

type SizeLine = { name: string; points: readonly { size: number; value: number }[] };

/** Where a line has its name: in sight even where the loom is wider than the page. */
const labelled = ({ points }: SizeLine) => points[Math.min(points.length - 1, 6)]!;

/** Sizes as columns: above them how much is explained, below a row a method with what came in where. The size that is chosen is an upright rule that can be moved. */
export function SearchLoom(props: {
  title: string;
  rows: readonly LoomRow[];
  /** Key of the row that is shown. */
  shown: string;
  lines: readonly SizeLine[];
  /** Of the other methods, thin and without a name at the end. */
  faint: readonly SizeLine[];
  most: number;
  size: number;
  onSize?: (size: number) => void;
  format: (value: number) => string;
}) {
  const { rows, lines, most, size, format, onSize } = props;
  const frame = useRef<SVGSVGElement>(null);
  const loom = layoutLoom(rows, most);
  const middle = (at: number) => loom.left + (at + 0.5) * loom.cell;
  const values = [...lines, ...props.faint].flatMap((one) => one.points.map((point) => point.value));
  const y = scaleLinear()
    .domain([Math.min(0, ...values), Math.max(...values, 0.01)])
    .nice(4)
    .range([loom.foot, loom.top]);
  const stroke = line<{ size: number; value: number }>()
    .x((p) => middle(p.size))
    .y((p) => y(p.value));
  const right = loom.left + (most + 1) * loom.cell;
  const named = lines.filter((one) => one.points.length > 0);
  const within = (at: number) => Math.max(0, Math.min(most, at));
  const at = (event: PointerEvent) => {
    const box = frame.current!.getBoundingClientRect();
    return within(Math.floor((((event.clientX - box.left) * loom.width) / box.width - loom.left) / loom.cell));
  };
  const held = useRef(false);
  const key = (event: KeyboardEvent) => {
    const to: Record<string, number> = { ArrowLeft: size - 1, ArrowRight: size + 1, Home: 0, End: most };
    if (to[event.key] === undefined) return;
    event.preventDefault();
    event.stopPropagation();
    onSize?.(within(to[event.key]!));
  };
  const end = loom.height - 22;
  return (
    <svg
      ref={frame}
      role={onSize ? "group" : "img"}
      aria-label={`${props.title}: ${named.map((one) => `${one.name} up to ${format(one.points.at(-1)!.value)} with ${one.points.at(-1)!.size}`).join("; ")}`}
      viewBox={`0 0 ${loom.width} ${loom.height}`}
      width={loom.width}
      style={{ display: "block", maxWidth: "none" }}
      fontFamily="var(--sans)"
      fontSize={12}
      onPointerMove={(event) => held.current && at(event) !== size && onSize?.(at(event))}
      onPointerUp={() => (held.current = false)}
      onPointerCancel={() => (held.current = false)}
    >
      {y.ticks(4).map((tick) => (
        <g key={tick}>
          <line x1={loom.left} x2={right} y1={y(tick)} y2={y(tick)} stroke="var(--rule)" />
          <text x={loom.left - 6} y={y(tick) + 4} textAnchor="end" fill="var(--quiet)">
            {format(tick)}
          </text>
        </g>
      ))}
      {Array.from({ length: most + 1 }, (_, k) => (
        <text key={k} x={middle(k)} y={loom.foot + 18} textAnchor="middle" fill="var(--ink)">
          {k}
        </text>
      ))}
      <text x={loom.left - 6} y={loom.foot + 18} textAnchor="end" fill="var(--quiet)">
        columns
      </text>
      {loom.rows.map((row) => (
        <g key={row.key}>
          <text x={0} y={row.y + 18} fill="var(--ink)" fontWeight={row.key === props.shown ? 600 : 400}>
            {row.name}
          </text>
          {row.chips.map((chip, k) => (
            <g key={k}>
              <title>{chip.gone ? `${chip.full} goes` : chip.full}</title>
              <rect
                x={chip.x + 2}
                y={chip.y}
                width={loom.cell - 4}
                height={28}
                rx={2}
                fill={row.key === props.shown ? "var(--sheet)" : "none"}
                stroke={chip.gone ? "none" : row.key === props.shown ? "var(--ink)" : "var(--pencil)"}
                strokeWidth={0.8}
              />
              {chip.lines.map((part, at) => (
                <text
                  key={at}
                  x={chip.x + loom.cell / 2}
                  y={chip.y + (chip.lines.length === 1 ? 18 : 12.5 + at * 12)}
                  textAnchor="middle"
                  fontSize={10.5}
                  fill={chip.gone ? "var(--quiet)" : "var(--ink)"}
                  textDecoration={chip.gone ? "line-through" : undefined}
                >
                  {part}
                </text>
              ))}
            </g>
          ))}
        </g>
      ))}
      {props.faint.map((one) => (
        <path key={one.name} d={stroke([...one.points]) ?? ""} fill="none" stroke="var(--pencil)" strokeWidth={0.9}>
          <title>{one.name}</title>
        </path>
      ))}
      {named.map((one, i) => (
        <g key={one.name}>
          <path
            d={stroke([...one.points]) ?? ""}
            fill="none"
            stroke={lineStyle(i).colour}
            strokeDasharray={lineStyle(i).dash}
            strokeWidth={1.6}
          />
          <text x={middle(labelled(one).size)} y={y(labelled(one).value) + (i === 0 ? -9 : 17)} textAnchor="middle" fill="var(--ink)">
            {one.name}
          </text>
        </g>
      ))}
      <g
        transform={`translate(${middle(size)} 0)`}
        {...(onSize && {
          role: "slider",
          tabIndex: 0,
          "aria-label": "Columns that are taken",
          "aria-valuenow": size,
          "aria-valuemin": 0,
          "aria-valuemax": most,
          style: { cursor: "ew-resize", touchAction: "none" },
          onKeyDown: key,
          onPointerDown: (event: PointerEvent) => {
            held.current = true;
            frame.current!.setPointerCapture(event.pointerId);
          },
        })}
      >
        <rect x={-10} y={loom.top} width={20} height={end - loom.top + 22} fill="transparent" />
        <line y1={loom.top} y2={end + 4} stroke="var(--plum)" strokeWidth={1.4} />
        <path d={`M-6 ${end + 4}h12v7l-6 6l-6 -6z`} fill="var(--plum)" />
      </g>
    </svg>
  );
}

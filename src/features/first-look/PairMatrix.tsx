"use client";

import { memo } from "react";
import { useStudy } from "@/features/study/study-context";
import type { Points } from "@/study/analyse/points-analysis";
import { correlationAt } from "@/study/analyse/analyse-look";
import { formatInterval, formatShare, formatValue } from "@/study/report/format-number";
import type { Looked } from "@/study/report/look-words";
import { ChartFrame } from "@/ui/charts/ChartFrame";
import { ScatterChart } from "@/ui/charts/ScatterChart";
import { ShapeChart } from "@/ui/charts/ShapeChart";
import css from "./first-look.module.css";
import { useMarked } from "./marked";
import { rangeOf } from "./range-of";

/** Every pair of up to twelve numbers: scatter below, r above, each by itself in the diagonal. A click opens the pair. */
export function PairMatrix(props: {
  names: readonly string[];
  points: Points | null;
  found: Looked;
  onOpen: (x: string, y: string) => void;
}) {
  const { names, found, points } = props;
  const { title } = useStudy();
  const places = names.map((name) => found.columns.findIndex((c) => c.key === name));
  const columns = `104px repeat(${names.length}, minmax(0, 1fr))`;
  return (
    <ChartFrame
      title="Every pair"
      note="scatter below, r with its interval above, each by itself in the diagonal; a click opens the pair"
      saved={<Drawing names={names} places={places} found={found} points={points} title={title} />}
      table={<MatrixTable names={names} places={places} found={found} />}
    >
      <div className={css.scroll}>
        <div
          className={css.matrix}
          role="table"
          aria-label="Every pair"
          style={{ gridTemplateColumns: columns, minWidth: 104 + names.length * 66 }}
          data-testid="matrix"
        >
          {names.map((row, i) => (
            <div key={row} role="row" className={css.matrixRow}>
              <span role="rowheader" className={css.matrixName} title={title(row)}>
                {title(row)}
              </span>
              {names.map((column, j) => {
                const name = `${title(row)} against ${title(column)}`;
                if (i === j) {
                  const { shape } = found.columns[places[i]!]!;
                  return (
                    <span key={column} role="cell" className={css.matrixCell}>
                      {shape && <ShapeChart shape={shape} name={title(row)} width={90} height={60} format={formatValue} wide={false} />}
                    </span>
                  );
                }
                const test = correlationAt(found.table, places[i]!, places[j]!);
                return (
                  <span key={column} role="cell" className={css.matrixPlace}>
                    <button
                      type="button"
                      className={css.matrixCell}
                      aria-label={`${name}: ${formatShare(test?.r ?? null)}`}
                      onClick={() => props.onOpen(j < i ? column : row, j < i ? row : column)}
                    >
                      {j < i ? (
                        points && <Small points={points} x={column} y={row} name={name} />
                      ) : (
                        <>
                          <b>{formatShare(test?.r ?? null)}</b>
                          <small>{test?.lower == null ? "" : formatInterval(test.lower, test.upper, formatShare)}</small>
                        </>
                      )}
                    </button>
                  </span>
                );
              })}
            </div>
          ))}
        </div>
      </div>
    </ChartFrame>
  );
}

/** The numbers behind the matrix. */
function MatrixTable({ names, places, found }: { names: readonly string[]; places: readonly number[]; found: Looked }) {
  const { title } = useStudy();
  return (
    <div className={css.scroll}>
      <table className={css.table}>
        <caption className="visually-hidden">Every pair</caption>
        <thead>
          <tr>
            <td />
            {names.slice(0, -1).map((name) => (
              <th key={name} scope="col">
                {title(name)}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {names.slice(1).map((row, above) => (
            <tr key={row}>
              <th scope="row" className={css.name}>
                {title(row)}
              </th>
              {names.slice(0, above + 1).map((column, j) => {
                const test = correlationAt(found.table, places[above + 1]!, places[j]!);
                return (
                  <td key={column}>
                    {formatShare(test?.r ?? null)} {test?.lower == null ? "" : formatInterval(test.lower, test.upper, formatShare)}
                  </td>
                );
              })}
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}

const [CELL_WIDTH, CELL_HEIGHT, NAMES] = [90, 64, 104];

/** The matrix as one drawing, to be saved. */
function Drawing(props: {
  names: readonly string[];
  places: readonly number[];
  found: Looked;
  points: Points | null;
  title: (name: string) => string;
}) {
  const { names, places, found, points, title } = props;
  const [width, height] = [NAMES + names.length * CELL_WIDTH, names.length * CELL_HEIGHT];
  return (
    <svg viewBox={`0 0 ${width} ${height}`} width={width} height={height} fontFamily="var(--sans)" fontSize={11}>
      {names.map((row, i) => (
        <g key={row} transform={`translate(0 ${i * CELL_HEIGHT})`}>
          <text x={NAMES - 6} y={CELL_HEIGHT / 2} textAnchor="end" fill="var(--ink)">
            {title(row).length > 18 ? `${title(row).slice(0, 17)}…` : title(row)}
          </text>
          {names.map((column, j) => {
            const test = correlationAt(found.table, places[i]!, places[j]!);
            const { shape } = found.columns[places[i]!]!;
            return (
              <svg key={column} x={NAMES + j * CELL_WIDTH} y={0} width={CELL_WIDTH} height={CELL_HEIGHT}>
                <rect width={CELL_WIDTH} height={CELL_HEIGHT} fill="none" stroke="var(--rule-pale)" />
                {i === j && shape && (
                  <ShapeChart
                    shape={shape}
                    name={title(row)}
                    width={CELL_WIDTH}
                    height={CELL_HEIGHT - 4}
                    format={formatValue}
                    wide={false}
                  />
                )}
                {j < i && points && <SmallScatter points={points} x={column} y={row} name="" marked={new Set()} />}
                {j > i && (
                  <text x={CELL_WIDTH / 2} y={CELL_HEIGHT / 2} textAnchor="middle" fill="var(--ink)" fontWeight={600}>
                    {formatShare(test?.r ?? null)}
                  </text>
                )}
              </svg>
            );
          })}
        </g>
      ))}
    </svg>
  );
}

/** So many respondents at most stand in a small scatter: every so many-th of more; above 5,000 squares of all. */
const MOST_SMALL = 400;

function Small({ points, x, y, name }: { points: Points; x: string; y: string; name: string }) {
  const marked = useMarked();
  return <SmallScatter points={points} x={x} y={y} name={name} marked={marked.rows} />;
}

const SmallScatter = memo(function SmallScatter(props: {
  points: Points;
  x: string;
  y: string;
  name: string;
  marked: ReadonlySet<number>;
}) {
  const { points, marked } = props;
  const [a, b] = [points.columns.get(props.x), points.columns.get(props.y)];
  if (!a || !b) return null;
  const both = Int32Array.from([...a.keys()].filter((i) => !Number.isNaN(a[i]!) && !Number.isNaN(b[i]!)));
  const every = both.length > 5000 ? 1 : Math.max(1, Math.ceil(both.length / MOST_SMALL));
  const shown = both.filter((i, k) => k % every === 0 || marked.has(points.rows[i]!));
  if (shown.length === 0) return null;
  const drawn = { x: Float64Array.from(shown, (i) => a[i]!), y: Float64Array.from(shown, (i) => b[i]!), group: null };
  return (
    <ScatterChart
      points={drawn}
      lines={[]}
      marked={new Set([...shown.keys()].filter((i) => marked.has(points.rows[shown[i]!]!)))}
      cursor={null}
      frame={{ width: CELL_WIDTH, height: 60, names: false, x: rangeOf(drawn.x), y: rangeOf(drawn.y) }}
      title={props.name}
      axis=""
      outcome=""
      format={formatValue}
      bare
    />
  );
});

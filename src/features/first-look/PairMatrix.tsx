"use client";

import { useMemo } from "react";
import { useStudy } from "@/features/study/study-context";
import { useAsked } from "@/features/study/use-computed";
import type { Points } from "@/study/analyse/points-analysis";
import { correlationAt } from "@/study/analyse/analyse-look";
import { formatInterval, formatShare, formatValue } from "@/study/report/format-number";
import type { Looked } from "@/study/report/look-words";
import { ScatterChart } from "@/ui/charts/ScatterChart";
import { ShapeChart } from "@/ui/charts/ShapeChart";
import css from "./first-look.module.css";
import { useMarked } from "./marked";
import { rangeOf } from "./range-of";

/** Every pair of up to twelve numbers: scatter below, r above, each by itself in the diagonal. A click opens the pair. */
export function PairMatrix(props: {
  names: readonly string[];
  respondents: string | null;
  found: Looked;
  onOpen: (x: string, y: string) => void;
}) {
  const { names, found } = props;
  const { title } = useStudy();
  const { result } = useAsked("points", { names: [...names], respondents: props.respondents }, { subject: `matrix ${names.join(" ")}` });
  const places = names.map((name) => found.columns.findIndex((c) => c.key === name));
  const columns = `104px repeat(${names.length}, minmax(0, 1fr))`;
  return (
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
                      result && <Small points={result} x={column} y={row} name={name} />
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
  );
}

/** So many respondents at most stand in a small scatter: every so many-th of more. */
const MOST_SMALL = 400;

function Small({ points, x, y, name }: { points: Points; x: string; y: string; name: string }) {
  const marked = useMarked();
  const [a, b] = [points.columns.get(x), points.columns.get(y)];
  const both = useMemo(
    () => (a && b ? Int32Array.from([...a.keys()].filter((i) => !Number.isNaN(a[i]!) && !Number.isNaN(b[i]!))) : new Int32Array(0)),
    [a, b],
  );
  const every = both.length > 5000 ? 1 : Math.max(1, Math.ceil(both.length / MOST_SMALL));
  const shown = useMemo(
    () => both.filter((i, k) => k % every === 0 || marked.rows.has(points.rows[i]!)),
    [both, every, marked.rows, points.rows],
  );
  const drawn = useMemo(
    () => (a && b ? { x: Float64Array.from(shown, (i) => a[i]!), y: Float64Array.from(shown, (i) => b[i]!), group: null } : null),
    [a, b, shown],
  );
  if (!a || !b || !drawn || drawn.x.length === 0) return null;
  return (
    <ScatterChart
      points={drawn}
      lines={[]}
      groups={[]}
      marked={new Set([...shown.keys()].filter((i) => marked.rows.has(points.rows[shown[i]!]!)))}
      cursor={null}
      frame={{ width: 90, height: 60, names: false, x: rangeOf(drawn.x), y: rangeOf(drawn.y) }}
      title={name}
      axis=""
      outcome=""
      format={formatValue}
      bare
    />
  );
}

"use client";

import { useQueries } from "@tanstack/react-query";
import { useVirtualizer } from "@tanstack/react-virtual";
import { type KeyboardEvent, useEffect, useRef, useState } from "react";
import { z } from "zod";
import { useStudy } from "@/features/study/study-context";
import css from "./responses.module.css";

const BLOCK = 200;
const ROW_HEIGHT = 26;
const COLUMN_WIDTH = 92;
const GUTTER = 48;
const WORDS = new Set(["category", "text", "code"]);
const Cells = z.array(z.array(z.string().nullable()));

/** The answers as imported: respondents down, variables across. Only what is in view is fetched and drawn. */
export function AnswersGrid({ chosen }: { chosen: string | null }) {
  const { dataset, study } = useStudy();
  const frame = useRef<HTMLDivElement>(null);
  const [at, setAt] = useState({ row: 0, column: 0 });
  const rows = useVirtualizer({
    count: dataset.rows,
    getScrollElement: () => frame.current,
    estimateSize: () => ROW_HEIGHT,
    overscan: 8,
    initialRect: { width: 400, height: 560 },
  });
  const columns = useVirtualizer({
    horizontal: true,
    count: dataset.columns.length,
    getScrollElement: () => frame.current,
    estimateSize: () => COLUMN_WIDTH,
    overscan: 2,
    initialRect: { width: 480, height: 560 },
  });
  const visible = rows.getVirtualItems();
  const blocks = [...new Set(visible.map((row) => Math.floor(row.index / BLOCK)))];
  const fetched = useQueries({
    queries: blocks.map((block) => ({
      queryKey: ["cells", dataset.id, block],
      queryFn: async ({ signal }: { signal: AbortSignal }) => {
        const response = await fetch(`/api/datasets/${dataset.id}/cells?from=${block * BLOCK}&count=${BLOCK}`, { signal });
        return Cells.parse(await response.json());
      },
    })),
  });
  const cells = new Map(blocks.map((block, i) => [block, fetched[i]!.data]));
  const failed = fetched.some((query) => query.isError);
  const codebook = new Map(study.codebook.map((v) => [v.name, v]));
  const across = columns.getVirtualItems();
  const drawn = visible.some((row) => row.index === at.row) && across.some((column) => column.index === at.column);
  const { scrollToIndex } = columns;

  useEffect(() => {
    const index = chosen === null ? -1 : dataset.columns.indexOf(chosen);
    if (index >= 0) scrollToIndex(index, { align: "center" });
  }, [chosen, dataset.columns, scrollToIndex]);

  const move = (event: KeyboardEvent) => {
    const page = Math.max(1, visible.length - 10);
    const steps: Record<string, [number, number]> = {
      ArrowDown: [1, 0],
      ArrowUp: [-1, 0],
      ArrowRight: [0, 1],
      ArrowLeft: [0, -1],
      PageDown: [page, 0],
      PageUp: [-page, 0],
      Home: [0, -at.column],
      End: [0, dataset.columns.length],
    };
    const step = steps[event.key];
    if (!step) return;
    event.preventDefault();
    const row = Math.min(dataset.rows - 1, Math.max(0, at.row + step[0]));
    const column = Math.min(dataset.columns.length - 1, Math.max(0, at.column + step[1]));
    setAt({ row, column });
    rows.scrollToIndex(row);
    columns.scrollToIndex(column);
  };

  return (
    <div
      ref={frame}
      className={css.gridFrame}
      role="grid"
      tabIndex={0}
      aria-label="Answers"
      aria-rowcount={dataset.rows + 1}
      aria-colcount={dataset.columns.length + 1}
      aria-activedescendant={drawn ? `cell-${at.row}-${at.column}` : undefined}
      onKeyDown={move}
    >
      <div className={css.headRow} role="row" aria-rowindex={1} style={{ width: GUTTER + columns.getTotalSize() }}>
        <div
          className={`${css.cell} ${css.head} ${css.number}`}
          role="columnheader"
          aria-colindex={1}
          style={{ position: "sticky", display: "inline-block" }}
        >
          row
        </div>
        {across.map((column) => {
          const name = dataset.columns[column.index]!;
          return (
            <div
              key={column.key}
              role="columnheader"
              aria-colindex={column.index + 2}
              title={codebook.get(name)?.label || name}
              className={[
                css.cell,
                css.head,
                WORDS.has(codebook.get(name)?.kind ?? "text") ? css.words : "",
                name === chosen ? css.chosen : "",
              ].join(" ")}
              style={{ left: GUTTER + column.start, width: column.size }}
            >
              {name}
            </div>
          );
        })}
      </div>
      <div className={css.canvas} role="rowgroup" style={{ height: rows.getTotalSize(), width: GUTTER + columns.getTotalSize() }}>
        {visible.map((row) => {
          const block = cells.get(Math.floor(row.index / BLOCK));
          const answers = block?.[row.index % BLOCK];
          return (
            <div
              key={row.key}
              role="row"
              aria-rowindex={row.index + 2}
              className={css.row}
              style={{ top: row.start, width: GUTTER + columns.getTotalSize(), height: ROW_HEIGHT }}
            >
              <div role="rowheader" aria-colindex={1} className={`${css.cell} ${css.number}`}>
                {row.index + 1}
              </div>
              {across.map((column) => {
                const name = dataset.columns[column.index]!;
                const answer = answers?.[column.index];
                const missing = answer !== null && answer !== undefined && codebook.get(name)?.missing.includes(answer);
                const words = answer !== null && answer !== undefined && Number.isNaN(Number(answer));
                const here = at.row === row.index && at.column === column.index;
                return (
                  <div
                    key={column.key}
                    id={`cell-${row.index}-${column.index}`}
                    role="gridcell"
                    aria-colindex={column.index + 2}
                    className={[
                      css.cell,
                      words ? css.words : "",
                      missing ? css.gone : "",
                      name === chosen ? css.chosen : "",
                      here ? css.at : "",
                    ].join(" ")}
                    style={{ left: GUTTER + column.start, width: column.size }}
                    title={missing ? "declared missing" : undefined}
                    onClick={() => setAt({ row: row.index, column: column.index })}
                  >
                    {answers === undefined ? "" : (answer ?? "").replace(/^-(?=\d)/, "−")}
                  </div>
                );
              })}
            </div>
          );
        })}
      </div>
      {failed && (
        <p role="alert" style={{ position: "sticky", left: 0, bottom: 0, margin: 0, padding: 8, background: "var(--shade)" }}>
          The answers could not be fetched: the server does not answer.
        </p>
      )}
    </div>
  );
}

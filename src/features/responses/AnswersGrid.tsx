"use client";

import { useVirtualizer } from "@tanstack/react-virtual";
import { type ClipboardEvent, type KeyboardEvent, type MouseEvent, useEffect, useMemo, useRef, useState } from "react";
import { guarded } from "@/files/spreadsheet-guard";
import { useStudy } from "@/features/study/study-context";
import { correctionId } from "@/study/model/correction";
import type { Variable } from "@/study/model/variable";
import { CellEditor } from "./CellEditor";
import { fetchAllCells } from "./cell-source";
import css from "./responses.module.css";
import { useSheetCells } from "./use-sheet-cells";

const ROW_HEIGHT = 26;
const COLUMN_WIDTH = 92;
const GUTTER = 56;
const HEAD_HEIGHT = 28;
/** Blocks this far beyond the edge are fetched before they are seen. */
const AHEAD = 30;
/** The most cells that are copied at once. */
const MOST_COPIED = 200_000;

/** A place in the sheet: row in the order shown, column in codebook order. */
export interface Place {
  row: number;
  column: number;
}

interface Props {
  chosen: string | null;
  /** Data rows (from 0) in the order shown; null: all, in the order of the file. */
  rows: Uint32Array | null;
  /** Changes whenever the rows do. */
  version: string;
  view: "values" | "labels";
  at: Place;
  onAt: (place: Place) => void;
  onChoose: (name: string) => void;
}

/** The answers: respondents down, variables across. Only what is in view is fetched and drawn. */
export function AnswersGrid({ chosen, rows: list, version, view, at, onAt, onChoose }: Props) {
  const { dataset, study, store } = useStudy();
  const frame = useRef<HTMLDivElement>(null);
  const [anchor, setAnchor] = useState<Place | null>(null);
  const [editing, setEditing] = useState(false);
  const [copied, setCopied] = useState<string | null>(null);
  const names = useMemo(() => study.codebook.map((v) => v.name), [study.codebook]);
  const count = list ? list.length : dataset.rows;
  const rows = useVirtualizer({
    count,
    getScrollElement: () => frame.current,
    estimateSize: () => ROW_HEIGHT,
    overscan: 8,
    scrollPaddingEnd: HEAD_HEIGHT,
    initialRect: { width: 400, height: 560 },
  });
  const columns = useVirtualizer({
    horizontal: true,
    count: names.length,
    getScrollElement: () => frame.current,
    estimateSize: () => COLUMN_WIDTH,
    overscan: 3,
    scrollPaddingEnd: GUTTER,
    initialRect: { width: 480, height: 560 },
  });
  const visible = rows.getVirtualItems();
  const across = columns.getVirtualItems();
  const sheet = useSheetCells(names, {
    rows: list,
    version,
    count,
    firstRow: Math.max(0, (visible[0]?.index ?? 0) - AHEAD),
    lastRow: Math.min(count - 1, (visible.at(-1)?.index ?? 0) + AHEAD),
    firstColumn: Math.max(0, (across[0]?.index ?? 0) - 4),
    lastColumn: Math.min(names.length - 1, (across.at(-1)?.index ?? 0) + 4),
  });
  const codebook = useMemo(() => new Map(study.codebook.map((v) => [v.name, v])), [study.codebook]);
  const labels = useMemo(
    () => new Map(study.codebook.map((v) => [v.name, new Map(v.levels.map((l) => [l.value, l.label]))])),
    [study.codebook],
  );
  const missing = useMemo(() => new Map(study.codebook.map((v) => [v.name, new Set(v.missing)])), [study.codebook]);
  const drawn = visible.some((row) => row.index === at.row) && across.some((column) => column.index === at.column);
  const { scrollToIndex: toColumn } = columns;
  const { scrollToIndex: toRow } = rows;

  useEffect(() => {
    const index = chosen === null ? -1 : names.indexOf(chosen);
    if (index >= 0) toColumn(index, { align: "auto" });
  }, [chosen, names, toColumn]);
  useEffect(() => {
    if (at.row < count) toRow(at.row, { align: "auto" });
    toColumn(at.column, { align: "auto" });
  }, [at, count, toRow, toColumn]);

  const shown = (variable: Variable, text: string | null): string => {
    if (text === null) return "";
    const label = view === "labels" ? labels.get(variable.name)?.get(text) : undefined;
    return label || text.replace(/^-(?=\d)/, "−");
  };
  const from = anchor ?? at;
  const range = {
    top: Math.min(from.row, at.row),
    bottom: Math.max(from.row, at.row),
    left: Math.min(from.column, at.column),
    right: Math.max(from.column, at.column),
  };
  const inRange = (row: number, column: number) =>
    anchor !== null && row >= range.top && row <= range.bottom && column >= range.left && column <= range.right;
  const dataRow = (row: number) => (list ? list[row]! : row);

  const go = (to: Place, extend: boolean) => {
    setAnchor(extend ? (anchor ?? at) : null);
    setEditing(false);
    setCopied(null);
    onAt({ row: Math.min(count - 1, Math.max(0, to.row)), column: Math.min(names.length - 1, Math.max(0, to.column)) });
  };
  const move = (event: KeyboardEvent) => {
    if (editing || event.target !== frame.current) return;
    const page = Math.max(1, visible.length - 10);
    const whole = event.ctrlKey || event.metaKey;
    const steps: Record<string, Place> = {
      ArrowDown: { row: at.row + 1, column: at.column },
      ArrowUp: { row: at.row - 1, column: at.column },
      ArrowRight: { row: at.row, column: at.column + 1 },
      ArrowLeft: { row: at.row, column: at.column - 1 },
      PageDown: { row: at.row + page, column: at.column },
      PageUp: { row: at.row - page, column: at.column },
      Home: { row: whole ? 0 : at.row, column: 0 },
      End: { row: whole ? count - 1 : at.row, column: names.length - 1 },
    };
    const step = steps[event.key];
    if (step) {
      event.preventDefault();
      go(step, event.shiftKey);
    } else if (event.key === "Enter" || event.key === "F2") {
      event.preventDefault();
      setEditing(true);
    } else if (event.key === "Delete" || event.key === "Backspace") {
      event.preventDefault();
      takeCorrectionBack();
    }
  };
  const takeCorrectionBack = () => {
    const id = correctionId({ row: dataRow(at.row) + 1, variable: names[at.column]! });
    if (study.corrections.some((c) => correctionId(c) === id)) store.edit({ subject: "correction", id, to: null });
  };
  const click = (event: MouseEvent, place: Place) => go(place, event.shiftKey);

  /** Copies what is marked as text, tabs between cells, with the names above when it is more than one cell. */
  const copy = (event: ClipboardEvent) => {
    if (editing) return;
    event.preventDefault();
    void copyRange().then(setCopied);
  };
  const copyRange = async (): Promise<string> => {
    const part = names.slice(range.left, range.right + 1);
    const places = Array.from({ length: range.bottom - range.top + 1 }, (_, i) => range.top + i);
    if (places.length * part.length > MOST_COPIED) return "That is more than can be copied at once; save the data package instead.";
    const imported = part.filter((name) => !sheet.derived.has(name));
    const cells = imported.length > 0 ? await fetchAllCells(dataset.id, imported, places.map(dataRow)) : places.map(() => []);
    const corrections = new Map(study.corrections.map((c) => [correctionId(c), c]));
    const lines = places.map((place, i) =>
      part.map((name) => {
        const column = imported.indexOf(name);
        if (column < 0) return shown(codebook.get(name)!, sheet.cell(place, name)?.text ?? null);
        const text = cells[i]![column] ?? null;
        const correction = corrections.get(correctionId({ row: dataRow(place) + 1, variable: name }));
        const counts = sheet.counts(name, correction && correction.from === text ? correction.to : text);
        const label = view === "labels" && counts !== null ? labels.get(name)?.get(counts) : undefined;
        return (label || counts || "").replace(/[\t\r\n]+/g, " ");
      }),
    );
    const many = lines.length * part.length > 1;
    // a block goes to a spreadsheet, a single cell into a sentence
    const text = many ? [part, ...lines].map((line) => line.map(guarded).join("\t")).join("\n") : lines.flat().join("");
    try {
      await navigator.clipboard.writeText(text);
    } catch {
      return "The browser does not allow copying here.";
    }
    return many ? `${lines.length} × ${part.length} cells copied, with their names.` : "One cell copied.";
  };

  return (
    <>
      <div
        ref={frame}
        className={css.gridFrame}
        role="grid"
        tabIndex={0}
        aria-label="Answers"
        aria-rowcount={count + 1}
        aria-colcount={names.length + 1}
        aria-activedescendant={drawn ? `cell-${at.row}-${at.column}` : undefined}
        aria-multiselectable="true"
        onKeyDown={move}
        onCopy={copy}
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
            const name = names[column.index]!;
            const variable = codebook.get(name)!;
            return (
              <div
                key={column.key}
                role="columnheader"
                aria-colindex={column.index + 2}
                title={variable.label || name}
                className={[
                  css.cell,
                  css.head,
                  isWords(variable) ? css.words : "",
                  sheet.derived.has(name) ? css.derived : "",
                  name === chosen ? css.chosen : "",
                ].join(" ")}
                style={{ left: GUTTER + column.start, width: column.size }}
                onClick={() => onChoose(name)}
              >
                {name}
              </div>
            );
          })}
        </div>
        <div className={css.canvas} role="rowgroup" style={{ height: rows.getTotalSize(), width: GUTTER + columns.getTotalSize() }}>
          {visible.map((row) => (
            <div
              key={row.key}
              role="row"
              aria-rowindex={row.index + 2}
              className={css.row}
              style={{ top: row.start, width: GUTTER + columns.getTotalSize(), height: ROW_HEIGHT }}
            >
              <div role="rowheader" aria-colindex={1} className={`${css.cell} ${css.number}`}>
                {dataRow(row.index) + 1}
              </div>
              {across.map((column) => {
                const name = names[column.index]!;
                const variable = codebook.get(name)!;
                const cell = sheet.cell(row.index, name);
                const text = cell?.text ?? null;
                const gone = text !== null && missing.get(name)!.has(text);
                const here = at.row === row.index && at.column === column.index;
                const marks = [
                  css.cell,
                  isWords(variable) || (text !== null && Number.isNaN(Number(text))) ? css.words : "",
                  gone ? css.gone : "",
                  cell?.corrected ? css.corrected : "",
                  name === chosen ? css.chosen : "",
                  inRange(row.index, column.index) ? css.marked : "",
                  here ? css.at : "",
                ];
                return (
                  <div
                    key={column.key}
                    id={`cell-${row.index}-${column.index}`}
                    role="gridcell"
                    aria-colindex={column.index + 2}
                    aria-selected={here || inRange(row.index, column.index)}
                    className={marks.join(" ")}
                    style={{ left: GUTTER + column.start, width: column.size }}
                    title={
                      cell?.corrected
                        ? `corrected; the file says ${cell.imported ?? "nothing"}`
                        : cell?.read
                          ? `the file says ${cell.imported}`
                          : gone
                            ? "declared missing"
                            : undefined
                    }
                    onClick={(event) => click(event, { row: row.index, column: column.index })}
                    onDoubleClick={() => setEditing(true)}
                  >
                    {here && editing && cell ? (
                      <CellEditor
                        variable={variable}
                        row={dataRow(row.index) + 1}
                        cell={cell}
                        derived={sheet.derived.has(name)}
                        onDone={() => {
                          setEditing(false);
                          frame.current?.focus();
                        }}
                      />
                    ) : cell === undefined ? (
                      <span className={css.waiting} aria-label="on its way" />
                    ) : (
                      shown(variable, text)
                    )}
                  </div>
                );
              })}
            </div>
          ))}
        </div>
        {count === 0 && <p className={css.nobody}>No respondent fits this.</p>}
        {sheet.failed && (
          <p role="alert" className={css.nobody}>
            The answers could not be fetched: the server does not answer.
          </p>
        )}
      </div>
      <p className={css.underGrid} role="status">
        {copied ?? "Arrows move, Shift marks, Ctrl+C copies, Enter corrects a cell, Delete takes a correction back."}
      </p>
    </>
  );
}

const isWords = (variable: Variable) => ["category", "date", "text", "code"].includes(variable.kind);

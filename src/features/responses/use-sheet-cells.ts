"use client";

import { useQueries } from "@tanstack/react-query";
import { useMemo } from "react";
import { browserPool } from "@/compute/browser/browser-pool";
import { useStudy } from "@/features/study/study-context";
import { jobOf } from "@/features/study/job-of";
import { answerReader } from "@/study/prepare/answers/read-answers";
import { correctionId } from "@/study/model/correction";
import { cellText, type ResponseColumn } from "@/study/model/response-column";
import { BLOCK_COLUMNS, BLOCK_ROWS, fetchCells } from "./cell-source";

/** A cell as the sheet shows it; undefined: still on its way. */
export interface SheetCell {
  /** As it counts: the correction where there is one. */
  text: string | null;
  /** What the file says. */
  imported: string | null;
  /** Its words are read as a number. */
  read?: boolean;
  corrected: boolean;
}

interface Window {
  /** Data rows (from 0) by place in the sheet; `version` changes with them. */
  rows: Uint32Array | null;
  version: string;
  count: number;
  firstRow: number;
  lastRow: number;
  firstColumn: number;
  lastColumn: number;
}

/**
 * The cells in view: those of the file fetched block by block, those of derived variables worked out in a worker, corrections
 * laid over them.
 * @param names columns of the sheet in order
 */
export function useSheetCells(names: readonly string[], view: Window) {
  const { study, dataset, columns } = useStudy();
  const derived = useMemo(() => new Set(study.derived.map((d) => d.name)), [study.derived]);
  const imported = useMemo(() => names.filter((name) => !derived.has(name)), [names, derived]);
  const place = useMemo(() => new Map(imported.map((name, i) => [name, i])), [imported]);
  const corrections = useMemo(() => new Map(study.corrections.map((c) => [correctionId(c), c])), [study.corrections]);
  const readers = useMemo(
    () =>
      new Map(
        study.readings.flatMap((r) => {
          const read = answerReader(r.rule);
          return r.variables.map((name) => [name, read] as const);
        }),
      ),
    [study.readings],
  );
  const inView = names.slice(view.firstColumn, view.lastColumn + 1);

  const rowBlocks = stretch(Math.floor(view.firstRow / BLOCK_ROWS), Math.floor(view.lastRow / BLOCK_ROWS));
  const across = inView.flatMap((name) => place.get(name) ?? []);
  const columnBlocks = [...new Set(across.map((i) => Math.floor(i / BLOCK_COLUMNS)))];
  const wanted = rowBlocks.flatMap((row) => columnBlocks.map((column) => ({ row, column })));
  const blocks = useQueries({
    queries: wanted.map(({ row, column }) => ({
      queryKey: ["cells", dataset.id, view.version, row, imported[column * BLOCK_COLUMNS], column],
      queryFn: ({ signal }: { signal: AbortSignal }) => {
        const places = stretch(row * BLOCK_ROWS, Math.min(view.count, (row + 1) * BLOCK_ROWS) - 1);
        const part = imported.slice(column * BLOCK_COLUMNS, (column + 1) * BLOCK_COLUMNS);
        return fetchCells(dataset.id, part, view.rows ? places.map((p) => view.rows![p]!) : places, signal);
      },
    })),
  });
  const fetched = new Map(wanted.map(({ row, column }, i) => [`${row} ${column}`, blocks[i]!.data]));

  const worked = inView.filter((name) => derived.has(name));
  const results = useQueries({
    queries: worked.map((name) => {
      const { job, columns: needed } = jobOf("column", { name }, study, dataset);
      return {
        queryKey: ["computed", dataset.id, `column ${name}`, job],
        queryFn: async ({ signal }: { signal: AbortSignal }) =>
          browserPool().run(job, dataset.id, await columns.columns(needed), signal) as Promise<ResponseColumn>,
        retry: false,
      };
    }),
  });
  const columnOf = new Map(worked.map((name, i) => [name, results[i]!]));

  /** What a cell of the file counts as: words as the number they are read as. */
  const counts = (name: string, text: string | null): string | null => {
    const read = text === null || !Number.isNaN(Number(text)) ? undefined : readers.get(name);
    return String(read?.(text!) ?? text ?? "") || null;
  };

  /** The cell at a place in the sheet. */
  const cell = (row: number, name: string): SheetCell | undefined => {
    const dataRow = view.rows ? view.rows[row]! : row;
    const result = columnOf.get(name);
    if (result) {
      if (result.isError) return { text: null, imported: null, corrected: false };
      return result.data && { text: cellText(result.data, dataRow), imported: null, corrected: false };
    }
    const at = place.get(name);
    if (at === undefined) return undefined;
    const block = fetched.get(`${Math.floor(row / BLOCK_ROWS)} ${Math.floor(at / BLOCK_COLUMNS)}`);
    const line = block?.[row % BLOCK_ROWS];
    if (!line) return undefined;
    const text = line[at % BLOCK_COLUMNS] ?? null;
    const correction = corrections.get(correctionId({ row: dataRow + 1, variable: name }));
    const corrected = correction !== undefined && correction.from === text;
    const own = corrected ? correction.to : text;
    const read = counts(name, own);
    return read === own ? { text: own, imported: text, corrected } : { text: read, imported: text, corrected, read: true };
  };
  return { cell, counts, derived, failed: blocks.some((block) => block.isError) };
}

function stretch(from: number, to: number): number[] {
  return Array.from({ length: Math.max(0, to - from + 1) }, (_, i) => from + i);
}

import type { Analysis } from "../../kinds/kind";
import { cellText } from "../../model/response-column";
import type { StudyContext } from "../../model/context";
import type { StudyColumns } from "../../prepare/study-columns";

/** Whom the sheet shows: everybody, those who are in the study, those a filter keeps, or those one leaves out. */
export type Shown =
  { kind: "all" } | { kind: "in-study" } | { kind: "kept" | "left-out"; filter: string } | { kind: "rows"; rows: number[] };

/** The order: that of the file, or by a variable or scale. */
export interface SheetOrder {
  by: string;
  descending: boolean;
}

interface RowListSpec {
  shown: Shown;
  order: SheetOrder | null;
}

/** Rows (from 0) to show, in order. Without an answer a respondent comes last, whichever way round. */
export function rowList(study: StudyContext, columns: StudyColumns, rows: number, shown: Shown, order: SheetOrder | null): Uint32Array {
  const wanted = shownRows(study, columns, rows, shown);
  if (!order) return wanted;
  const { ranks, missing } = ranksOf(order.by, study, columns);
  const turn = order.descending ? -1 : 1;
  return wanted.sort((a, b) => missing[a]! - missing[b]! || turn * (ranks[a]! - ranks[b]!) || a - b);
}

function shownRows(study: StudyContext, columns: StudyColumns, rows: number, shown: Shown): Uint32Array {
  if (shown.kind === "rows") return Uint32Array.from(shown.rows.filter((row) => row <= rows).map((row) => row - 1));
  const all = Uint32Array.from({ length: rows }, (_, row) => row);
  if (shown.kind === "all") return all;
  if (shown.kind === "in-study") {
    const kept = columns.kept(rows);
    return all.filter((row) => kept[row] === 1);
  }
  const filter = study.filters?.find((f) => f.id === shown.filter);
  if (!filter) return all;
  const passes = columns.passes(filter, rows);
  return all.filter((row) => (passes[row] === 1) === (shown.kind === "kept"));
}

/** What rows are ordered by: numbers by size, levels in codebook order, other words by the alphabet. */
function ranksOf(name: string, study: StudyContext, columns: StudyColumns): { ranks: ArrayLike<number>; missing: Uint8Array } {
  const kind = study.codebook.find((v) => v.name === name)?.kind;
  if (kind === undefined || kind === "item" || kind === "number") {
    const { values, missing } = columns.numbers(name);
    return { ranks: values, missing };
  }
  if (kind === "category") {
    const { codes, missing } = columns.categories(name);
    return { ranks: codes, missing };
  }
  const column = columns.column(name);
  const { levels, codes, missing } = columns.categories(name);
  const sorted = [...levels].sort((a, b) => a.localeCompare(b, undefined, { numeric: true }));
  const rankOf = new Map(sorted.map((level, rank) => [level, rank]));
  const ranks = Float64Array.from(codes, (code, row) => (missing[row] ? 0 : rankOf.get(levels[code]!)!));
  return { ranks, missing: missing.map((m, row) => (m || cellText(column, row) === null ? 1 : 0)) };
}

export const analysis: Analysis<RowListSpec, RowListSpec, Uint32Array> = {
  run: ({ shown, order }, { study, columns, rows }) => rowList(study, columns, rows, shown, order),
};

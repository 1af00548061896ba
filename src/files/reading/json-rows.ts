import { formatCount } from "@/study/report/format-number";
import { ImportFaultError } from "./import-fault";
import type { Cell, RowBatch } from "./table-options";

const BATCH = 1000;
/** JSON is read as a whole; beyond this it should be CSV. */
export const MOST_JSON_BYTES = 25_000_000;
/** Each row may bring keys of its own: more than this is no table. */
const MOST_KEYS = 20_000;

type Row = Record<string, unknown> | unknown[];

/**
 * Rows from JSON: a list of objects, a list of lists whose first holds the names, an object with such a list in it, or one
 * object a line. Every key that any object has is a column, in order of first appearance. @throws ImportFaultError
 */
export function* jsonRows(text: string): Generator<RowBatch> {
  const list = rowsIn(parseJson(text));
  if (list.length === 0) throw new ImportFaultError("no-rows", "The file holds no rows of answers.");
  const lists = list.filter(Array.isArray).length;
  if (lists > 0 && lists < list.length)
    throw new ImportFaultError(
      "mixed-rows",
      "Some rows of the file are objects with names and some are lists without. Write all in one way.",
    );
  if (lists > 0) {
    yield* batches(list as unknown[][], BATCH, (row) => row.map(cellOf));
    return;
  }
  const objects = list as Record<string, unknown>[];
  const names = keysOf(objects);
  yield { first: 1, rows: [names] };
  const size = Math.max(1, Math.min(BATCH, Math.floor(1_000_000 / names.length)));
  const places = new Map(names.map((name, at) => [name, at]));
  const cells = (row: Record<string, unknown>) => {
    const list = new Array<Cell>(names.length).fill(null);
    for (const [name, value] of Object.entries(row)) list[places.get(name)!] = cellOf(value);
    return list;
  };
  yield* batches(objects, size, cells, 2);
}

function keysOf(objects: readonly Record<string, unknown>[]): string[] {
  const names = new Set<string>();
  for (const row of objects) {
    for (const name of Object.keys(row)) names.add(name);
    if (names.size > MOST_KEYS)
      throw new ImportFaultError(
        "too-many-columns",
        `The rows have more than ${formatCount(MOST_KEYS)} different keys: each key is a column. Is one row one respondent?`,
      );
  }
  return [...names];
}

function* batches<T>(rows: readonly T[], size: number, cells: (row: T) => Cell[], first = 1): Generator<RowBatch> {
  for (let at = 0; at < rows.length; at += size) yield { first: at + first, rows: rows.slice(at, at + size).map(cells) };
}

function parseJson(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch (error) {
    if (error instanceof RangeError)
      throw new ImportFaultError(
        "too-deep",
        "The file holds lists within lists, thousands deep. One row a respondent with plain cells is wanted.",
      );
    const lines = text.split(/\r?\n/).filter((line) => line.trim() !== "");
    return lines.map((line, i) => {
      try {
        return JSON.parse(line) as unknown;
      } catch {
        throw new ImportFaultError(
          "not-json",
          `The file is not valid JSON, neither as a whole nor one object a line (line ${i + 1}).`,
          i + 1,
        );
      }
    });
  }
}

/** The list itself, or the one list of rows inside an object. */
function rowsIn(value: unknown): Row[] {
  if (areRows(value)) return value;
  if (value !== null && typeof value === "object" && !Array.isArray(value)) {
    const inside = Object.values(value).filter((list) => areRows(list) && list.length > 0) as Row[][];
    if (inside.length === 1) return inside[0]!;
  }
  throw new ImportFaultError("no-rows", "The file holds no list of rows: one object or list a respondent is wanted.");
}

const areRows = (value: unknown): value is Row[] => Array.isArray(value) && value.every((row) => row !== null && typeof row === "object");

/** Nested values stay as their JSON, so that nothing is lost. */
function cellOf(value: unknown): Cell {
  if (value === null || value === undefined || value === "") return null;
  if (typeof value === "number") return Number.isFinite(value) ? value : String(value);
  if (typeof value === "boolean") return value ? "TRUE" : "FALSE";
  if (typeof value === "string") return value;
  try {
    return JSON.stringify(value);
  } catch {
    throw new ImportFaultError(
      "too-deep",
      "A cell holds lists within lists, thousands deep. One row a respondent with plain cells is wanted.",
    );
  }
}

import { z } from "zod";
import { ImportFaultError } from "./import-fault";
import type { Cell, RowBatch } from "./table-options";

const BATCH = 1000;
/** JSON is read as a whole; beyond this it should be CSV. */
export const MOST_JSON_BYTES = 150_000_000;

const Row = z.record(z.string(), z.unknown());
const Rows = z.array(z.union([Row, z.array(z.unknown())]));

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
    yield* batches(list.map((row) => (row as unknown[]).map(cellOf)));
    return;
  }
  const objects = list as Record<string, unknown>[];
  const names = [...new Set(objects.flatMap(Object.keys))];
  yield* batches([names, ...objects.map((row) => names.map((name) => cellOf(row[name])))]);
}

function* batches(rows: Cell[][]): Generator<RowBatch> {
  for (let at = 0; at < rows.length; at += BATCH) yield { first: at + 1, rows: rows.slice(at, at + BATCH) };
}

function parseJson(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
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
function rowsIn(value: unknown): z.infer<typeof Rows> {
  const direct = Rows.safeParse(value);
  if (direct.success) return direct.data;
  if (value !== null && typeof value === "object" && !Array.isArray(value)) {
    const inside = Object.values(value)
      .map((v) => Rows.safeParse(v))
      .filter((p) => p.success && p.data.length > 0);
    if (inside.length === 1) return inside[0]!.data!;
  }
  throw new ImportFaultError("no-rows", "The file holds no list of rows: one object or list a respondent is wanted.");
}

/** Nested values stay as their JSON, so that nothing is lost. */
function cellOf(value: unknown): Cell {
  if (value === null || value === undefined || value === "") return null;
  if (typeof value === "number") return Number.isFinite(value) ? value : String(value);
  if (typeof value === "boolean") return value ? "TRUE" : "FALSE";
  return typeof value === "string" ? value : JSON.stringify(value);
}

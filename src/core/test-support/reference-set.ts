import { readFileSync } from "node:fs";
import path from "node:path";
import Papa from "papaparse";

/** One block of expected values, worked out by a separate program; `values` is as the JSON file has it. */
export interface ReferenceBlock {
  tolerance: { kind: string; value: number; floor?: number };
  spec?: { steps?: string[][]; filter?: { column: string; equals: string[] } };
  values: any;
}

export interface ReferenceSet {
  spec: { outcome: string; steps: string[][]; filter?: { column: string; equals: string[] } };
  expected: Record<string, ReferenceBlock>;
  /** Cells by column, as text. */
  cells: Map<string, string[]>;
  missing: Map<string, string[]>;
  /** The whole JSON file. */
  json: any;
}

/** Reads a set from the `reference` folder: data with values worked out by a separate program (reference/README.md). */
export function referenceSet(name: string): ReferenceSet {
  const folder = path.join(process.cwd(), "reference");
  const json = JSON.parse(readFileSync(path.join(folder, `${name}.json`), "utf8"));
  const csv = readFileSync(path.join(folder, `${name}.csv`), "utf8");
  const rows = Papa.parse<string[]>(csv, { delimiter: ",", skipEmptyLines: true }).data;
  const cells = new Map(rows[0]!.map((column, i) => [column, rows.slice(1).map((row) => row[i]!)]));
  const missing = new Map<string, string[]>();
  for (const [column, facts] of Object.entries<{ missing: string[] }>(json.data.columns)) missing.set(column, facts.missing);
  return { spec: json.spec, expected: json.expected, cells, missing, json };
}

/** Rows kept by a filter and complete on the columns, as numeric columns. */
export function completeColumns(set: ReferenceSet, columns: readonly string[], filter = set.spec.filter): Map<string, Float64Array> {
  const length = [...set.cells.values()][0]!.length;
  const gone = (column: string, i: number) => {
    const cell = set.cells.get(column)![i]!;
    return cell === "" || (set.missing.get(column) ?? []).includes(cell);
  };
  const rows = Array.from({ length }, (_, i) => i)
    .filter((i) => !filter || filter.equals.includes(set.cells.get(filter.column)![i]!))
    .filter((i) => !columns.some((column) => gone(column, i)));
  return new Map(columns.map((c) => [c, Float64Array.from(rows, (i) => Number(set.cells.get(c)![i]))]));
}

/** |got − expected| / max(|expected|, 1e-6), as the reference sets define a relative error. */
export function relativeError(got: number, expected: number): number {
  return Math.abs(got - expected) / Math.max(Math.abs(expected), 1e-6);
}

/** Number of agreeing significant digits, at most 17. */
export function agreeingDigits(got: number, expected: number): number {
  return got === expected ? 17 : -Math.log10(Math.abs(got - expected) / Math.abs(expected));
}

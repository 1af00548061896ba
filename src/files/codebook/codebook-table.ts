import Papa from "papaparse";
import { guarded, unguarded } from "../spreadsheet-guard";
import { Variable, type VariableKind } from "@/study/model/variable";

// The codebook as a table: a row a variable. The same shape is written as CSV, read from CSV, and pasted from a spreadsheet.

const HEADER = ["name", "label", "question", "short", "kind", "low", "high", "values", "missing", "unit", "note"] as const;
type Field = (typeof HEADER)[number];

/** Other headings that mean the same. */
const SAME: Record<string, Field> = {
  variable: "name",
  item: "name",
  wording: "label",
  description: "label",
  "long label": "label",
  "short label": "short",
  type: "kind",
  minimum: "low",
  min: "low",
  lowest: "low",
  maximum: "high",
  max: "high",
  highest: "high",
  labels: "values",
  "value labels": "values",
  levels: "values",
  "missing codes": "missing",
  "missing values": "missing",
  notes: "note",
};

const KINDS: Record<string, VariableKind> = { "scale item": "item", numeric: "number", categorical: "category", "respondent code": "code" };

/** What a table says of a codebook: the rows as they would become, and what could not be used. */
export interface CodebookReading {
  variables: Variable[];
  /** Names that the codebook does not have. */
  unknown: string[];
  /** What could not be read, in words with its row. */
  faults: string[];
  /** Headings that mean nothing here. */
  ignored: string[];
}

/** The codebook as CSV. */
export function codebookCsv(codebook: readonly Variable[]): string {
  const rows = codebook.map((v) => [
    v.name,
    v.label,
    v.question,
    v.short,
    v.kind,
    v.range?.low ?? "",
    v.range?.high ?? "",
    v.levels.map((l) => (l.label === "" ? l.value : `${l.value}=${l.label}`)).join("; "),
    v.missing.filter((code) => code !== "").join("; "),
    v.unit,
    v.note,
  ]);
  return `\uFEFF${Papa.unparse({ fields: [...HEADER], data: rows.map((row) => row.map((cell) => (typeof cell === "string" ? guarded(cell) : cell))) }, { newline: "\r\n" })}\r\n`;
}

/**
 * Reads a table on a codebook: comma, semicolon or tab between cells. With a heading that has a column of names, columns go by their
 * headings; without one the first column is the name and the second the label. An empty cell leaves what is there.
 */
export function readCodebookTable(text: string, codebook: readonly Variable[]): CodebookReading {
  const parsed = Papa.parse<string[]>(text.replace(/^\uFEFF/, ""), {
    skipEmptyLines: "greedy",
    delimiter: text.includes("\t") ? "\t" : "",
    delimitersToGuess: [",", ";"],
  });
  const rows = parsed.data.map((row) => row.map((cell) => unguarded(cell).trim()));
  const reading: CodebookReading = { variables: [], unknown: [], faults: [], ignored: [] };
  if (rows.length === 0) return { ...reading, faults: ["There is nothing to read."] };
  const known = new Map(codebook.map((v) => [v.name, v]));
  const headings = rows[0]!.map((h) => h.toLowerCase());
  const fields = headings.map((h): Field | null => ((HEADER as readonly string[]).includes(h) ? (h as Field) : (SAME[h] ?? null)));
  // where there is no column of wordings, the question is the wording
  if (!fields.includes("label") && fields.includes("question")) fields[fields.indexOf("question")] = "label";
  // a row of values may hold a word that is a heading elsewhere: most of a heading's words are headings
  const named = rows[0]!.filter((heading) => heading !== "").length;
  const mostly = 2 * fields.filter((field) => field !== null).length >= named;
  const headed = mostly && fields.includes("name") && !known.has(rows[0]![fields.indexOf("name")]!);
  const columns: (Field | null)[] = headed ? fields : ["name", "label", "kind", "low", "high", "values", "missing", "unit", "note"];
  if (headed) reading.ignored = rows[0]!.filter((heading, i) => heading !== "" && fields[i] === null);
  rows.slice(headed ? 1 : 0).forEach((row, i) => {
    const cell = (field: Field) => row[columns.indexOf(field)] ?? "";
    const variable = known.get(cell("name"));
    if (!variable) {
      if (cell("name") !== "") reading.unknown.push(cell("name"));
      return;
    }
    const next = Variable.safeParse(changed(variable, cell));
    if (next.success) reading.variables.push(next.data);
    else reading.faults.push(`Row ${i + (headed ? 2 : 1)} (${variable.name}): ${next.error.issues[0]!.message}`);
  });
  return reading;
}

function changed(variable: Variable, cell: (field: Field) => string): unknown {
  const kind = cell("kind").toLowerCase();
  const [low, high] = [numberOf(cell("low")), numberOf(cell("high"))];
  const list = (text: string) =>
    text
      .split(/;|\|/)
      .map((part) => part.trim())
      .filter((part) => part !== "");
  return {
    ...variable,
    label: cell("label") || variable.label,
    question: cell("question") || variable.question,
    short: cell("short") || variable.short,
    kind: kind === "" ? variable.kind : (KINDS[kind] ?? kind),
    range: low === null && high === null ? variable.range : { low: low ?? variable.range?.low, high: high ?? variable.range?.high },
    levels: cell("values") === "" ? variable.levels : list(cell("values")).map(valueLabel),
    missing: cell("missing") === "" ? variable.missing : list(cell("missing").replace(/,\s*/g, ";")).map((code) => code.replace(/^−/, "-")),
    unit: cell("unit") || variable.unit,
    note: cell("note") || variable.note,
  };
}

function valueLabel(part: string): { value: string; label: string } {
  const at = part.indexOf("=");
  return at < 1 ? { value: part, label: "" } : { value: part.slice(0, at).trim().replace(/^−/, "-"), label: part.slice(at + 1).trim() };
}

function numberOf(text: string): number | null {
  const number = Number(text.replace(/^−/, "-").replace(",", "."));
  return text === "" ? null : number;
}

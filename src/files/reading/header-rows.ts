import { ordersOf } from "@/study/prepare/derive/dates";
import type { Cell } from "./table-options";

/** A row with its number, from 1, as a spreadsheet counts. */
export interface NumberedRow {
  number: number;
  cells: readonly Cell[];
}

/** Which rows stand above the answers, and what they hold. */
export interface HeaderRows {
  /** Row with the names; null: none has them. */
  names: number | null;
  /** Row with the wordings; the row of the names where these are wordings themselves. */
  wordings: number | null;
  /** Rows between header and answers that hold neither, with what they look like. */
  leftOut: { row: number; why: string }[];
  /** Rows above the header with something in them. */
  above: number[];
  why: string;
}

/** Rows of a header, at most. */
const MOST_HEADER = 5;
/** Rows of answers a header row is held against. */
const BODY = 200;
const LONG = 25;
/** No name is so long: one of these says what its row is. */
const SENTENCE = 100;

const textOf = (cell: Cell | undefined) => (cell === null || cell === undefined ? "" : String(cell).trim());
const filled = (cells: readonly Cell[]) => cells.filter((cell) => textOf(cell) !== "").length;
const isNumber = (text: string) => text !== "" && !Number.isNaN(Number(text.replace(",", ".").replace(/\s?%$/, "")));
const isJson = (text: string) => /^[[{].*[\]}]$/s.test(text) && /["':]/.test(text);
const isIdentifier = (text: string) => /^[\p{L}_$@#][\p{L}\d_.:$@#-]{0,39}(\[[\p{L}\d_]+\])?$/u.test(text);
const isWording = (text: string) => (text.length > LONG && /\s/.test(text)) || (/[?…:]$/.test(text) && /\s/.test(text));

/**
 * Finds the rows above the answers by what rows look like: the first one that is filled throughout, and those below it that do not read like the answers
 * under them: words above numbers, words that never come again, notes of a program. Names are short and each its own; wordings are long.
 */
export function findHeaderRows(rows: readonly NumberedRow[]): HeaderRows {
  const top = rows.slice(0, 50);
  const counts = top.map((row) => filled(row.cells)).filter((count) => count > 0);
  const usual = counts.sort((a, b) => a - b)[Math.floor(counts.length / 2)] ?? 0;
  const begin = top.findIndex((row) => filled(row.cells) > 0 && filled(row.cells) >= 0.5 * usual);
  if (begin < 0) return { names: 1, wordings: null, leftOut: [], above: [], why: "nothing else was found" };
  const first = top[begin]!;
  const above = top.slice(0, begin).flatMap((row) => (filled(row.cells) > 0 ? [row.number] : []));
  if (first.cells.map(textOf).filter(Boolean).every(isNumber))
    return {
      names: null,
      wordings: null,
      leftOut: [],
      above,
      why: `row ${first.number}, the first with cells throughout, holds numbers only`,
    };
  const header = [first];
  for (let at = begin + 1; at < Math.min(rows.length - 1, begin + MOST_HEADER); at++) {
    const row = rows[at]!;
    if (filled(row.cells) < 0.4 * usual || !looksLikeHeader(row.cells, rows.slice(at + 1, at + 1 + BODY))) break;
    header.push(row);
  }
  // "row 1 of a wide table where the second is empty" is one row
  return { ...rolesOf(header), above };
}

/** True when a row reads otherwise than the rows below it. */
function looksLikeHeader(cells: readonly Cell[], body: readonly NumberedRow[]): boolean {
  const texts = cells.map(textOf);
  const there = texts.filter(Boolean);
  if (there.length === 0) return false;
  if (there.filter(isJson).length >= 0.5 * there.length) return true;
  let [header, data] = [0, 0];
  texts.forEach((text, at) => {
    if (text === "") return;
    const below = body.map((row) => textOf(row.cells[at])).filter(Boolean);
    if (below.length < 3) return; // too few to tell
    const numbers = below.filter(isNumber).length / below.length;
    if (below.includes(text)) data++;
    else if (numbers >= 0.8) {
      if (isNumber(text)) data++;
      else header++;
    } else if (isNumber(text)) data++;
    else if (ordersOf(below.slice(0, 50)).length > 0) {
      if (ordersOf([text]).length > 0) data++;
      else header++;
    } else if (below.length >= 6 && new Set(below).size <= below.length / 3) header++;
    else if (isWording(text) && below.every((other) => other.length < 0.6 * text.length)) header++;
  });
  return header >= 2 * data && header >= Math.max(2, 0.3 * there.length);
}

function rolesOf(header: readonly NumberedRow[]): Omit<HeaderRows, "above"> {
  const scored = header.map((row) => {
    const texts = row.cells.map(textOf).filter(Boolean);
    const share = (test: (text: string) => boolean) => texts.filter(test).length / Math.max(1, texts.length);
    const own = new Set(texts.map((text) => text.toLocaleLowerCase())).size / Math.max(1, texts.length);
    const length = texts.reduce((sum, text) => sum + text.length, 0) / Math.max(1, texts.length);
    return {
      row: row.number,
      texts: row.cells.map(textOf),
      json: share(isJson) >= 0.5,
      names: share(isIdentifier) * own,
      wordings: share(isWording),
      length,
      longest: Math.max(0, ...texts.filter(isWording).map((text) => text.length)),
      own,
    };
  });
  const plain = scored.filter((one) => !one.json);
  const notes = scored.filter((one) => one.json).map(({ row }) => ({ row, why: "it holds notes of a program" }));
  if (plain.length === 0) return { names: header[0]!.number, wordings: null, leftOut: notes.slice(1), why: "it is the first row" };
  const names = plain.reduce((best, one) => (one.names > best.names + 0.1 ? one : best));
  const others = plain.filter((one) => one !== names);
  const said = others.filter(
    (one) => one.texts.filter((text, at) => text !== "" && text !== names.texts[at]).length >= 0.3 * one.texts.length,
  );
  const wordings = said.length === 0 ? null : said.reduce((best, one) => (one.length > best.length ? one : best));
  const leftOut = others
    .filter((one) => one !== wordings)
    .map(({ row, own }) => ({ row, why: said.some((one) => one.row === row) ? (own < 0.5 ? "it holds the same throughout" : "it holds neither names nor wordings") : "it repeats the names" })); // prettier-ignore
  const why =
    header.length > 1
      ? `rows ${header[0]!.number} to ${header.at(-1)!.number} read otherwise than the rows below them`
      : names.row === 1
        ? "it is the first row, and not all numbers"
        : "it is the first row that is filled throughout";
  // one row of wordings alone: the names are made from them
  const alone = wordings === null && (names.wordings >= 0.3 || names.longest > SENTENCE) ? names.row : null;
  return { names: names.row, wordings: wordings?.row ?? alone, leftOut: [...notes, ...leftOut].sort((a, b) => a.row - b.row), why };
}

const TOTAL =
  /^(grand total|total|totals|sum|summe|gesamt|gesamtsumme|somme|suma|suma total|totaal|totale|razem|toplam|jumlah|mean|means|average|mittelwert|durchschnitt|moyenne|media|promedio|gemiddelde|média|średnia|ortalama|purata|count|anzahl)\s*:?$/i;

/** True for a line of totals or means below a table: its first words say so, and the rest are numbers. */
export function isTotalsRow(cells: readonly Cell[]): boolean {
  const there = cells.map(textOf).filter(Boolean);
  return there.length > 1 && TOTAL.test(there[0]!) && there.slice(1).every((text) => isNumber(text) || TOTAL.test(text));
}

import { CellState, cellText } from "../../model/response-column";
import type { Variable } from "../../model/variable";
import type { StudyColumns } from "../../prepare/study-columns";
import { type Finding, finding } from "./findings";

/** Fewer answers than this say nothing about a respondent's way of answering. */
const LEAST_ANSWERS = 8;
/** A code tells respondents apart when there are at least this many different ones for each respondent. */
const OWN_CODES = 0.8;

function grouped(check: Finding["check"], variable: string | null, groups: number[][]): Finding[] {
  if (groups.length === 0) return [];
  const later = groups.flatMap((group) => group.slice(1)).sort((a, b) => a - b);
  return [{ ...finding(check, variable, later), groups }];
}

/** Codes that stand more than once. */
export function sameCode(variable: Variable, columns: StudyColumns): Finding[] {
  const column = columns.column(variable.name);
  const byValue = new Map<string, number[]>();
  for (let row = 0; row < column.values.length; row++) {
    const value = cellText(column, row);
    if (value === null || variable.missing.includes(value)) continue;
    const group = byValue.get(value);
    if (group) group.push(row + 1);
    else byValue.set(value, [row + 1]);
  }
  // a code that most respondents share is that of a class or a team
  if (byValue.size < OWN_CODES * column.values.length) return [];
  return grouped(
    "same-code",
    variable.name,
    [...byValue.values()].filter((group) => group.length > 1),
  );
}

/** Respondents whose every answer is the same as another's, with answers enough that this is no chance. */
export function sameAnswers(variables: readonly Variable[], columns: StudyColumns, rows: number, known: readonly Finding[]): Finding[] {
  if (variables.length < LEAST_ANSWERS) return [];
  const all = variables.map((v) => columns.column(v.name));
  const byHash = new Map<number, number[]>();
  const answered = new Int32Array(rows);
  const hash = new Uint32Array(rows);
  for (const column of all) {
    for (let row = 0; row < rows; row++) {
      const state = column.states[row]!;
      if (state !== CellState.empty) answered[row]!++;
      hash[row] = Math.imul(hash[row]! ^ Math.imul(bitsOf(column.values[row]!) + state, 0x9e3779b1), 0x85ebca6b) >>> 0;
    }
  }
  for (let row = 0; row < rows; row++) {
    if (answered[row]! < LEAST_ANSWERS) continue;
    const group = byHash.get(hash[row]!);
    if (group) group.push(row);
    else byHash.set(hash[row]!, [row]);
  }
  const told = new Set(known.flatMap((f) => f.rows));
  const groups: number[][] = [];
  for (const candidates of byHash.values()) {
    if (candidates.length < 2) continue;
    const exact = new Map<string, number[]>();
    for (const row of candidates) {
      const key = JSON.stringify(all.map((column) => cellText(column, row)));
      exact.set(key, [...(exact.get(key) ?? []), row + 1]);
    }
    for (const group of exact.values()) if (group.length > 1 && !group.slice(1).every((row) => told.has(row))) groups.push(group);
  }
  return grouped("same-answers", null, groups);
}

const float = new Float64Array(1);
const bits = new Uint32Array(float.buffer);
function bitsOf(value: number): number {
  float[0] = value;
  return (bits[0]! ^ Math.imul(bits[1]!, 31)) >>> 0;
}

/** One and the same answer to every item, or to every item of one long run of items that belong together. @param least so many items at least */
export function straightLines(variables: readonly Variable[], columns: StudyColumns, rows: number, least = LEAST_ANSWERS): Finding[] {
  const items = variables.filter((v) => v.kind === "item");
  const blocks = [items, ...families(items)].filter((block) => block.length >= least);
  const found = new Set<number>();
  for (const block of blocks) {
    const all = block.map((v) => columns.variable(v.name));
    for (let row = 0; row < rows; row++) {
      let first = NaN;
      let count = 0;
      let same = true;
      for (const { values, missing } of all) {
        if (missing[row]) continue;
        if (count === 0) first = values[row]!;
        else if (values[row] !== first) {
          same = false;
          break;
        }
        count++;
      }
      if (same && count >= least) found.add(row + 1);
    }
  }
  return found.size === 0
    ? []
    : [
        finding(
          "straight-line",
          null,
          [...found].sort((a, b) => a - b),
        ),
      ];
}

/** Items that share the letters before their numbers. */
function families(items: readonly Variable[]): Variable[][] {
  const byStem = new Map<string, Variable[]>();
  for (const item of items) {
    const stem = /^(.*?\D)[ _.-]?\d{1,3}(?:_?r)?$/i.exec(item.name)?.[1];
    if (stem !== undefined) byStem.set(stem, [...(byStem.get(stem) ?? []), item]);
  }
  return [...byStem.values()];
}

/** Respondents without a single answer. */
export function nothingAnswered(variables: readonly Variable[], columns: StudyColumns, rows: number): Finding[] {
  if (variables.length === 0) return [];
  const items = variables.filter((v) => v.kind === "item");
  // where there are items, it is these that were to be answered: age and class often come from a register
  const asked = (items.length >= 3 ? items : variables).map((v) => columns.answered(v.name).missing);
  const empty: number[] = [];
  for (let row = 0; row < rows; row++) if (asked.every((missing) => missing[row] === 1)) empty.push(row + 1);
  return empty.length === 0 ? [] : [finding("nothing-answered", null, empty)];
}

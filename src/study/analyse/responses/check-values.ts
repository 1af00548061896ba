import { cellsMeant } from "../../model/cell-number";
import { CellState, cellText, markOf, type ResponseColumn } from "../../model/response-column";
import type { Variable } from "../../model/variable";
import { commonOrder, readDay } from "../../prepare/derive/dates";
import type { StudyColumns } from "../../prepare/study-columns";
import { type Finding, finding } from "./findings";

/** Words that stand for a missing answer in many exports. */
const MISSING_WORDS =
  /^(na|n\/a|n\.a\.|nan|null|none|missing|no answer|not answered|refused|don'?t know|dk|k\.? ?a\.?|keine angabe|\.|-|--|\?|#n\/a|#null!|#value!|#div\/0!)$/i;
/** Numbers that stand for one: all nines, eights, sevens or sixes, negative or too large for the scale. */
const MISSING_NUMBER = /^-?(9+|8+|7+|6+|98|97|998|997|9998|9997|99\.?9*)$|^-1$/;
/** A level with fewer respondents than this carries a coefficient badly. */
export const FEW_IN_LEVEL = 5;

const add = (counts: Map<string, number>, value: string) => counts.set(value, (counts.get(value) ?? 0) + 1);

/** What is odd in the answers to one variable. */
export function checkValues(variable: Variable, columns: StudyColumns): Finding[] {
  const column = columns.column(variable.name);
  const numeric = variable.kind === "item" || variable.kind === "number";
  const findings = [...(numeric ? checkNumbers(variable, column) : checkWords(variable, column)), ...checkVariation(variable, columns)];
  if (variable.kind === "category") findings.push(...checkLevels(variable, columns));
  if (variable.kind === "date") findings.push(...checkDates(variable, column));
  return findings;
}

function checkNumbers(variable: Variable, column: ResponseColumn): Finding[] {
  const declared = new Set(variable.missing.flatMap((code) => cellsMeant(code, markOf(column))));
  const counts = new Map<number, number>();
  const words = new Map<string, number>();
  column.states.forEach((state, row) => {
    if (state === CellState.number) counts.set(column.values[row]!, (counts.get(column.values[row]!) ?? 0) + 1);
    else if (state === CellState.text) add(words, column.texts[column.values[row]!]!);
  });
  for (const cell of declared) {
    if (typeof cell === "number") counts.delete(cell);
    else words.delete(cell);
  }
  const suspects = new Set(missingLike([...counts.keys()], variable));
  const rowsOf = (test: (text: string, value: number | null) => boolean) => {
    const rows: number[] = [];
    const found = new Map<string, number>();
    for (let row = 0; row < column.values.length; row++) {
      const state = column.states[row];
      if (state === CellState.empty) continue;
      const value = state === CellState.number ? column.values[row]! : null;
      if (value !== null && !counts.has(value)) continue;
      const text = value === null ? column.texts[column.values[row]!]! : null;
      if (text !== null && declared.has(text)) continue;
      if (!test(text ?? "", value)) continue;
      rows.push(row + 1);
      add(found, text ?? String(value));
    }
    return { rows, found };
  };
  const findings: Finding[] = [];
  const push = (check: Finding["check"], { rows, found }: ReturnType<typeof rowsOf>) => {
    if (rows.length > 0) findings.push(finding(check, variable.name, rows, found));
  };
  const missingWords = [...words.keys()].some((word) => MISSING_WORDS.test(word));
  if (suspects.size > 0 || missingWords)
    push(
      "missing-like",
      rowsOf((text, value) => (value === null ? MISSING_WORDS.test(text) : suspects.has(value))),
    );
  const { range } = variable;
  if (range)
    push(
      "outside-range",
      rowsOf((_, value) => value !== null && !suspects.has(value) && (value < range.low || value > range.high)),
    );
  if (words.size > 0)
    push(
      "words-in-numbers",
      rowsOf((text, value) => value === null && !MISSING_WORDS.test(text)),
    );
  return findings;
}

/**
 * Numbers among the answers that look like codes for a missing one: known codes that lie outside the range or, where none is declared, stand apart from all
 * other answers. An answer whose neighbours occur is an answer.
 */
export function missingLike(values: readonly number[], { range, kind }: Pick<Variable, "range" | "kind">): number[] {
  const codes = values.filter((v) => MISSING_NUMBER.test(String(v)));
  if (codes.length === 0) return [];
  if (range) return codes.filter((v) => v < range.low || v > range.high);
  const sorted = [...values].sort((a, b) => a - b);
  // what is left when codes that stand apart at either end are taken away, the outermost first
  let [first, last] = [0, sorted.length - 1];
  for (let changed = true; changed && last > first;) {
    changed = false;
    const spread = sorted[last - 1]! - sorted[first]!;
    for (let above = 1; above <= Math.min(4, last - first); above++) {
      const [code, below] = [sorted[last - above + 1]!, sorted[last - above]!];
      const gap = kind === "item" ? 1 : Math.max(2, below - sorted[first]!); // of a number as far away as all others lie apart
      if (sorted.slice(last - above + 1, last + 1).every((v) => codes.includes(v)) && code - below > gap) {
        last -= above;
        changed = true;
        break;
      }
    }
    const low = sorted[first]!;
    if (!changed && last > first && codes.includes(low) && low < 0 && sorted[first + 1]! - low > Math.max(1, 0.1 * spread)) {
      first++;
      changed = true;
    }
  }
  const rest = new Set(sorted.slice(first, last + 1));
  return codes.filter((v) => !rest.has(v));
}

function checkWords(variable: Variable, column: ResponseColumn): Finding[] {
  if (variable.kind === "code") return [];
  const declared = new Set(variable.missing);
  const levels = new Set(variable.levels.map((level) => level.value));
  const suspect = column.texts.map(
    (text) =>
      MISSING_WORDS.test(text) && !declared.has(text) && !(variable.kind === "category" && levels.has(text) && !/^[-.?#]/.test(text)),
  );
  if (!suspect.includes(true)) return [];
  const rows: number[] = [];
  const found = new Map<string, number>();
  column.states.forEach((state, row) => {
    if (state !== CellState.text || !suspect[column.values[row]!]) return;
    rows.push(row + 1);
    add(found, column.texts[column.values[row]!]!);
  });
  return rows.length === 0 ? [] : [finding("missing-like", variable.name, rows, found)];
}

function checkVariation(variable: Variable, columns: StudyColumns): Finding[] {
  if (variable.kind === "text") return [];
  const { codes, missing, levels } = columns.categories(variable.name);
  let seen = -1;
  for (let row = 0; row < codes.length; row++) {
    if (missing[row]) continue;
    if (seen >= 0 && codes[row] !== seen) return [];
    seen = codes[row]!;
  }
  const there = missing.reduce((n, m) => n + (m ? 0 : 1), 0);
  return [
    { ...finding("no-variation", variable.name, []), count: there, values: seen < 0 ? [] : [{ value: levels[seen]!, count: there }] },
  ];
}

function checkLevels(variable: Variable, columns: StudyColumns): Finding[] {
  const { codes, missing, levels } = columns.categories(variable.name);
  const rowsOf = levels.map((): number[] => []);
  codes.forEach((code, row) => missing[row] || rowsOf[code]!.push(row + 1));
  const declared = new Set(variable.levels.map((level) => level.value));
  const named = (which: number[]) => new Map(which.map((i) => [levels[i]!, rowsOf[i]!.length]));
  const all = levels.map((_, i) => i);
  const undeclared = declared.size === 0 ? [] : all.filter((i) => !declared.has(levels[i]!) && rowsOf[i]!.length > 0);
  const unused = all.filter((i) => declared.has(levels[i]!) && rowsOf[i]!.length === 0);
  const small = all.filter(
    (i) => rowsOf[i]!.length > 0 && rowsOf[i]!.length < FEW_IN_LEVEL && !undeclared.includes(i) && !MISSING_WORDS.test(levels[i]!),
  );
  const of = (check: Finding["check"], which: number[]) =>
    which.length === 0
      ? []
      : [
          finding(
            check,
            variable.name,
            which.flatMap((i) => rowsOf[i]!).sort((a, b) => a - b),
            named(which),
          ),
        ];
  return [...of("undeclared-levels", undeclared), ...of("unused-levels", unused), ...of("small-levels", small)];
}

/** Dates that the order most of them are written in does not read. */
function checkDates(variable: Variable, column: ResponseColumn): Finding[] {
  const best = commonOrder(column.texts);
  const reads = column.texts.map((text) => best !== null && readDay(text, best) !== null);
  const rows: number[] = [];
  const found = new Map<string, number>();
  for (let row = 0; row < column.values.length; row++) {
    const text = cellText(column, row);
    if (text === null || variable.missing.includes(text)) continue;
    if (column.states[row] === CellState.text && reads[column.values[row]!]) continue;
    rows.push(row + 1);
    add(found, text);
  }
  return rows.length === 0 ? [] : [finding("unreadable-dates", variable.name, rows, found)];
}

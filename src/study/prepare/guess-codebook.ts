import { Variable, type VariableKind } from "../model/variable";
import { ordersOf } from "./derive/dates";

/** A level of a category is a word or a sentence. */
const LONGEST_LEVEL = 300;

/** What is known of an imported column when its kind is guessed. */
export interface ColumnFacts {
  name: string;
  numbers: number;
  words: number;
  wholeNumbers: boolean;
  /** Distinct numbers; null: more than 50. */
  distinctNumbers: number | null;
  /** Distinct texts. */
  texts: readonly string[];
}

/**
 * A first codebook for imported columns. Kinds are guesses a person can change; declared ranges and missing codes are
 * never guessed, because scores and samples depend on them.
 */
export function guessCodebook(columns: readonly ColumnFacts[]): Variable[] {
  const families = new Map<string, number>();
  for (const column of columns) {
    const family = familyOf(column);
    if (family !== null) families.set(family, (families.get(family) ?? 0) + 1);
  }
  return columns.map((column) => {
    const kind = guessKind(column, families);
    const levels = kind === "category" ? column.texts.map((value) => ({ value, label: "" })) : [];
    return Variable.parse({ name: column.name, kind, levels });
  });
}

function guessKind(column: ColumnFacts, families: ReadonlyMap<string, number>): VariableKind {
  const rows = column.numbers + column.words;
  const allDifferent = rows > 2 && (column.words > 0 ? column.texts.length >= column.words * 0.95 : column.distinctNumbers === null);
  if (/^(id|code|case|respondent|participant|learner|student|pupil|vp)(_?(id|code|no|nr|number))?$/i.test(column.name) && allDifferent)
    return "code";
  if (column.numbers >= column.words * 4 && column.numbers > 0) {
    const family = familyOf(column);
    return family !== null && families.get(family)! >= 2 ? "item" : "number";
  }
  if (rows === 0) return "text";
  if (column.texts.length > 1 && column.numbers === 0 && ordersOf(column.texts.slice(0, 200)).length > 0) return "date";
  if (column.texts.length > 2 && column.texts.length === column.words && column.numbers === 0) return "code";
  if (column.texts.some((text) => text.length > LONGEST_LEVEL)) return "text"; // a vignette, an open answer
  return column.texts.length <= 50 && column.texts.length * 2 <= Math.max(column.words, 4) ? "category" : "text";
}

/** `SC` for SC1, SC_2, SC 03 when its numbers look like answers: few whole numbers close together, faults allowed for. */
function familyOf(column: ColumnFacts): string | null {
  const match = /^(.*?\D)[ _.-]?\d{1,3}(?:_?r)?$/i.exec(column.name);
  if (!match || column.numbers === 0 || !column.wholeNumbers) return null;
  return column.distinctNumbers !== null && column.distinctNumbers <= 15 ? match[1]! : null;
}

import { answerKey } from "../model/reading";
import { Variable, type VariableKind } from "../model/variable";
import { knownOrder } from "./answers/answer-sets";
import { choicesIn, type Separator, SEPARATORS } from "./answers/choices";
import { nameStem } from "./answers/column-answers";
import { readAmount } from "./answers/read-amount";
import { ordersOf } from "./derive/dates";
import { partWordings, type Wording } from "./wordings";

/** A level of a category is a word or a sentence. */
const LONGEST_LEVEL = 300;
/** Different answers of this length on average are written by respondents, not chosen. */
const WRITTEN_LENGTH = 60;

/** What is known of an imported column when its kind is guessed. */
export interface ColumnFacts {
  name: string;
  /** As a row of the file has it; "" for none. */
  wording?: string;
  numbers: number;
  words: number;
  empties?: number;
  wholeNumbers: boolean;
  /** Whole numbers of which none comes twice. */
  running?: boolean;
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
  const wordings = partWordings(columns.map((column) => column.wording ?? ""));
  const families = new Map<string, number>();
  columns.forEach((column, at) => {
    const family = familyOf(column, wordings[at]!);
    if (family !== null) families.set(family, (families.get(family) ?? 0) + 1);
  });
  return columns.map((column, at) => {
    const kind = guessKind(column, families, wordings[at]!);
    const texts = kind === "category" ? (knownOrder(column.texts) ?? inOrder(column.texts)) : [];
    const { question, label } = wordings[at]!;
    const said = answerKey(label) === answerKey(column.name) ? "" : label;
    return Variable.parse({ name: column.name, question, label: said, kind, levels: texts.map((value) => ({ value, label: "" })) });
  });
}

/** Levels whose words have no order of their own: by letters, numbers in them by size, so that the first respondents decide nothing. */
function inOrder(texts: readonly string[]): string[] {
  return [...texts].sort((a, b) => a.localeCompare(b, "en", { numeric: true, sensitivity: "base" }) || (a < b ? -1 : 1));
}

function guessKind(column: ColumnFacts, families: ReadonlyMap<string, number>, wording: Wording): VariableKind {
  const rows = column.numbers + column.words;
  const allDifferent = rows > 2 && (column.words > 0 ? column.texts.length >= column.words * 0.95 : column.distinctNumbers === null);
  if (/^(id|code|case|respondent|participant|learner|student|pupil|vp)(_?(id|code|no|nr|number))?$/i.test(column.name) && allDifferent)
    return "code";
  if (column.numbers >= column.words * 4 && column.numbers > 0) {
    const family = familyOf(column, wording);
    if (family !== null && families.get(family)! >= 2) return "item";
    return column.running && column.words === 0 && !(column.empties! > 0.1 * rows) ? "code" : "number";
  }
  if (rows === 0) return "text";
  if (column.texts.length > 1 && column.numbers === 0 && ordersOf(column.texts.slice(0, 200)).length > 0) return "date";
  if (mostAreAmounts(column)) return "text"; // until they are read
  if (column.texts.length > 2 && column.texts.length === column.words && column.numbers === 0) return isWritten(column) ? "text" : "code";
  if (column.texts.some((text) => text.length > LONGEST_LEVEL) || isWritten(column)) return "text"; // a vignette, an open answer
  if (column.texts.length === 1 && column.numbers === 0 && (column.empties ?? 0) > 0) return "text"; // one remark is no group
  if (separatorOf(column.texts) !== null) return "text"; // until its answers are parted
  return column.texts.length <= 50 && column.texts.length * 2 <= Math.max(column.words, 4) ? "category" : "text";
}

/** Sentences that respondents wrote: long, and hardly one of them twice. */
function isWritten({ texts, words }: ColumnFacts): boolean {
  const long = texts.reduce((sum, text) => sum + text.length, 0) / texts.length;
  const blanks = texts.filter((text) => /\s\S+\s/.test(text)).length / texts.length;
  return texts.length >= 0.7 * words && texts.length > 2 && (long > WRITTEN_LENGTH || blanks > 0.6);
}

/** Most texts are numbers with words around them. */
function mostAreAmounts({ texts }: ColumnFacts): boolean {
  if (texts.length < 3) return false;
  const sample = texts.slice(0, 200);
  const read = sample.filter((text) => /\d/.test(text) && (readAmount(text, ".") ?? readAmount(text, ",")));
  return read.length >= 0.7 * sample.length && sample.filter((text) => /^\s*\d+\s*-\s*\d+\s*$/.test(text)).length < 0.5 * sample.length;
}

/** The mark that parts several answers in a cell; null where cells hold one answer each: parts come again and again, whole cells do not. */
export function separatorOf(texts: readonly string[]): Separator | null {
  const sample = texts.slice(0, 300);
  for (const separator of SEPARATORS) {
    const several = sample.filter((text) => choicesIn(text, separator).length > 1);
    if (several.length < 2 || several.length < 0.25 * sample.length) continue;
    const parts = sample.map((text) => choicesIn(text, separator));
    const counts = new Map<string, number>();
    for (const cell of parts) for (const part of cell) counts.set(part, (counts.get(part) ?? 0) + 1);
    const again = [...counts.values()].filter((count) => count > 1).length;
    const longest = Math.max(...[...counts.keys()].map((part) => part.length));
    // answers that stand alone or beside others: few, short, and used again in other company
    if (counts.size <= 30 && counts.size < sample.length + 2 && again >= 0.6 * counts.size && longest <= 80 && again >= 2) {
      const alone = new Set(sample.filter((text) => choicesIn(text, separator).length === 1).map((text) => text.trim()));
      const met = [...alone].filter((text) => several.some((cell) => choicesIn(cell, separator).includes(text)));
      if (met.length >= 1 || several.length >= 4) return separator;
    }
  }
  return null;
}

/** `SC` for SC1, SC_2, SC 03, or the question that is shared, when its numbers look like answers: few whole numbers close together, faults allowed for. */
function familyOf(column: ColumnFacts, { question }: Wording): string | null {
  const stem = question === "" ? nameStem(column.name) : `question ${question}`;
  if (stem === null || column.numbers === 0 || !column.wholeNumbers) return null;
  return column.distinctNumbers !== null && column.distinctNumbers <= 15 ? stem : null;
}

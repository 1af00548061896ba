import { answerKey } from "../../model/reading";
import { ANSWER_LADDERS, type AnswerDimension, type AnswerLadder, APART } from "./answer-scales";
import type { ColumnAnswers } from "./column-answers";
import { readAmount } from "./read-amount";

/** An answer of a set, with how often it was given; of one that nobody gave, 0. */
export interface SetAnswer {
  written: string;
  count: number;
  /** The number it would get; null: not known, and to be placed by hand. */
  value: number | null;
}

/** Questions that were answered in the same words. */
export interface AnswerSet {
  variables: string[];
  about: AnswerDimension | null;
  language: string | null;
  /** How the order was found: the words are known, they hold their numbers, or not at all. */
  by: "words" | "numbers" | "nothing";
  /** From least to most; those without a place at the end. */
  answers: SetAnswer[];
  /** Answers that say that there is none. */
  apart: { written: string; count: number; spellings: string[] }[];
  /** An answer above the highest one given that may have been possible; null: none is known. */
  perhaps: string | null;
  /** Numbers that stand beside the words. */
  numbers: number[];
  /** Everything has a place, and nothing had to be added that nobody chose. */
  sure: boolean;
}

/** More different answers than this are no scale. */
const MOST_ANSWERS = 12;
const LONGEST_ANSWER = 90;
/** Of unknown words: so many questions at least share them, and this share of each one's answers is common to all. */
const LEAST_SHARING = 3;

interface Counted {
  written: string;
  count: number;
  /** As it stands in cells. */
  spellings: string[];
}
type Counts = Map<string, Counted>;

/** Sets of answers in words, by the columns that share them; what is no scale is left out. */
export function answerSets(columns: readonly ColumnAnswers[]): AnswerSet[] {
  const candidates = columns.flatMap((column) => {
    const counts = countsOf(column);
    const words = [...counts.keys()].filter((key) => !isApart(key, counts));
    const short = [...counts.values()].every(({ written }) => written.length <= LONGEST_ANSWER);
    if (words.length === 0 || counts.size > MOST_ANSWERS + 3 || words.length > MOST_ANSWERS || !short) return [];
    return [{ column, counts, words, family: column.family ?? column.name }];
  });
  const families = new Map<string, typeof candidates>();
  for (const one of candidates) families.set(one.family, [...(families.get(one.family) ?? []), one]);
  const found: (AnswerSet & { key: string })[] = [];
  for (const family of families.values()) {
    for (const part of partsOf(family)) {
      const counts = joined(part.map(({ counts }) => counts));
      const set = setOf(
        counts,
        part.map(({ column }) => column),
      );
      if (set) found.push(set);
    }
  }
  // families that were answered in the same words are one set
  const merged = new Map<string, AnswerSet>();
  for (const { key, ...set } of found) {
    const known = merged.get(key);
    merged.set(key, known ? together(known, set) : set);
  }
  return [...merged.values()].filter((set) => set.by !== "nothing" || set.variables.length >= LEAST_SHARING);
}

function countsOf({ texts }: ColumnAnswers): Counts {
  const counts: Counts = new Map();
  for (const { written, count } of texts) {
    const key = answerKey(written);
    const known = counts.get(key);
    // of several spellings the most frequent one is shown
    if (!known) counts.set(key, { written: tidy(written), count, spellings: [written] });
    else {
      const shown = count > known.count ? tidy(written) : known.written;
      counts.set(key, { written: shown, count: known.count + count, spellings: [...known.spellings, written] });
    }
  }
  return counts;
}

const tidy = (written: string) => written.replace(/\s+/g, " ").trim();

/** "NA" or "nie" say that there is no answer only where nothing else makes an answer of them. */
function isApart(key: string, counts: Counts): boolean {
  return APART.has(key) && !(key === "no opinion" && counts.has("agree"));
}

/** Columns of a family whose answers belong together: a name alone makes no family. */
function partsOf<T extends { counts: Counts; words: string[] }>(family: readonly T[]): T[][] {
  const parts: { members: T[]; keys: Set<string> }[] = [];
  for (const one of [...family].sort((a, b) => b.words.length - a.words.length)) {
    const part = parts.find(({ keys }) => one.words.filter((key) => keys.has(key)).length >= 0.5 * one.words.length);
    if (part) {
      part.members.push(one);
      for (const key of one.words) part.keys.add(key);
    } else parts.push({ members: [one], keys: new Set(one.words) });
  }
  const place = new Map(family.map((one, at) => [one, at]));
  return parts.map(({ members }) => [...members].sort((a, b) => place.get(a)! - place.get(b)!));
}

function joined(all: readonly Counts[]): Counts {
  const counts: Counts = new Map();
  for (const own of all)
    for (const [key, one] of own) {
      const known = counts.get(key);
      if (!known) counts.set(key, one);
      else
        counts.set(key, {
          written: known.count >= one.count ? known.written : one.written,
          count: known.count + one.count,
          spellings: [...new Set([...known.spellings, ...one.spellings])],
        });
    }
  return counts;
}

function together(a: AnswerSet, b: AnswerSet): AnswerSet {
  const counts = new Map(b.answers.map((one) => [answerKey(one.written), one.count]));
  const apart = joined([a.apart, b.apart].map((all) => new Map(all.map((one) => [answerKey(one.written), one]))));
  return {
    ...a,
    variables: [...a.variables, ...b.variables],
    answers: a.answers.map((one) => ({ ...one, count: one.count + (counts.get(answerKey(one.written)) ?? 0) })),
    apart: [...apart.values()],
    numbers: [...new Set([...a.numbers, ...b.numbers])],
  };
}

function setOf(counts: Counts, columns: readonly ColumnAnswers[]): (AnswerSet & { key: string }) | null {
  const apart = [...counts].filter(([key]) => isApart(key, counts)).map(([, one]) => one);
  const words = new Map([...counts].filter(([key]) => !isApart(key, counts)));
  if (words.size > MOST_ANSWERS) return null;
  const numbers = new Set(columns.flatMap((column) => column.numbers?.map(({ value }) => value) ?? []));
  const variables = columns.map(({ name }) => name);
  const numbered = byNumbers(words, numbers);
  if (numbered) {
    const key = JSON.stringify(numbered.map(({ written, value }) => [answerKey(written), value]));
    return {
      variables,
      about: null,
      language: null,
      by: "numbers",
      answers: numbered,
      apart,
      numbers: [...numbers],
      perhaps: null,
      sure: true,
      key,
    };
  }
  // where a question was answered in numbers as well, words alone give them no place
  if (columns.some((column) => column.numbers === null || column.numbers.length > 0)) return null;
  if (words.size < 2) return null;
  const known = byWords(words);
  if (known) {
    const { ladder, answers, sure, perhaps } = known;
    // one question with two answers is a category of two as it stands
    if (columns.length < (ladder.about === "yes or no" ? LEAST_SHARING : 2) && words.size < 3) return null;
    const key = JSON.stringify([ladder.about, ladder.language, answers.map((one) => [answerKey(one.written), one.value])]);
    return { variables, about: ladder.about, language: ladder.language, by: "words", answers, apart, numbers: [], perhaps, sure, key };
  }
  if (columns.length < 2) return null;
  const answers = [...words.values()].sort((a, b) => b.count - a.count).map(({ written, count }) => ({ written, count, value: null }));
  const key = JSON.stringify(answers.map(({ written }) => answerKey(written)).sort());
  return { variables, about: null, language: null, by: "nothing", answers, apart, numbers: [], perhaps: null, sure: false, key };
}

const NUMBERED = [/^(\d{1,3})\s*[-=:.)]\s*(\D.*)$/u, /^(\d{1,3})\s*[([](.*\D.*)[)\]]$/u, /^(\d{1,3})\s+(\p{L}.*)$/u, /^(.*\p{L}.*?)\s*[-=:]\s*(\d{1,3})$/u, /^(.*\p{L}.*?)\s*[([]\s*(\d{1,3})\s*[)\]]$/u]; // prettier-ignore

/** "1 - Never", "5 (always)", "Never (1)": the number stands beside the words. Null: not in all of them, or the same number twice. */
function byNumbers(words: Counts, plain: ReadonlySet<number>): SetAnswer[] | null {
  const answers: SetAnswer[] = [];
  for (const [key, { written, count }] of words) {
    const match = NUMBERED.flatMap((pattern) => pattern.exec(key) ?? [])[0] === undefined ? null : numberIn(key);
    if (match === null) return null;
    answers.push({ written, count, value: match });
  }
  const values = answers.map(({ value }) => value!);
  if (answers.length === 0 || new Set(values).size < values.length) return null;
  const all = [...values, ...plain];
  if ([...words.keys()].every((key) => readAmount(key, ".") !== null)) return null; // "10 min", "20 min"
  // one answer with a number is a title, not a scale
  if (new Set(all).size < 3 || all.some((value) => !Number.isInteger(value))) return null;
  const spread = Math.max(...all) - Math.min(...all);
  if (spread > 100 || (spread > 10 && answers.length > 3)) return null;
  return answers.sort((a, b) => a.value! - b.value!);
}

function numberIn(key: string): number | null {
  for (const [i, pattern] of NUMBERED.entries()) {
    const match = pattern.exec(key);
    if (match) return Number(match[i < 3 ? 1 : 2]);
  }
  return null;
}

const RUNGS = ANSWER_LADDERS.map((ladder) => ({
  ladder,
  at: new Map(ladder.rungs.flatMap((words, rung) => words.map((word) => [answerKey(word), rung] as const))),
}));

/** The ladder that has most of the words, and the numbers their places give. Null: no ladder has at least two of them and two thirds. */
function byWords(words: Counts): { ladder: AnswerLadder; answers: SetAnswer[]; sure: boolean; perhaps: string | null } | null {
  const fits = RUNGS.map(({ ladder, at }) => {
    const placed = [...words].flatMap(([key, one]) => (at.has(key) ? [{ key, rung: at.get(key)!, ...one }] : []));
    const rungs = new Set(placed.map(({ rung }) => rung));
    // two answers for one rung: this is not the scale that was used
    const clash = rungs.size < placed.length;
    return { ladder, placed, rungs, clash };
  }).filter((fit) => !fit.clash && fit.placed.length >= 2 && fit.placed.length >= (2 / 3) * words.size);
  const most = Math.max(0, ...fits.map((fit) => fit.placed.length));
  const best = fits.filter((fit) => fit.placed.length === most).map((fit) => ({ ...fit, whole: completed(fit.ladder, fit.rungs) }));
  // of several that have them all, the one in which least is left that nobody chose
  const fit = best.sort((a, b) => a.whole.length - b.whole.length)[0];
  if (!fit) return null;
  const rivals = best.filter((other) => other.ladder.language !== fit.ladder.language || other.ladder.about !== fit.ladder.about);
  const differs = rivals.some((other) => order(other.placed) !== order(fit.placed));
  const first = fit.ladder.about === "yes or no" ? 0 : 1;
  const answers: SetAnswer[] = fit.whole.map((rung, i) => {
    const own = fit.placed.find((one) => one.rung === rung);
    return { written: own?.written ?? capital(fit.ladder.rungs[rung]![0]!), count: own?.count ?? 0, value: i + first };
  });
  const without = [...words]
    .filter(([key]) => !fit.placed.some((one) => one.key === key))
    .map(([, { written, count }]) => ({ written, count, value: null }));
  const top = fit.whole.at(-1)!;
  const open = fit.ladder.ends !== null && !fit.ladder.ends.surely.includes(top);
  const next = open ? fit.ladder.ends!.surely.find((rung) => rung > top) : undefined;
  return {
    ladder: fit.ladder,
    answers: [...answers, ...without],
    perhaps: next === undefined ? null : capital(fit.ladder.rungs[fit.ladder.ends!.surely.at(-1)!]![0]!),
    sure: !open && !differs && without.length === 0 && answers.every(({ count }) => count > 0),
  };
}

const order = (placed: readonly { key: string; rung: number }[]) =>
  [...placed]
    .sort((a, b) => a.rung - b.rung)
    .map(({ key }) => key)
    .join("|");
const capital = (word: string) => word.charAt(0).toLocaleUpperCase() + word.slice(1);

/** The rungs of the whole scale that some of its rungs belong to, ascending. */
function completed({ rungs, ends }: AnswerLadder, chosen: ReadonlySet<number>): number[] {
  const whole = new Set(chosen);
  if (ends === null) for (const rung of chosen) whole.add(rungs.length - 1 - rung);
  else {
    const [low, high] = [Math.min(...chosen), Math.max(...chosen)];
    if (!ends.low.includes(low)) whole.add(ends.low[0]!);
    if (!ends.high.includes(high)) whole.add(ends.high.find((end) => end > high) ?? ends.high.at(-1)!);
  }
  return [...whole].sort((a, b) => a - b);
}

/** Levels of a category from least to most where their words are of a scale that is known; null where they are not. */
export function knownOrder(written: readonly string[]): string[] | null {
  const counts: Counts = new Map(written.map((one) => [answerKey(one), { written: one, count: 1, spellings: [one] }]));
  const words = new Map([...counts].filter(([key]) => !APART.has(key)));
  const numbered = words.size > 1 ? byNumbers(words, new Set()) : null;
  const found = numbered ?? byWords(words)?.answers;
  if (!found || found.some(({ value }) => value === null)) return null;
  const placed = found.filter(({ count }) => count > 0).map((one) => one.written);
  return [...placed, ...written.filter((one) => !placed.includes(one))];
}

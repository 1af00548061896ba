import type { OpenPoint } from "../analyse/responses/open-points";
import type { Edit } from "../model/edit";
import { newId } from "../model/new-id";
import { answerKey, type Reading } from "../model/reading";
import type { Study } from "../model/study";
import { Variable } from "../model/variable";
import type { AnswerSet } from "../prepare/answers/answer-sets";
import type { AnswerDimension } from "../prepare/answers/answer-scales";
import { nameStem } from "../prepare/answers/column-answers";
import { counted, formatPlain, listed } from "./format-number";

/** What the answers of a set say, as a name. */
export const DIMENSION_WORDS: Record<AnswerDimension, string> = {
  agreement: "Agreement",
  truth: "How true",
  frequency: "Frequency",
  likelihood: "Likelihood",
  satisfaction: "Satisfaction",
  amount: "Amount",
  quality: "Quality",
  importance: "Importance",
  difficulty: "Difficulty",
  "yes or no": "Yes or no",
};

/** An answer as it is about to be read. */
export interface PlacedAnswer {
  written: string;
  /** Null: not known how often. */
  count: number | null;
  /** Its number; null: not read. */
  value: number | null;
  /** True: it says that there is no answer. */
  apart: boolean;
  /** As it stands in cells. */
  spellings: string[];
}

/** How answers are to be read, before it is a step of the study. */
export interface DraftReading {
  /** Of the study, where it is one already. */
  id: string | null;
  name: string;
  variables: string[];
  answers: PlacedAnswer[];
  /** Lowest and highest number that stands in the columns beside the words. */
  numbers: readonly number[];
}

/** The reading that is proposed for a set. */
export function draftOf(set: AnswerSet): DraftReading {
  const apart = set.apart.map(({ written, count, spellings }) => ({ written, count, value: null, apart: true, spellings }));
  return {
    id: null,
    name: set.about ? DIMENSION_WORDS[set.about] : runWords(set.variables),
    variables: set.variables,
    answers: [...set.answers.map((one) => ({ ...one, apart: false, spellings: [one.written] })), ...apart],
    numbers: set.numbers,
  };
}

/** A reading of the study, with answers it does not mention, to be changed. */
export function draftOfReading(
  reading: Reading,
  codebook: readonly Variable[],
  unread: readonly { written: string; count: number }[],
): DraftReading {
  const rule = reading.rule.kind === "words" ? reading.rule.values : [];
  const codes = new Set(
    codebook.filter((v) => reading.variables.includes(v.name)).flatMap((v) => v.missing.filter((code) => /\p{L}/u.test(code))),
  );
  return {
    id: reading.id,
    name: reading.name,
    variables: reading.variables,
    answers: [
      ...[...rule].sort((a, b) => a.value - b.value).map((one) => ({ ...one, count: null, apart: false, spellings: [one.written] })),
      ...unread.map((one) => ({ ...one, value: null, apart: false, spellings: [one.written] })),
      ...[...codes].map((written) => ({ written, count: null, value: null, apart: true, spellings: [written] })),
    ],
    numbers: [],
  };
}

/** Why a reading cannot be kept yet; null: it can. */
export function draftFault({ name, answers }: DraftReading): string | null {
  if (name.trim() === "") return "The reading has no name.";
  const read = answers.filter((one) => !one.apart && one.value !== null);
  const without = answers.filter((one) => !one.apart && one.value === null);
  if (without.length > 0) return `${listed(without.slice(0, 4).map((one) => `“${one.written}”`))} ${without.length === 1 ? "has" : "have"} no number yet: give one, or set apart.`; // prettier-ignore
  if (new Set(read.map((one) => one.value)).size < 2) return "At least two answers need different numbers.";
  return null;
}

/** The edits that make all its questions scale items: one reading, and a range, value labels and missing codes for each. */
export function readingEdits(draft: DraftReading, study: Study): Edit[] {
  const read = draft.answers.flatMap((one) => (one.apart || one.value === null ? [] : [{ written: one.written, value: one.value }]));
  const id = draft.id ?? newId(draft.name, study.readings.map((r) => r.id)); // prettier-ignore
  const values = [...read.map((one) => one.value), ...draft.numbers];
  const range = { low: Math.min(...values), high: Math.max(...values) };
  const spelled = draft.answers.filter((one) => one.apart).flatMap((one) => one.spellings);
  const known = study.readings.find((r) => r.id === id);
  const reading: Reading = { id, name: draft.name.trim(), variables: draft.variables, rule: { kind: "words", values: read } };
  const before = new Set(known?.rule.kind === "words" ? known.rule.values.map((one) => String(one.value)) : []);
  const levels = [...new Map([...read].sort((a, b) => a.value - b.value).map(({ written, value }) => [String(value), bare(written)]))];
  return [
    ...draft.variables.flatMap((name): Edit[] => {
      const variable = study.codebook.find((v) => v.name === name);
      if (!variable) return [];
      // words that stood as levels are labels now; what else was labelled stays
      const others =
        variable.kind === "category"
          ? []
          : variable.levels.filter((l) => !before.has(l.value) && !levels.some(([value]) => value === l.value));
      const to = Variable.parse({
        ...variable,
        kind: "item",
        range,
        missing: [...new Set([...variable.missing, ...spelled])],
        levels: [...levels.map(([value, label]) => ({ value, label })), ...others],
      });
      return [{ subject: "variable", id: name, to }];
    }),
    { subject: "reading", id, to: reading },
  ];
}

/** "1 - Never" is "Never" where its number stands beside it. */
function bare(written: string): string {
  return (
    written
      .replace(/^\d{1,3}\s*[-=:.)]\s*(?=\D)|\s*[([]\s*\d{1,3}\s*[)\]]$|^\d{1,3}\s+(?=\p{L})/u, "")
      .replace(/^\d{1,3}\s*[([](.*)[)\]]$/u, "$1") || written
  );
}

/** A reading is taken back: its questions are categories in words again. */
export function takeReadingBack(reading: Reading, study: Study): Edit[] {
  const written = reading.rule.kind === "words" ? [...reading.rule.values].sort((a, b) => a.value - b.value).map((one) => one.written) : [];
  return [
    { subject: "reading", id: reading.id, to: null },
    ...study.codebook
      .filter((v) => reading.variables.includes(v.name))
      .map((v): Edit => {
        const kind = reading.rule.kind === "words" ? "category" : "text";
        return { subject: "variable", id: v.name, to: { ...v, kind, range: null, levels: written.map((value) => ({ value, label: "" })) } };
      }),
  ];
}

/** `q3_1 to q3_6`, or names one by one. */
export function runWords(names: readonly string[]): string {
  if (names.length <= 2) return listed(names);
  const stems = new Set(names.map((name) => nameStem(name)));
  return stems.size === 1 && !stems.has(null) ? `${names[0]} to ${names.at(-1)}` : names.length <= 4 ? listed(names) : `${names.slice(0, 3).join(", ")} and ${names.length - 3} more`; // prettier-ignore
}

/** What is open, in a sentence. */
export function openWords(point: OpenPoint, study: Study): string {
  switch (point.kind) {
    case "answers": {
      const { variables, answers, apart, by, about, perhaps } = point.set;
      const who =
        variables.length === 1 ? `${variables[0]} is answered` : `${variables.length} questions (${runWords(variables)}) are answered`;
      const words = by === "nothing" ? "the same words, whose order is not known" : about ? `words of ${DIMENSION_WORDS[about].toLowerCase()}` : "words with their numbers"; // prettier-ignore
      const order = answers
        .map((one) => (one.value === null ? `“${one.written}” ?` : `${one.written} ${formatPlain(one.value)}`))
        .join(", ");
      const nobody = answers.filter((one) => one.count === 0 && one.value !== null);
      const added = nobody.length === 0 ? "" : ` Nobody chose ${listed(nobody.map((one) => `“${one.written}”`))}.`;
      const above = perhaps === null ? "" : ` Whether “${perhaps}” could be chosen as well cannot be seen: add it where it could.`;
      const gone = apart.length === 0 ? "" : ` Set apart as missing: ${listed(apart.map((one) => `“${one.written}” (${one.count})`))}.`;
      return `${who} in ${words}: ${order}.${added}${above}${gone}`;
    }
    case "unread": {
      const name = study.readings.find((r) => r.id === point.reading)?.name ?? "";
      const total = point.answers.reduce((sum, one) => sum + one.count, 0);
      return `${counted(total, "answer")} to ${runWords(point.variables)} ${total === 1 ? "is" : "are"} not mentioned by the reading “${name}” and count${total === 1 ? "s" : ""} as missing: ${shown(point.answers)}.`;
    }
    case "amounts": {
      const { rule } = point;
      const unit = rule.unit === "" ? "" : ` in ${rule.unit}`;
      const examples = point.examples.map((one) => `“${one.written}” is ${formatPlain(one.value)}`).join(", ");
      const rest = point.unread.length === 0 ? "" : ` Not read, and missing: ${shown(point.unread)}.`;
      return `${point.variable} holds numbers with words around them. Read${unit}, ${examples}.${rest}`;
    }
    case "choices":
      return `${point.variable} holds several answers in a cell: ${shown(point.answers)}. Each can be a variable of its own, 1 where it was chosen.`;
    case "ticks":
      return `${runWords(point.block.map((one) => one.variable))} are one question with a column an answer (${shown(point.block.map((one) => ({ written: one.answer, count: one.count })))}). Each can be 1 where it was chosen and 0 where only others were.`; // prettier-ignore
    case "minutes":
      return `${point.from} and ${point.to} say how long it took: half took ${formatPlain(Math.round(point.median * 10) / 10)} minutes or less.`;
    case "range":
      return `Nobody has said which answers were possible to ${point.variables.length === 1 ? point.variables[0] : `${point.variables.length} items (${runWords(point.variables)})`}; given were ${formatPlain(point.values[0]!.value)} to ${formatPlain(point.values.at(-1)!.value)}. Reverse-keyed items and possible scores wait for it.`; // prettier-ignore
  }
}

function shown(answers: readonly { written: string; count: number }[]): string {
  const first = answers
    .slice(0, 5)
    .map((one) => `“${one.written.length > 40 ? `${one.written.slice(0, 40)} …` : one.written}” (${one.count})`);
  return listed(first) + (answers.length > 5 ? ` and ${answers.length - 5} more` : "");
}

/** The way that is offered in one step; null where a person has to place something first. */
export function openFix(point: OpenPoint, study: Study): { label: string; edits: Edit[] } | null {
  switch (point.kind) {
    case "answers": {
      const draft = draftOf(point.set);
      if (draftFault(draft) !== null) return null;
      const values = [...draft.answers.flatMap((one) => (one.value === null ? [] : [one.value])), ...draft.numbers];
      return {
        label: `Read as ${formatPlain(Math.min(...values))} to ${formatPlain(Math.max(...values))}`,
        edits: readingEdits(draft, study),
      };
    }
    case "unread":
      return null;
    case "amounts": {
      const variable = study.codebook.find((v) => v.name === point.variable)!;
      const id = newId(point.variable, study.readings.map((r) => r.id)); // prettier-ignore
      const to = { ...variable, kind: "number" as const, levels: [], unit: variable.unit || point.rule.unit };
      return {
        label: `Read ${counted(point.read, "number")}`,
        edits: [
          { subject: "variable", id: variable.name, to },
          { subject: "reading", id, to: { id, name: point.variable, variables: [point.variable], rule: point.rule } },
        ],
      };
    }
    case "choices": {
      const variable = study.codebook.find((v) => v.name === point.variable)!;
      const made = point.answers.map(({ written }) => ({ written, recipe: { kind: "choice" as const, from: point.variable, answer: written, separator: point.separator } })); // prettier-ignore
      return { label: `Make ${counted(made.length, "variable")} of 0 and 1`, edits: indicators(variable, made, study) };
    }
    case "ticks": {
      const block = point.block.map((one) => one.variable);
      const edits = point.block.flatMap(({ variable, answer }, k) => {
        const row = study.codebook.find((v) => v.name === variable)!;
        return indicators(row, [{ written: answer, recipe: { kind: "ticked", from: variable, block } }], study, k);
      });
      return { label: `Make ${counted(block.length, "variable")} of 0 and 1`, edits };
    }
    case "minutes": {
      const name = newId("minutes taken", taken(study));
      const row = Variable.parse({ name, label: "Minutes taken", unit: "min" });
      return {
        label: "Make minutes taken",
        edits: [
          { subject: "variable", id: name, to: row, at: study.codebook.length },
          { subject: "derived", id: name, to: { name, recipe: { kind: "minutes", from: point.from, to: point.to, order: point.order } } },
        ],
      };
    }
    case "range":
      return {
        label: `Possible answers are ${formatPlain(point.low)} to ${formatPlain(point.high)}`,
        edits: rangeEdits(point.variables, { low: point.low, high: point.high }, study),
      };
  }
}

/** A range for many at once. */
export function rangeEdits(names: readonly string[], range: { low: number; high: number }, study: Study): Edit[] {
  return study.codebook.filter((v) => names.includes(v.name)).map((v): Edit => ({ subject: "variable", id: v.name, to: { ...v, range } }));
}

/** Nothing is suggested for these any more. */
export function asTheyAre(names: readonly string[], study: Study): Edit[] {
  return study.codebook
    .filter((v) => names.includes(v.name))
    .map((v): Edit => ({ subject: "variable", id: v.name, to: { ...v, asIs: true } }));
}

const taken = (study: Study) => [...study.codebook.map((v) => v.name), ...study.scales.map((s) => s.id)];

type Chosen =
  | { kind: "choice"; from: string; answer: string; separator: ";" | "," | "|" | "/" | "\n" }
  | { kind: "ticked"; from: string; block: string[] };

/** @param before so many names of this kind are being made already */
function indicators(from: Variable, made: readonly { written: string; recipe: Chosen }[], study: Study, before = 0): Edit[] {
  const names = taken(study);
  const question = from.label || from.question || from.name;
  return made.flatMap(({ written, recipe }, k): Edit[] => {
    const name = newId(`${nameStem(from.name) ?? from.name} ${answerKey(written).slice(0, 30)}`, names);
    names.push(name);
    const row = Variable.parse({
      name,
      label:
        recipe.kind === "ticked" && from.question === ""
          ? written
          : `${recipe.kind === "ticked" ? from.question : question}: ${written}`.slice(0, 2000),
      question: recipe.kind === "ticked" ? from.question : question,
    });
    return [
      { subject: "variable", id: name, to: row, at: study.codebook.length + before + k },
      { subject: "derived", id: name, to: { name, recipe } },
    ];
  });
}

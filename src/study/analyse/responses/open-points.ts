import type { Analysis } from "../../kinds/kind";
import type { DateOrder } from "../../model/derived";
import type { OpenPoints } from "../../model/open-points";
import type { ReadingRule } from "../../model/reading";
import { type AnswerSet, answerSets } from "../../prepare/answers/answer-sets";
import { choicesIn, type Separator } from "../../prepare/answers/choices";
import { columnAnswers, type ColumnAnswers } from "../../prepare/answers/column-answers";
import { inUnit, readAmount } from "../../prepare/answers/read-amount";
import { ordersOf, readMoment } from "../../prepare/derive/dates";
import { separatorOf } from "../../prepare/guess-codebook";
import type { StudyColumns } from "../../prepare/study-columns";
import { missingLike } from "./check-values";

interface Counted {
  written: string;
  count: number;
}

/** Something in the file that can be understood better than it stands, with what is proposed. */
export type OpenPoint =
  /** Questions answered in words that have an order. */
  | { kind: "answers"; set: AnswerSet }
  /** Answers of questions that are read, which the reading does not mention. */
  | { kind: "unread"; reading: string; variables: string[]; answers: Counted[] }
  /** Numbers that were typed with words around them. */
  | {
      kind: "amounts";
      variable: string;
      rule: Extract<ReadingRule, { kind: "amounts" }>;
      /** Cells that would be read, with the first examples; and those that would not. */
      read: number;
      examples: { written: string; value: number }[];
      unread: Counted[];
      /** Every different text, most frequent first; the first two thousand. */
      all: Counted[];
    }
  /** Cells that hold several answers. */
  | { kind: "choices"; variable: string; separator: Separator; answers: Counted[] }
  /** A column an answer, filled where it was chosen. */
  | { kind: "ticks"; block: { variable: string; answer: string; count: number }[] }
  /** A beginning and an end. */
  | { kind: "minutes"; from: string; to: string; order: DateOrder; median: number }
  /** Items whose possible answers nobody has declared. */
  | { kind: "range"; variables: string[]; low: number; high: number; values: { value: number; count: number }[] };

/** What is open in the variables asked about, in the order of the file. */
export function openPoints({ variables }: OpenPoints, columns: StudyColumns): OpenPoint[] {
  const all = variables.map(({ name, family }): ColumnAnswers => {
    const row = columns.codebookRow(name);
    return { ...columnAnswers(columns.column(name), row), family };
  });
  // an item that says which answer to choose tells who reads, and nothing else
  const checking = new Set(variables.filter((v) => v.check).map(({ name }) => name));
  const kindOf = new Map(variables.map(({ name }) => [name, columns.codebookRow(name).kind]));
  const read = new Map(variables.flatMap((v) => (v.read === null ? [] : [[v.name, v.read] as const])));
  const inWords = all.filter(
    (one) =>
      one.words > 0 && !read.has(one.name) && !checking.has(one.name) && kindOf.get(one.name) !== "date" && kindOf.get(one.name) !== "code",
  );
  const sets = answerSets(inWords);
  const taken = new Set(sets.flatMap((set) => set.variables));
  const rest = inWords.filter((one) => !taken.has(one.name));
  const marked = all.filter((one) => one.words === 0 && !read.has(one.name) && !columns.codebookRow(one.name).range);
  const points: OpenPoint[] = sets.map((set) => ({ kind: "answers", set }));
  points.push(...unread(all, read), ...tickBlocks([...rest, ...marked]));
  const ticked = new Set(points.flatMap((point) => (point.kind === "ticks" ? point.block.map(({ variable }) => variable) : [])));
  for (const one of rest) {
    if (ticked.has(one.name)) continue;
    const point = amountsIn(one) ?? (kindOf.get(one.name) === "text" || kindOf.get(one.name) === "category" ? choicesOf(one) : null);
    if (point) points.push(point);
  }
  points.push(
    ...minutesTaken(variables, columns),
    ...ranges(
      all.filter((one) => kindOf.get(one.name) === "item"),
      columns,
    ),
  );
  const place = new Map(variables.map(({ name }, at) => [name, at]));
  return points.sort((a, b) => place.get(namesOf(a)[0]!)! - place.get(namesOf(b)[0]!)!);
}

/** The variables a point is about. */
export function namesOf(point: OpenPoint): string[] {
  switch (point.kind) {
    case "answers":
      return point.set.variables;
    case "ticks":
      return point.block.map(({ variable }) => variable);
    case "minutes":
      return [point.from, point.to];
    case "range":
    case "unread":
      return point.variables;
    default:
      return [point.variable];
  }
}

/** Numbers with words around them, where most of the words can be read so and at least one needs it. */
function amountsIn({ name, texts, words, numeric }: ColumnAnswers): OpenPoint | null {
  if (words === 0 || !texts.some(({ written }) => /\d/.test(written))) return null;
  const ways = ([".", ","] as const).map((decimal) => {
    const amounts = texts.map((one) => ({ ...one, amount: readAmount(one.written, decimal) }));
    const units = new Map<string, number>();
    for (const { amount, count } of amounts)
      if (amount && amount.unit !== "") units.set(amount.unit, (units.get(amount.unit) ?? 0) + count);
    const unit = [...units].sort((a, b) => b[1] - a[1])[0]?.[0] ?? "";
    const valued = amounts.map(({ amount, ...one }) => ({
      ...one,
      span: amount?.span ?? false,
      value: amount ? inUnit(amount, unit) : null,
    }));
    return { decimal, unit, valued, read: valued.reduce((sum, one) => sum + (one.value === null ? 0 : one.count), 0) };
  });
  const best = ways[1]!.read > ways[0]!.read ? ways[1]! : ways[0]!;
  if (best.read === 0 || best.read + numeric < 0.6 * (words + numeric)) return null;
  // classes such as "18-24" are levels in order, not amounts: hardly anything but spans, and they come again and again
  const spans = best.valued.filter((one) => one.span).reduce((sum, one) => sum + one.count, 0);
  if (numeric === 0 && spans > 0.5 * best.read && best.valued.length <= 12) return null;
  const read = best.valued.flatMap(({ written, value }) => (value === null ? [] : [{ written, value }]));
  // examples that show what the rule does, not ten times the same
  const examples = [...new Map(read.map((one) => [one.written.replace(/\d+/g, "0"), one])).values()].slice(0, 5);
  return {
    kind: "amounts",
    variable: name,
    rule: { kind: "amounts", decimal: best.decimal, unit: best.unit, spans: "middle" },
    read: best.read,
    examples,
    all: texts.slice(0, 2000),
    unread: best.valued.flatMap(({ written, count, value }) => (value === null ? [{ written, count }] : [])),
  };
}

/** By reading: what its questions still hold in words. */
function unread(all: readonly ColumnAnswers[], read: ReadonlyMap<string, string>): OpenPoint[] {
  const found = new Map<string, { variables: string[]; answers: Map<string, number> }>();
  for (const { name, texts } of all) {
    const reading = read.get(name);
    if (reading === undefined || texts.length === 0) continue;
    const one = found.get(reading) ?? { variables: [], answers: new Map<string, number>() };
    found.set(reading, one);
    one.variables.push(name);
    for (const { written, count } of texts) one.answers.set(written, (one.answers.get(written) ?? 0) + count);
  }
  return [...found].map(([reading, { variables, answers }]) => ({
    kind: "unread" as const,
    reading,
    variables,
    answers: [...answers].map(([written, count]) => ({ written, count })).sort((a, b) => b.count - a.count),
  }));
}

function choicesOf({ name, texts }: ColumnAnswers): OpenPoint | null {
  const separator = separatorOf(texts.map(({ written }) => written));
  if (separator === null) return null;
  const counts = new Map<string, number>();
  for (const { written, count } of texts)
    for (const choice of choicesIn(written, separator)) counts.set(choice, (counts.get(choice) ?? 0) + count);
  const answers = [...counts].map(([written, count]) => ({ written, count })).sort((a, b) => b.count - a.count);
  // what was written once beside the answers offered ("other: by boat") is a remark
  const offered = answers.filter(({ count }) => count > 1);
  return offered.length < 2 ? null : { kind: "choices", variable: name, separator, answers: offered };
}

/** Columns in a row of one question, each with one text or nothing. */
function tickBlocks(columns: readonly ColumnAnswers[]): OpenPoint[] {
  const single = columns.filter(
    ({ family, texts, numbers, empty }) => family !== null && numbers !== null && texts.length + numbers.length === 1 && empty > 0,
  );
  const blocks = new Map<string, ColumnAnswers[]>();
  for (const one of single) blocks.set(one.family!, [...(blocks.get(one.family!) ?? []), one]);
  return [...blocks.values()]
    .filter((block) => block.length >= 2)
    .map((block) => {
      const answers = block.map(({ texts, numbers }) => texts[0] ?? { written: String(numbers![0]!.value), count: numbers![0]!.count });
      const same = new Set(answers.map(({ written }) => written)).size === 1;
      return {
        kind: "ticks" as const,
        block: block.map(({ name, label }, k) => ({
          variable: name,
          answer: same ? label || name : answers[k]!.written,
          count: answers[k]!.count,
        })),
      };
    });
}

const BEGIN =
  /(^|[^a-z])(start|started|begin|begun|started_at|startdate|start_date|starttime|start_time|beginn|gestartet|debut|début|inicio|inizio|início|aanvang)/i;
const END =
  /(^|[^a-z])(end|ended|finish|finished|enddate|end_date|endtime|end_time|submitted|submitdate|completed_at|ende|beendet|fin|fim|fine|einde|recorded)/i;

/** A moment of beginning and one of ending that lies after it. */
function minutesTaken(variables: OpenPoints["variables"], columns: StudyColumns): OpenPoint[] {
  const dates = variables.filter(({ name }) => columns.codebookRow(name).kind === "date");
  const from = dates.find(({ name }) => BEGIN.test(name));
  const to = dates.find(({ name }) => END.test(name) && name !== from?.name);
  if (!from || !to || variables.some((v) => v.minutesOf?.includes(from.name))) return [];
  const [begun, ended] = [columns.column(from.name), columns.column(to.name)];
  const order = ordersOf([...begun.texts.slice(0, 200), ...ended.texts.slice(0, 200)])[0];
  if (!order) return [];
  const [starts, ends] = [begun, ended].map(({ texts }) => texts.map((text) => readMoment(text, order))) as [
    (number | null)[],
    (number | null)[],
  ];
  const taken: number[] = [];
  for (let row = 0; row < begun.values.length; row++) {
    if (begun.states[row] !== 2 || ended.states[row] !== 2) continue;
    const [a, b] = [starts[begun.values[row]!]!, ends[ended.values[row]!]!];
    if (a !== null && b !== null) taken.push(b - a);
  }
  if (taken.length === 0 || taken.filter((minutes) => minutes >= 0).length < 0.9 * taken.length) return [];
  const sorted = taken.sort((a, b) => a - b);
  return [{ kind: "minutes", from: from.name, to: to.name, order, median: sorted[Math.floor(sorted.length / 2)]! }];
}

/** Families of items without a range: from the lowest to the highest answer that was given, codes for a missing one set aside. */
function ranges(items: readonly ColumnAnswers[], columns: StudyColumns): OpenPoint[] {
  const open = items.filter(({ name, numeric }) => numeric > 0 && columns.codebookRow(name).range === null);
  const families = new Map<string, ColumnAnswers[]>();
  for (const one of open) families.set(one.family ?? one.name, [...(families.get(one.family ?? one.name) ?? []), one]);
  const found = [...families.values()].flatMap((family): Extract<OpenPoint, { kind: "range" }>[] => {
    if (family.some(({ numbers }) => numbers === null)) return [];
    const counts = new Map<number, number>();
    for (const { numbers } of family) for (const { value, count } of numbers!) counts.set(value, (counts.get(value) ?? 0) + count);
    const codes = new Set(missingLike([...counts.keys()], { range: null, kind: "item" }));
    const values = [...counts].flatMap(([value, count]) => (codes.has(value) ? [] : [{ value, count }])).sort((a, b) => a.value - b.value);
    if (values.length < 2 || values.some(({ value }) => !Number.isInteger(value))) return [];
    return [{ kind: "range", variables: family.map(({ name }) => name), low: values[0]!.value, high: usualEnd(values), values }];
  });
  // families with the same answers are confirmed together
  const together = new Map<string, Extract<OpenPoint, { kind: "range" }>>();
  for (const one of found) {
    const key = `${one.low} ${one.high}`;
    const known = together.get(key);
    const counts = new Map(known?.values.map(({ value, count }) => [value, count]));
    for (const { value, count } of one.values) counts.set(value, (counts.get(value) ?? 0) + count);
    const values = [...counts].map(([value, count]) => ({ value, count })).sort((a, b) => a.value - b.value);
    together.set(key, { ...one, variables: [...(known?.variables ?? []), ...one.variables], values });
  }
  return [...together.values()];
}

/** The highest answer given; a single one far above all others is a slip of typing, not the end of the scale. */
function usualEnd(values: readonly { value: number; count: number }[]): number {
  const last = values.at(-1)!;
  const before = values.at(-2)!;
  return values.length > 2 && last.count <= 2 && last.value - before.value > 2 ? before.value : last.value;
}

export const analysis: Analysis<object, OpenPoints, OpenPoint[]> = {
  run: (spec, { columns }) => openPoints(spec, columns),
};

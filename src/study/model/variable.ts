import { z } from "zod";
import { VariableName } from "./names";

/** What a variable is; decides where it is offered, never how it is stored. */
export const VariableKind = z.enum(["item", "number", "category", "date", "text", "code"]);
export type VariableKind = z.infer<typeof VariableKind>;

/** Lowest and highest answer that was possible, as declared by the researcher. */
export const AnswerRange = z
  .strictObject({ low: z.number(), high: z.number() })
  .refine((r) => r.low < r.high, { path: ["high"], error: "The highest answer must be above the lowest." });
export type AnswerRange = z.infer<typeof AnswerRange>;

/** A value and the words for it. Of a category they are its levels, in this order; of an item or a number they only name values. */
export const ValueLabel = z.strictObject({ value: z.string().min(1).max(1000), label: z.string().trim().max(1000).default("") });
export type ValueLabel = z.infer<typeof ValueLabel>;

/** One row of the codebook. */
export const Variable = z.strictObject({
  name: VariableName,
  /** Wording of the question, or a description. */
  label: z.string().trim().max(2000).default(""),
  /** What a question asks all its items, where its wording is parted into the question and the item; "" for none. */
  question: z.string().trim().max(2000).default(""),
  /** A few words for tables and axes; "" where the label is short enough. */
  short: z.string().trim().max(60, "A short label has at most 60 characters.").default(""),
  kind: VariableKind.default("number"),
  /** Null until declared: a reversed answer is low + high − answer, so it is never guessed from what was answered. */
  range: AnswerRange.nullable().default(null),
  /** Codes that stand for a missing answer, as written in the file: "-9", "99", "NA". An empty cell is missing in any case; "" may say so. */
  missing: z.array(z.string().trim().max(100)).default([]),
  /** Values with their words, in codebook order; of a category, its levels. */
  levels: z
    .array(ValueLabel)
    .refine((all) => new Set(all.map((l) => l.value)).size === all.length, "A value is labelled twice.")
    .default([]),
  /** What a number counts: "years", "minutes", "%". */
  unit: z.string().trim().max(60).default(""),
  note: z.string().trim().max(4000).default(""),
  /** True: somebody has said that it stays as it is, and nothing is suggested for it any more. */
  asIs: z.boolean().default(false),
});
export type Variable = z.infer<typeof Variable>;

/** The words for a variable wherever there is room: its label, else its name. */
export function variableTitle(variable: Variable): string {
  return variable.label || variable.short || variable.name;
}

/** Everything a variable may be looked for by. */
export function searchWords({ name, label, question, short }: Pick<Variable, "name" | "label" | "question" | "short">): string {
  return [name, short, label, question].filter((words) => words !== "").join(" ");
}

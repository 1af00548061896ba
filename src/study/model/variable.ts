import { z } from "zod";
import { VariableName } from "./names";

/** What a variable is; decides where it is offered, never how it is stored. */
export const VariableKind = z.enum(["item", "number", "category", "text", "code"]);
export type VariableKind = z.infer<typeof VariableKind>;

/** Lowest and highest answer that was possible, as declared by the researcher. */
export const AnswerRange = z
  .strictObject({ low: z.number(), high: z.number() })
  .refine((r) => r.low < r.high, { path: ["high"], error: "The highest answer must be above the lowest." });
export type AnswerRange = z.infer<typeof AnswerRange>;

/** One row of the codebook. */
export const Variable = z.strictObject({
  name: VariableName,
  /** Wording of the question, or a description. */
  label: z.string().trim().max(2000).default(""),
  kind: VariableKind.default("number"),
  /** Null until declared: a reversed answer is low + high − answer, so it is never guessed from what was answered. */
  range: AnswerRange.nullable().default(null),
  /** Codes that stand for a missing answer, as written in the file: "-9", "99", "NA". An empty cell is missing in any case; "" may say so. */
  missing: z.array(z.string().trim().max(100)).default([]),
  /** Values of a category in codebook order. */
  levels: z.array(z.strictObject({ value: z.string().min(1), label: z.string().default("") })).default([]),
});
export type Variable = z.infer<typeof Variable>;

/** The words for a variable wherever there is room: its label, else its name. */
export function variableTitle(variable: Variable): string {
  return variable.label === "" ? variable.name : variable.label;
}

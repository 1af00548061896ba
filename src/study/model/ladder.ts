import { z } from "zod";
import { ObjectId, Title, VariableName } from "./names";

/** A term: one variable or scale, or the product of several. */
export const LadderTerm = z.strictObject({ components: z.array(VariableName).min(1).max(4) });
export type LadderTerm = z.infer<typeof LadderTerm>;

export const LadderStep = z.strictObject({
  id: ObjectId,
  name: z.string().trim().max(200).default(""),
  terms: z.array(LadderTerm).default([]),
});
export type LadderStep = z.infer<typeof LadderStep>;

/** Keeps the respondents whose answer is one of `equals`, as written in the file. */
export const CaseFilter = z.strictObject({ variable: VariableName, equals: z.array(z.string()).min(1) });
export type CaseFilter = z.infer<typeof CaseFilter>;

/** A hierarchical regression. All steps are fitted on the same respondents. */
export const Ladder = z.strictObject({
  id: ObjectId,
  name: Title,
  /** Null until chosen. */
  outcome: VariableName.nullable().default(null),
  filter: CaseFilter.nullable().default(null),
  /** How a variable that is part of a product enters. */
  centring: z.enum(["mean", "z", "raw"]).default("mean"),
  /** Share of the intervals. */
  confidence: z.number().min(0.5).max(0.999).default(0.95),
  steps: z.array(LadderStep).min(1),
});
export type Ladder = z.infer<typeof Ladder>;

/** Every variable or scale the ladder names in its steps, once, in order of appearance. */
export function ladderPredictors(ladder: Ladder): VariableName[] {
  return [...new Set(ladder.steps.flatMap((step) => step.terms.flatMap((term) => term.components)))];
}

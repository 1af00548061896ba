import { z } from "zod";
import { Seed } from "./ladder";
import { ObjectId, Title, VariableName } from "./names";

/** One of the models: a step of a ladder with everything up to it. */
export const ComparedModel = z.strictObject({
  name: Title,
  ladder: ObjectId,
  /** From 1; null: the last. */
  step: z.int().min(1).nullable().default(null),
});
export type ComparedModel = z.infer<typeof ComparedModel>;

/** Models of one outcome on one sample, nested or not, beside one another. */
export const Comparison = z.strictObject({
  id: ObjectId,
  name: Title,
  models: z
    .array(ComparedModel)
    .min(2)
    .refine((models) => new Set(models.map((m) => m.name)).size === models.length, "Each model needs a name of its own."),
  /** Each ladder on its own respondents, refused when these differ; or all on those whom every ladder has. */
  sample: z.enum(["own", "common"]).default("own"),
  /** A variable that says in which fold a respondent is held out of cross-validation. Null: ten folds drawn with the seed. */
  folds: VariableName.nullable().default(null),
  seed: Seed.default(1),
});
export type Comparison = z.infer<typeof Comparison>;

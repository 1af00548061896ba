import { z } from "zod";

/** How factors are drawn from correlations. */
export const ExtractionMethod = z.enum(["principal-axis", "maximum-likelihood", "minimum-residual", "principal-components"]);

/** How they are turned: varimax keeps them apart, promax and oblimin let them correlate. */
export const RotationMethod = z.enum(["varimax", "promax", "oblimin", "none"]);

export const FactorCount = z.int().min(1, "There is at least one factor.").max(100, "That is more factors than can be read.");

/** Which factor of which solution of a scale's own items its scores are. */
export const ScoredFactor = z
  .strictObject({
    extraction: ExtractionMethod.default("maximum-likelihood"),
    rotation: RotationMethod.default("none"),
    /** How many factors the items have. */
    factors: FactorCount.default(1),
    /** Which of them is scored, from 1, in the order in which they are printed. */
    factor: FactorCount.default(1),
  })
  .refine((f) => f.factor <= f.factors, { path: ["factor"], error: "The scored factor is not among the factors." });
export type ScoredFactor = z.infer<typeof ScoredFactor>;

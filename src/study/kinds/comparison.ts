import { z } from "zod";
import type { ComparisonResult } from "../analyse/analyse-comparison";
import { Comparison } from "../model/comparison";
import type { StudyParts } from "../model/context";
import { Ladder } from "../model/ladder";
import { ObjectId } from "../model/names";
import type { AskedKind, KeptKind } from "./kind";
import { bareLadder } from "./ladder";

const ComparisonSpec = z.strictObject({ comparison: Comparison, ladders: z.array(Ladder) });
export type ComparisonSpec = z.infer<typeof ComparisonSpec>;

/** Ladders beside one another. */
export const comparison = {
  kind: "comparison",
  list: "comparisons",
  schema: Comparison,
  id: ObjectId,
  word: "Comparison",
  place: "ladders",
  idOf: (c: Comparison) => c.id,
  nameOf: (c: Comparison) => c.name,
  opens: { at: (c: Comparison) => `ladders?beside=${c.id}` },
  spec: ComparisonSpec,
  specOf: (c: Comparison, study: StudyParts) => {
    const ladders = study.ladders.filter((l) => c.models.some((m) => m.ladder === l.id));
    return { comparison: { ...c, name: "-" }, ladders: ladders.map(bareLadder) };
  },
  needs: ({ models, folds }: Comparison) => ({
    names: folds === null ? [] : [{ name: folds, variable: true, as: "folds" }],
    objects: models.map((model) => ({ kind: "ladder", id: model.ladder })),
  }),
  faults: ({ models }: Comparison, study: StudyParts) =>
    models.flatMap(({ ladder, step }) => {
      const found = study.ladders.find((l) => l.id === ladder);
      return found && step !== null && step > found.steps.length ? [`The ladder "${found.name}" has no step ${step}.`] : [];
    }),
  load: () => import("../analyse/comparison-analysis"),
  headline: (result: ComparisonResult) =>
    result.status === "refused"
      ? null
      : [
          { name: "N", value: result.sample.used },
          ...result.models.map((m) => ({ name: `AIC of ${m.name}`, value: m.fit.steps[m.step]!.model.AIC })),
        ],
} satisfies KeptKind<"comparison", "comparisons", Comparison> & AskedKind<"comparison", Comparison, ComparisonSpec, ComparisonResult>;

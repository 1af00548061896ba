import { z } from "zod";
import { Comparison } from "./comparison";
import { Correction, correctionId } from "./correction";
import { DerivedVariable } from "./derived";
import { Ladder } from "./ladder";
import { Title } from "./names";
import { RespondentFilter } from "./respondent-filter";
import { Scale } from "./scale";
import { soundnessFaults } from "./soundness";
import { Structure } from "./structure";
import { Variable } from "./variable";

/** Which responses a study stands on. Null in a document that travels without them. */
export const StudyResponses = z.strictObject({
  dataset: z.string().min(1).max(64),
  fileName: z.string().max(255),
  rows: z.int().min(0),
});
export type StudyResponses = z.infer<typeof StudyResponses>;

const once = <T>(id: (one: T) => string, what: string) =>
  [(all: readonly T[]) => new Set(all.map(id)).size === all.length, `${what} stands in the study twice.`] as const;

/**
 * The study document: everything a researcher decided, without the responses themselves.
 * The page saves it, the compute command reads it, docs/study.schema.json describes it.
 */
export const Study = z
  .strictObject({
    format: z.literal("beta-step-study"),
    version: z.literal(1),
    name: Title,
    responses: StudyResponses.nullable().default(null),
    /** The columns of the file in its order, and a row for each derived variable. */
    codebook: z.array(Variable).default([]),
    corrections: z
      .array(Correction)
      .refine(...once(correctionId, "A correction of one cell"))
      .default([]),
    derived: z
      .array(DerivedVariable)
      .refine(...once<DerivedVariable>((d) => d.name, "A derived variable"))
      .default([]),
    filters: z
      .array(RespondentFilter)
      .refine(...once<RespondentFilter>((f) => f.id, "A filter"))
      .default([]),
    scales: z.array(Scale).default([]),
    structures: z
      .array(Structure)
      .refine(...once<Structure>((s) => s.id, "A structure"))
      .default([]),
    ladders: z.array(Ladder).default([]),
    comparisons: z.array(Comparison).default([]),
  })
  .superRefine((study, check) => {
    for (const { path, message } of soundnessFaults(study)) check.addIssue({ code: "custom", path, message });
  });
export type Study = z.infer<typeof Study>;

/** What columns of a study are worked out from: the rest of it decides which columns are asked for. */
export type StudyContext = Pick<Study, "codebook" | "scales"> & Partial<Pick<Study, "corrections" | "derived" | "filters">>;

/** The words for a variable, a scale or a level of a category (`ticket[day]`), by its name in terms and results. */
export function titleOf(study: Pick<Study, "codebook" | "scales">, name: string): string {
  const scale = study.scales.find((s) => s.id === name);
  if (scale) return scale.name;
  const variable = study.codebook.find((v) => v.name === name);
  if (!variable) {
    const category = study.codebook.find((v) => v.kind === "category" && name.startsWith(`${v.name}[`) && name.endsWith("]"));
    if (category) {
      const value = name.slice(category.name.length + 1, -1);
      const label = category.levels.find((level) => level.value === value)?.label;
      return `${titleOf(study, category.name)}: ${label || value}`;
    }
  }
  if (!variable) return name;
  if (variable.short !== "") return variable.short;
  return variable.label !== "" && variable.kind !== "item" ? variable.label : name;
}

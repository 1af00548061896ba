import { z } from "zod";
import { KEPT, type StudyLists } from "../kinds/kinds";
import { byName } from "./by-name";
import { Title } from "./names";
import { soundnessFaults } from "./soundness";
import { STUDY_VERSION, upgradeStudy } from "./upgrade";

/** Which responses a study stands on. Null in a document that travels without them. */
export const StudyResponses = z.strictObject({
  dataset: z.string().min(1).max(64),
  fileName: z.string().max(255),
  rows: z.int().min(0),
  /** Respondents who withdrew and were erased: none of them is among the rows. */
  withdrawn: z.int().min(1).optional(),
});
export type StudyResponses = z.infer<typeof StudyResponses>;

const listsOf = Object.fromEntries(KEPT.map((kind) => [kind.list, z.array(kind.schema).default([])]));

/**
 * The study document: everything a researcher decided, without the responses themselves.
 * The page saves it, the compute command reads it, docs/study.schema.json describes it.
 */
export const Study = z
  .strictObject({
    format: z.literal("beta-step-study"),
    version: z.literal(STUDY_VERSION),
    name: Title,
    responses: StudyResponses.nullable().default(null),
    ...listsOf,
  })
  .superRefine((study, check) => {
    for (const { path, message } of soundnessFaults(study as unknown as Study)) check.addIssue({ code: "custom", path, message });
  }) as unknown as z.ZodType<Study>;

/** The codebook has the columns of the file in its order, and a row for each derived variable. */
export type Study = StudyLists & {
  format: "beta-step-study";
  version: typeof STUDY_VERSION;
  name: string;
  responses: StudyResponses | null;
};

/** A study document as it comes from a file or the database, whichever version wrote it. @throws NewerDocumentError while it is parsed */
export const StoredStudy = z.preprocess((document) => upgradeStudy(document), Study);

/** The words for a variable or a scale, by its name in terms and results; for a level of a category, the category's before its own. */
export function titleOf(study: Pick<Study, "codebook" | "scales">, name: string, level: string | null = null): string {
  const variable = byName(study.codebook, name);
  if (level !== null) return `${titleOf(study, name)}: ${variable?.levels.find((one) => one.value === level)?.label || level}`;
  const scale = study.scales.find((s) => s.id === name);
  if (scale) return scale.name;
  if (!variable) return name;
  if (variable.short !== "") return variable.short;
  return variable.label !== "" && variable.kind !== "item" ? variable.label : name;
}

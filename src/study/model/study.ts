import { z } from "zod";
import { Ladder, ladderPredictors } from "./ladder";
import { Title } from "./names";
import { Scale } from "./scale";
import { Variable } from "./variable";

/**
 * The study document: everything a researcher decided, without the responses themselves.
 * The page saves it, the compute command reads it, docs/study.schema.json describes it.
 */
export const Study = z
  .strictObject({
    format: z.literal("beta-step-study"),
    version: z.literal(1),
    name: Title,
    codebook: z.array(Variable).default([]),
    scales: z.array(Scale).default([]),
    ladders: z.array(Ladder).default([]),
  })
  .superRefine((study, check) => {
    const names = new Set<string>();
    const claim = (name: string, path: (string | number)[]) => {
      if (names.has(name)) check.addIssue({ code: "custom", path, message: `The name "${name}" is used twice.` });
      names.add(name);
    };
    study.codebook.forEach((v, i) => claim(v.name, ["codebook", i, "name"]));
    const variables = new Set(names);
    study.scales.forEach((s, i) => {
      claim(s.id, ["scales", i, "id"]);
      for (const item of s.items) {
        if (!variables.has(item.variable)) {
          check.addIssue({
            code: "custom",
            path: ["scales", i, "items"],
            message: `The scale "${s.name}" names an item "${item.variable}" that is not in the codebook.`,
          });
        }
      }
    });
    const ladderIds = new Set<string>();
    study.ladders.forEach((ladder, i) => {
      if (ladderIds.has(ladder.id))
        check.addIssue({ code: "custom", path: ["ladders", i, "id"], message: `Two ladders have the id "${ladder.id}".` });
      ladderIds.add(ladder.id);
      const used = [...ladderPredictors(ladder), ...(ladder.outcome === null ? [] : [ladder.outcome])];
      for (const name of used) {
        if (!names.has(name)) {
          check.addIssue({
            code: "custom",
            path: ["ladders", i],
            message: `The ladder "${ladder.name}" uses "${name}", which is neither in the codebook nor a scale.`,
          });
        }
      }
      if (ladder.filter && !variables.has(ladder.filter.variable)) {
        check.addIssue({
          code: "custom",
          path: ["ladders", i, "filter"],
          message: `The filter of the ladder "${ladder.name}" names "${ladder.filter.variable}", which is not in the codebook.`,
        });
      }
    });
  });
export type Study = z.infer<typeof Study>;

/** The words for a variable or scale, by its name in terms and results. */
export function titleOf(study: Pick<Study, "codebook" | "scales">, name: string): string {
  const scale = study.scales.find((s) => s.id === name);
  if (scale) return scale.name;
  const variable = study.codebook.find((v) => v.name === name);
  return variable && variable.label !== "" && variable.kind !== "item" ? variable.label : name;
}

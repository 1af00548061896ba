import { z } from "zod";
import { Comparison } from "./comparison";
import { Ladder, ladderPredictors, ladderSettingsVariables } from "./ladder";
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
    comparisons: z.array(Comparison).default([]),
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
      const used = [...ladderPredictors(ladder), ...(ladder.outcome === null ? [] : [ladder.outcome]), ...ladder.alsoComplete];
      for (const name of used) {
        if (!names.has(name)) {
          check.addIssue({
            code: "custom",
            path: ["ladders", i],
            message: `The ladder "${ladder.name}" uses "${name}", which is neither in the codebook nor a scale.`,
          });
        }
      }
      for (const { role, name } of ladderSettingsVariables(ladder)) {
        if (!variables.has(name)) {
          check.addIssue({
            code: "custom",
            path: ["ladders", i, role],
            message: `The ladder "${ladder.name}" names "${name}" under ${role}, which is not in the codebook.`,
          });
        }
      }
    });
    const comparisonIds = new Set<string>();
    study.comparisons.forEach((comparison, i) => {
      const complain = (path: (string | number)[], message: string) =>
        check.addIssue({ code: "custom", path: ["comparisons", i, ...path], message });
      if (comparisonIds.has(comparison.id)) complain(["id"], `Two comparisons have the id "${comparison.id}".`);
      comparisonIds.add(comparison.id);
      comparison.models.forEach((model, at) => {
        const ladder = study.ladders.find((l) => l.id === model.ladder);
        if (!ladder) complain(["models", at], `The comparison "${comparison.name}" names a ladder "${model.ladder}" that is not there.`);
        else if (model.step !== null && model.step > ladder.steps.length)
          complain(["models", at], `The ladder "${ladder.name}" has no step ${model.step}.`);
      });
      if (comparison.folds !== null && !variables.has(comparison.folds))
        complain(["folds"], `The comparison "${comparison.name}" names "${comparison.folds}" under folds, which is not in the codebook.`);
    });
  });
export type Study = z.infer<typeof Study>;

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
  return variable && variable.label !== "" && variable.kind !== "item" ? variable.label : name;
}

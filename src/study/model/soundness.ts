import type { Comparison } from "./comparison";
import type { Correction } from "./correction";
import { cycleAmong, recipeFilter, recipeInputs, filterInputs } from "./dependencies";
import type { DerivedVariable } from "./derived";
import { type Ladder, ladderPredictors, ladderSettingsVariables } from "./ladder";
import type { RespondentFilter } from "./respondent-filter";
import type { Scale } from "./scale";
import type { Structure } from "./structure";
import type { Variable } from "./variable";

interface Document {
  codebook: readonly Variable[];
  corrections: readonly Correction[];
  derived: readonly DerivedVariable[];
  filters: readonly RespondentFilter[];
  scales: readonly Scale[];
  structures: readonly Structure[];
  ladders: readonly Ladder[];
  comparisons: readonly Comparison[];
}

/** A place in the document and what is wrong there. */
export interface SoundnessFault {
  path: (string | number)[];
  message: string;
}

/** What makes a document unsound as a whole: names used twice, names that nothing has, variables worked out in a circle. */
export function soundnessFaults(study: Document): SoundnessFault[] {
  const faults: SoundnessFault[] = [];
  const complain = (path: (string | number)[], message: string) => faults.push({ path, message });
  const names = new Set<string>();
  const claim = (name: string, path: (string | number)[]) => {
    if (names.has(name)) complain(path, `The name "${name}" is used twice.`);
    names.add(name);
  };
  study.codebook.forEach((v, i) => claim(v.name, ["codebook", i, "name"]));
  const variables = new Set(names);
  study.scales.forEach((s, i) => claim(s.id, ["scales", i, "id"]));
  const filters = new Map(study.filters.map((f) => [f.id, f.name]));
  const filterThere = (id: string | null, of: string, path: (string | number)[]) => {
    if (id !== null && !filters.has(id)) complain(path, `${of} names a filter "${id}" that is not there.`);
  };

  study.scales.forEach((s, i) => {
    for (const item of s.items) {
      if (!names.has(item.variable))
        complain(["scales", i, "items"], `The scale "${s.name}" names an item "${item.variable}" that is not in the codebook.`);
    }
    if (s.byGroup !== null && !variables.has(s.byGroup))
      complain(["scales", i, "byGroup"], `The scale "${s.name}" is told by "${s.byGroup}", which is not in the codebook.`);
    filterThere(s.respondents, `The scale "${s.name}"`, ["scales", i, "respondents"]);
  });
  study.corrections.forEach((c, i) => {
    if (!variables.has(c.variable)) complain(["corrections", i], `A correction names "${c.variable}", which is not in the codebook.`);
    if (study.derived.some((d) => d.name === c.variable))
      complain(["corrections", i], `"${c.variable}" is worked out from others; its cells cannot be corrected one by one.`);
  });
  study.derived.forEach((d, i) => {
    if (!variables.has(d.name)) complain(["derived", i, "name"], `The derived variable "${d.name}" has no row in the codebook.`);
    for (const input of recipeInputs(d.recipe)) {
      if (!names.has(input))
        complain(["derived", i, "recipe"], `"${d.name}" is worked out from "${input}", which is neither in the codebook nor a scale.`);
    }
    filterThere(recipeFilter(d.recipe), `The variable "${d.name}"`, ["derived", i, "recipe"]);
  });
  study.filters.forEach((f, i) => {
    for (const input of filterInputs(f)) {
      if (!names.has(input))
        complain(["filters", i, "conditions"], `The filter "${f.name}" names "${input}", which is neither in the codebook nor a scale.`);
    }
  });
  const cycle = cycleAmong(study);
  if (cycle) complain(["derived"], `${cycle.map((name) => `"${name}"`).join(" is worked out from ")}: that is a circle.`);

  study.structures.forEach((s, i) => {
    for (const name of s.items) {
      if (!names.has(name))
        complain(["structures", i, "items"], `The structure "${s.name}" names "${name}", which is neither in the codebook nor a scale.`);
    }
    filterThere(s.respondents, `The structure "${s.name}"`, ["structures", i, "respondents"]);
  });

  const ladderIds = new Set<string>();
  study.ladders.forEach((ladder, i) => {
    if (ladderIds.has(ladder.id)) complain(["ladders", i, "id"], `Two ladders have the id "${ladder.id}".`);
    ladderIds.add(ladder.id);
    const used = [...ladderPredictors(ladder), ...(ladder.outcome === null ? [] : [ladder.outcome]), ...ladder.alsoComplete];
    for (const name of used) {
      if (!names.has(name))
        complain(["ladders", i], `The ladder "${ladder.name}" uses "${name}", which is neither in the codebook nor a scale.`);
    }
    for (const { role, name } of ladderSettingsVariables(ladder)) {
      if (!variables.has(name))
        complain(["ladders", i, role], `The ladder "${ladder.name}" names "${name}" under ${role}, which is not in the codebook.`);
    }
    filterThere(ladder.respondents, `The ladder "${ladder.name}"`, ["ladders", i, "respondents"]);
  });
  const comparisonIds = new Set<string>();
  study.comparisons.forEach((comparison, i) => {
    const at = (path: (string | number)[], message: string) => complain(["comparisons", i, ...path], message);
    if (comparisonIds.has(comparison.id)) at(["id"], `Two comparisons have the id "${comparison.id}".`);
    comparisonIds.add(comparison.id);
    comparison.models.forEach((model, place) => {
      const ladder = study.ladders.find((l) => l.id === model.ladder);
      if (!ladder) at(["models", place], `The comparison "${comparison.name}" names a ladder "${model.ladder}" that is not there.`);
      else if (model.step !== null && model.step > ladder.steps.length)
        at(["models", place], `The ladder "${ladder.name}" has no step ${model.step}.`);
    });
    if (comparison.folds !== null && !variables.has(comparison.folds))
      at(["folds"], `The comparison "${comparison.name}" names "${comparison.folds}" under folds, which is not in the codebook.`);
  });
  return faults;
}

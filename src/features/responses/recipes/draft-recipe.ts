import { newId } from "@/study/model/new-id";
import type { DerivedVariable, Recipe, WrittenRecipe } from "@/study/model/derived";
import type { Edit } from "@/study/model/edit";
import type { Study } from "@/study/model/study";
import { Variable, type VariableKind } from "@/study/model/variable";
import { CASE_WORDS } from "@/study/report/recipe-words";
import { ordersOf } from "@/study/prepare/derive/dates";

/** A derived variable that is being written: new, or one of the study opened again. */
export interface DraftRecipe {
  /** The variable that is opened again; null for a new one. */
  opened: string | null;
  name: string;
  label: string;
  recipe: WrittenRecipe;
}

/** What can be made here: values of a model are saved where the model is. */
export type RecipeKind = WrittenRecipe["kind"];

/** What can be made, in the words of the sentence: "a lookup of …". */
export const RECIPE_WORDS: Record<RecipeKind, { name: string; sentence: string }> = {
  lookup: { name: "recode value by value", sentence: "Each value becomes what this table says." },
  ranges: { name: "cut into ranges", sentence: "Numbers become named ranges." },
  z: { name: "z-score", sentence: "Distance from the mean in standard deviations." },
  centre: { name: "centre at the mean", sentence: "Distance from the mean." },
  transform: { name: "logarithm, root or square", sentence: "One number becomes another." },
  formula: { name: "formula", sentence: "Arithmetic of variables and scales." },
  weighted: { name: "weighted sum", sentence: "Each variable times its weight, added up." },
  indicator: { name: "indicator (0 or 1)", sentence: "1 where the answer is one of these, else 0." },
  years: { name: "years from dates", sentence: "Dates become years." },
};

/** What a recipe makes, in a few words. */
export function recipeName(recipe: Recipe): string {
  switch (recipe.kind) {
    case "case":
      return CASE_WORDS[recipe.statistic];
    case "choice":
    case "ticked":
      return "an answer of several (0 or 1)";
    case "minutes":
      return "minutes taken";
    default:
      return RECIPE_WORDS[recipe.kind].name;
  }
}

/** A name no variable or scale has. */
export function freeName(stem: string, study: Study): string {
  const taken = [...study.codebook.map((v) => v.name), ...study.scales.map((s) => s.id)];
  return newId(stem, taken);
}

/** The edge of a new recipe of ranges, before the distribution is known: no number of a questionnaire is as low. */
export const UNTOUCHED = -1e300;

/** A first recipe of a kind for a variable. */
export function firstRecipe(kind: RecipeKind, from: string, study: Study, texts: readonly string[] = []): WrittenRecipe {
  const variable = study.codebook.find((v) => v.name === from);
  switch (kind) {
    case "lookup":
      return {
        kind,
        from,
        table: (variable?.levels.length ? variable.levels : [{ value: "1", label: "" }]).map((l) => ({
          values: [l.value],
          to: l.label || l.value,
        })),
        otherwise: { kind: "missing" },
      };
    case "ranges":
      return { kind, from, edges: [UNTOUCHED], labels: ["low", "high"] };
    case "transform":
      return { kind, from, by: "ln" };
    case "formula":
      return { kind, formula: from };
    case "weighted":
      return { kind, parts: [{ variable: from, weight: 1 }] };
    case "indicator":
      return { kind, from, equals: [variable?.levels[0]?.value ?? "1"] };
    case "years":
      return { kind, from, order: ordersOf(texts.slice(0, 200))[0] ?? "year-month-day", count: "calendar", to: null };
    default:
      return { kind, from };
  }
}

/** The name a new variable of a kind would get. */
export function firstName(kind: RecipeKind, from: string, study: Study): string {
  const endings: Record<RecipeKind, string> = {
    lookup: "recoded",
    ranges: "group",
    z: "z",
    centre: "c",
    transform: "t",
    formula: "new",
    weighted: "sum",
    indicator: "is",
    years: "years",
  };
  return freeName(`${from} ${endings[kind]}`, study);
}

/** What kind of variable a recipe makes. */
export function kindOf(recipe: Recipe): VariableKind {
  if (recipe.kind === "ranges") return "category";
  if (recipe.kind !== "lookup") return "number";
  const targets = recipe.table.flatMap((row) => (row.to === null ? [] : [row.to]));
  return targets.every((to) => !Number.isNaN(Number(to))) && recipe.otherwise.kind !== "keep" ? "number" : "category";
}

/** The levels of a category a recipe makes, in order. */
export function levelsOf(recipe: Recipe): string[] {
  if (recipe.kind === "ranges") return recipe.labels;
  if (recipe.kind !== "lookup") return [];
  const targets = recipe.table.flatMap((row) => (row.to === null ? [] : [row.to]));
  return [...new Set([...targets, ...(recipe.otherwise.kind === "value" ? [recipe.otherwise.value] : [])])];
}

/** A variable of the study opened again; null for one that is not written here. */
export function reopened(derived: DerivedVariable, study: Study): DraftRecipe | null {
  const { recipe } = derived;
  if (recipe.kind === "case" || recipe.kind === "choice" || recipe.kind === "ticked" || recipe.kind === "minutes") return null;
  const label = study.codebook.find((v) => v.name === derived.name)?.label ?? "";
  return { opened: derived.name, name: derived.name, label, recipe };
}

/** The edits that make an indicator for each level of a category, under free names. */
export function indicatorsOf(from: string, study: Study): Edit[] {
  const variable = study.codebook.find((v) => v.name === from);
  let taken: Study = study;
  return (variable?.levels ?? []).flatMap(({ value, label }): Edit[] => {
    const name = freeName(`${from} ${label || value}`, taken);
    const row = Variable.parse({ name, label: `${variable!.label || from}: ${label || value}`.slice(0, 2000) });
    taken = { ...taken, codebook: [...taken.codebook, row] };
    return [
      { subject: "variable", id: name, to: row, at: taken.codebook.length },
      { subject: "derived", id: name, to: { name, recipe: { kind: "indicator", from, equals: [value] } } },
    ];
  });
}

import type { DerivedVariable, Recipe } from "./derived";
import { formulaNames } from "./formula";
import { ladderNames } from "./ladder";
import type { Condition, RespondentFilter } from "./respondent-filter";
import { type Scale, scoredOverSample } from "./scale";

/** The parts of a study that stand on one another. */
export interface Dependencies {
  readonly derived?: readonly DerivedVariable[] | undefined;
  readonly filters?: readonly RespondentFilter[] | undefined;
  readonly scales: readonly Pick<Scale, "id" | "items" | "rule" | "weigh">[];
}

/**
 * The variables and scales a recipe names. A formula that cannot be read names none: its fault is told where it is evaluated.
 */
export function recipeInputs(recipe: Recipe): string[] {
  switch (recipe.kind) {
    case "formula":
      return formulaNames(recipe.formula);
    case "weighted":
      return recipe.parts.map((part) => part.variable);
    case "case":
      return ladderNames(recipe.ladder);
    case "years":
      return recipe.to?.kind === "variable" ? [recipe.from, recipe.to.variable] : [recipe.from];
    default:
      return [recipe.from];
  }
}

/** The variables and scales a filter names. */
export function filterInputs(filter: Pick<RespondentFilter, "conditions">): string[] {
  const inputs = (condition: Condition) => {
    switch (condition.kind) {
      case "values":
      case "between":
        return [condition.variable];
      case "answered":
        return condition.variables;
      case "formula":
        return formulaNames(condition.formula);
      case "not-rows":
        return [];
    }
  };
  return [...new Set(filter.conditions.flatMap(inputs))];
}

/** What one name stands on directly. What is worked out over "the respondents in the study" stands on what decides who is in it. */
function directInputs(study: Dependencies, name: string): string[] {
  const whoIsIn = () => (study.filters ?? []).filter((f) => f.everywhere).flatMap((f) => filterInputs(f));
  const scale = study.scales.find((s) => s.id === name);
  if (scale) return [...scale.items.map((item) => item.variable), ...(scoredOverSample(scale) ? whoIsIn() : [])];
  const derived = study.derived?.find((d) => d.name === name);
  if (!derived) return [];
  const { recipe } = derived;
  const overSample = recipe.kind === "z" || recipe.kind === "centre" || recipe.kind === "case";
  const named = (study.filters ?? []).filter((f) => f.id === recipeFilter(recipe)).flatMap((f) => filterInputs(f));
  return [...recipeInputs(recipe), ...(overSample ? whoIsIn() : []), ...named];
}

/** The named filter a recipe keeps to; null for none. */
export function recipeFilter(recipe: Recipe): string | null {
  return recipe.kind === "case" ? recipe.ladder.respondents : null;
}

/** The named filters that derived variables among the names keep to. */
export function filtersBehind(study: Dependencies, names: ReadonlySet<string>): string[] {
  return (study.derived ?? []).flatMap((d) => {
    const filter = names.has(d.name) ? recipeFilter(d.recipe) : null;
    return filter === null ? [] : [filter];
  });
}

/** Every name that the given ones stand on, themselves included: derived variables, scales and columns of the file. */
export function namesBehind(study: Dependencies, names: readonly string[]): Set<string> {
  const found = new Set<string>();
  const waiting = [...names];
  for (let name = waiting.pop(); name !== undefined; name = waiting.pop()) {
    if (found.has(name)) continue;
    found.add(name);
    waiting.push(...directInputs(study, name));
  }
  return found;
}

/** The columns of the file that names stand on, with those of the filters that hold everywhere or are named. */
export function columnsBehind(study: Dependencies, names: readonly string[], filters: readonly (string | null)[] = []): string[] {
  const chosen = (study.filters ?? []).filter((f) => f.everywhere || filters.includes(f.id));
  const all = namesBehind(study, [...names, ...chosen.flatMap((f) => filterInputs(f))]);
  const worked = new Set([...study.scales.map((s) => s.id), ...(study.derived ?? []).map((d) => d.name)]);
  return [...all].filter((name) => !worked.has(name));
}

/** Names that stand on one another in a circle, the first repeated at the end; null when there is none. */
export function cycleAmong(study: Dependencies): string[] | null {
  const done = new Set<string>();
  const path: string[] = [];
  const visit = (name: string): string[] | null => {
    const at = path.indexOf(name);
    if (at >= 0) return [...path.slice(at), name];
    if (done.has(name)) return null;
    path.push(name);
    for (const input of directInputs(study, name)) {
      const cycle = visit(input);
      if (cycle) return cycle;
    }
    path.pop();
    done.add(name);
    return null;
  };
  for (const name of [...(study.derived ?? []).map((d) => d.name), ...study.scales.map((s) => s.id)]) {
    const cycle = visit(name);
    if (cycle) return cycle;
  }
  return null;
}

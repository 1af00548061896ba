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
    case "ticked":
      return recipe.block;
    case "minutes":
      return [recipe.from, recipe.to];
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

/** Scales, derived variables and filters by the names they go by: looked up a thousand times where there are a thousand. */
interface Index {
  readonly scales: ReadonlyMap<string, Dependencies["scales"][number]>;
  readonly derived: ReadonlyMap<string, DerivedVariable>;
  readonly filters: ReadonlyMap<string, RespondentFilter>;
  /** What decides who is in the study. */
  readonly whoIsIn: readonly string[];
  /** What each name stands on directly, once it has been asked. */
  readonly inputs: Map<string, readonly string[]>;
}

const indices = new WeakMap<readonly unknown[], { index: Index; of: readonly unknown[] }>();

/** Made once for the lists of a study as they are: a changed study has other lists. */
function indexOf({ scales, derived = NONE, filters = NONE }: Dependencies): Index {
  const known = indices.get(derived);
  if (known && known.of[0] === scales && known.of[1] === filters) return known.index;
  const index: Index = {
    scales: new Map(scales.map((s) => [s.id, s])),
    derived: new Map((derived as readonly DerivedVariable[]).map((d) => [d.name, d])),
    filters: new Map((filters as readonly RespondentFilter[]).map((f) => [f.id, f])),
    whoIsIn: (filters as readonly RespondentFilter[]).filter((f) => f.everywhere).flatMap((f) => filterInputs(f)),
    inputs: new Map(),
  };
  if (derived !== NONE) indices.set(derived, { index, of: [scales, filters] });
  return index;
}

const NONE: readonly never[] = [];

/** What one name stands on directly. What is worked out over "the respondents in the study" stands on what decides who is in it. */
function directInputs(index: Index, name: string): readonly string[] {
  const known = index.inputs.get(name);
  if (known) return known;
  const found = inputsOf(index, name);
  index.inputs.set(name, found);
  return found;
}

function inputsOf({ scales, derived, filters, whoIsIn }: Index, name: string): readonly string[] {
  const scale = scales.get(name);
  if (scale) return [...scale.items.map((item) => item.variable), ...(scoredOverSample(scale) ? whoIsIn : [])];
  const recipe = derived.get(name)?.recipe;
  if (!recipe) return NONE;
  const overSample = recipe.kind === "z" || recipe.kind === "centre" || recipe.kind === "case";
  const named = filters.get(recipeFilter(recipe) ?? "");
  return [...recipeInputs(recipe), ...(overSample ? whoIsIn : []), ...(named ? filterInputs(named) : [])];
}

/** The named filter a recipe keeps to; null for none. */
export function recipeFilter(recipe: Recipe): string | null {
  return recipe.kind === "case" ? recipe.ladder.respondents : null;
}

/** The named filters that derived variables among the names keep to. */
export function filtersBehind(study: Dependencies, names: ReadonlySet<string>): string[] {
  const { derived } = indexOf(study);
  return [...names].flatMap((name) => {
    const recipe = derived.get(name)?.recipe;
    const filter = recipe ? recipeFilter(recipe) : null;
    return filter === null ? [] : [filter];
  });
}

/** Every name that the given ones stand on, themselves included: derived variables, scales and columns of the file. */
export function namesBehind(study: Dependencies, names: readonly string[]): Set<string> {
  const index = indexOf(study);
  const found = new Set<string>();
  const waiting = [...names];
  for (let name = waiting.pop(); name !== undefined; name = waiting.pop()) {
    if (found.has(name)) continue;
    found.add(name);
    waiting.push(...directInputs(index, name));
  }
  return found;
}

/** The columns of the file that names stand on, with those of the filters that hold everywhere or are named. */
export function columnsBehind(study: Dependencies, names: readonly string[], filters: readonly (string | null)[] = []): string[] {
  const chosen = (study.filters ?? []).filter((f) => f.everywhere || filters.includes(f.id));
  const all = namesBehind(study, [...names, ...chosen.flatMap((f) => filterInputs(f))]);
  const { scales, derived } = indexOf(study);
  return [...all].filter((name) => !scales.has(name) && !derived.has(name));
}

/** How names stand on one another: a circle of them, the first repeated at the end, or null; and how many stand on one another in the longest row. */
export function chainsAmong(study: Dependencies): { cycle: string[] | null; longest: number } {
  const index = indexOf(study);
  const done = new Map<string, number>();
  let longest = 0;
  // a path of its own instead of the program's stack: a chain of thousands is no circle
  for (const first of [...index.derived.keys(), ...index.scales.keys()]) {
    const path: { name: string; next: number }[] = [{ name: first, next: 0 }];
    const onPath = new Set([first]);
    while (path.length > 0) {
      const here = path.at(-1)!;
      const input = done.has(here.name) ? undefined : directInputs(index, here.name)[here.next++];
      if (input === undefined) {
        const below = directInputs(index, here.name).reduce((most, name) => Math.max(most, done.get(name) ?? 0), 0);
        done.set(here.name, below + 1);
        longest = Math.max(longest, below + 1);
        onPath.delete(here.name);
        path.pop();
      } else if (onPath.has(input)) {
        const names = path.map((one) => one.name);
        return { cycle: [...names.slice(names.indexOf(input)), input], longest };
      } else if (!done.has(input)) {
        path.push({ name: input, next: 0 });
        onPath.add(input);
      }
    }
  }
  return { cycle: null, longest };
}

import { ladderPredictors } from "../../model/ladder";
import { type Formula, parseFormula } from "../../model/formula";
import type { Recipe } from "../../model/derived";
import { counted } from "../format-number";
import type { LadderWatch } from "./ladder-fix";
import type { WatchInput } from "./watch-input";
import { fixesAt, placeOf } from "./term-place";

/** Fewer respondents than this may well all differ by chance. */
const FEW = 20;
/** A number with so few whole values may be codes of a category. */
const MOST_LEVELS = 6;

/** Predictors that look like something else than they are taken for. */
export function looksWatches({ study, ladder, result: { fit, looks }, title }: WatchInput): LadderWatch[] {
  const watches: LadderWatch[] = [];
  for (const { name, whole, distinct, allDifferent } of looks) {
    const variable = study.codebook.find((v) => v.name === name && v.kind === "number");
    if (!variable) continue;
    if (allDifferent && whole && fit.n >= FEW) {
      watches.push({
        id: `identifier ${name}`,
        words: `Every respondent has another ${title(name)}, and all are whole numbers: it reads like a number of the respondents.`,
        fixes: [...fixesAt("remove-term", ladder, name), { do: "kind", variable: name, kind: "code" }],
      });
    }
    const labelled = variable.levels.length >= 3;
    const fewValues = whole && distinct !== null && distinct >= 3 && distinct <= MOST_LEVELS && variable.range === null;
    if (distinct !== null && distinct >= 3 && (labelled || fewValues)) {
      watches.push({
        id: `codes ${name}`,
        words: `${title(name)} enters as a number and has ${counted(distinct, "different value")}${labelled ? ", with words for them" : ", all whole"}. If they are codes of a category, a slope along them means nothing.`,
        fixes: [{ do: "kind", variable: name, kind: "category" }],
      });
    }
  }
  for (const name of ladderPredictors(ladder)) {
    const recipe = study.derived.find((d) => d.name === name)?.recipe;
    const factors = recipe && factorsOf(recipe);
    const place = placeOf(ladder, name);
    if (!factors || !place) continue;
    watches.push({
      id: `multiplied ${name}`,
      words: `${title(name)} is ${factors.map((name) => title(name)).join(" × ")}, multiplied before it came here: its β is that of a product standardized as a whole, and its parts are not centred.`,
      fixes: [{ do: "replace-term", ...place, by: factors }],
    });
  }
  return watches;
}

/** The two or more variables that a formula multiplies with one another, and nothing else; null for any other recipe. */
function factorsOf(recipe: Recipe): string[] | null {
  if (recipe.kind !== "formula") return null;
  const names = (formula: Formula): string[] | null => {
    if (formula.kind === "name") return [formula.name];
    if (formula.kind !== "binary" || formula.by !== "*") return null;
    const [left, right] = [names(formula.left), names(formula.right)];
    return left && right && [...left, ...right];
  };
  try {
    const found = names(parseFormula(recipe.formula));
    return found && found.length > 1 ? found : null;
  } catch {
    return null; // a formula that cannot be read: its own place says so
  }
}

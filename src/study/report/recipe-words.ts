import type { CaseStatistic, Recipe } from "../model/derived";
import type { Condition } from "../model/respondent-filter";
import type { DerivedFacts } from "../prepare/derive/derived-column";
import { counted, formatCount, formatNumber, formatPlain, listed } from "./format-number";

/** What a model tells of each respondent, in words. */
export const CASE_WORDS: Record<CaseStatistic, string> = {
  predicted: "predicted value",
  residual: "residual",
  standardized: "standardized residual",
  studentized: "studentized residual",
  deleted: "deleted studentized residual",
  leverage: "leverage",
  "cooks-d": "Cook’s distance",
  dffits: "DFFITS",
};

type Title = (name: string) => string;

const TRANSFORM_WORDS = { ln: "natural logarithm", log10: "logarithm to base 10", root: "square root", square: "square" } as const;
const YEAR_WORDS = { calendar: "year", completed: "completed years", exact: "years with decimals" } as const;

/** A recipe in a sentence without its name. */
export function recipeWords(recipe: Recipe, title: Title): string {
  switch (recipe.kind) {
    case "lookup": {
      const parts = recipe.table.slice(0, 4).map((row) => `${row.values.join(", ")} → ${row.to ?? "missing"}`);
      const rest = { keep: "stays as it is", missing: "is missing", value: "" }[recipe.otherwise.kind];
      const otherwise = recipe.otherwise.kind === "value" ? `becomes ${recipe.otherwise.value}` : rest;
      return `${title(recipe.from)} recoded (${parts.join("; ")}${recipe.table.length > 4 ? "; …" : ""}); anything else ${otherwise}.`;
    }
    case "ranges":
      return `${title(recipe.from)} cut at ${listed(recipe.edges.map(formatPlain))} into ${listed(recipe.labels)}.`;
    case "z":
      return `z-score of ${title(recipe.from)}.`;
    case "centre":
      return `${title(recipe.from)} minus its mean.`;
    case "transform":
      return `${TRANSFORM_WORDS[recipe.by]} of ${title(recipe.from)}.`;
    case "formula":
      return `${recipe.formula}.`;
    case "weighted":
      return `${recipe.parts.map((p) => `${formatPlain(p.weight)} × ${title(p.variable)}`).join(" + ")}.`;
    case "indicator":
      return `1 where ${title(recipe.from)} is ${recipe.equals.join(" or ")}, else 0.`;
    case "case":
      return `${CASE_WORDS[recipe.statistic]} of ${recipe.ladder.name}, step ${recipe.step}, as the ladder stood then.`;
    case "choice":
      return `1 where ${title(recipe.from)} names ${recipe.answer} among others, 0 where it names others only.`;
    case "ticked":
      return `1 where ${title(recipe.from)} is filled, 0 where only others of ${recipe.block.length} are.`;
    case "minutes":
      return `minutes from ${title(recipe.from)} to ${title(recipe.to)}.`;
    case "years":
      if (recipe.to === null) return `${YEAR_WORDS[recipe.count]} of ${title(recipe.from)}.`;
      return `${YEAR_WORDS[recipe.count]} from ${title(recipe.from)} to ${recipe.to.kind === "day" ? recipe.to.day : title(recipe.to.variable)}.`;
  }
}

/** How a derived variable came out, losses first. */
export function derivedFactWords(facts: DerivedFacts): string {
  const words = [`${formatCount(facts.valid)} of ${formatCount(facts.rows)} respondents have a value.`];
  if (facts.missingInputs > 0) words.push(`${counted(facts.missingInputs, "has", "have")} none because an answer is missing.`);
  if (facts.undefined > 0) words.push(`${counted(facts.undefined, "answer gives", "answers give")} no value.`);
  if (facts.unmatchedRows > 0) {
    const shown = facts.unmatched.slice(0, 5).map((u) => `${u.value} (${u.count})`);
    words.push(`The table does not mention ${listed(shown)}${facts.unmatched.length > 5 ? " and more" : ""}.`);
  }
  if (facts.unmet.length > 0) words.push(unmetWords(facts.unmet));
  return words.join(" ");
}

/** That values stand in a rule and nobody has them. */
export function unmetWords(unmet: readonly string[]): string {
  const shown = unmet.slice(0, 5).map((value) => `“${value}”`);
  return `No cell reads ${shown.join(" or ")}${unmet.length > 5 ? " and others that are named" : ""}.`;
}

/** A condition as it reads after "Keeps respondents". */
export function conditionWords(condition: Condition, title: Title): string {
  switch (condition.kind) {
    case "values":
      return `whose ${title(condition.variable)} is ${condition.not ? "not " : ""}${condition.equals.join(" or ")}`;
    case "between": {
      const { low, high } = condition;
      const name = `whose ${title(condition.variable)} is`;
      if (low === null) return `${name} at most ${formatPlain(high!)}`;
      return high === null ? `${name} at least ${formatPlain(low)}` : `${name} from ${formatPlain(low)} to ${formatPlain(high)}`;
    }
    case "answered":
      return `who answered at least ${formatNumber(condition.share * 100, 0)} % of ${counted(condition.variables.length, "variable")}`;
    case "formula":
      return `for whom ${condition.formula}`;
    case "not-rows":
      return condition.rows.length > 8
        ? `other than ${formatCount(condition.rows.length)} chosen ones`
        : `other than ${condition.rows.length === 1 ? "row" : "rows"} ${listed(condition.rows.map(String))}`;
  }
}

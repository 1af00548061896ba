import { termName } from "@/core/regression/terms";
import { correlation } from "@/core/describe/correlation";
import type { LadderModels } from "@/core/regression/ladder";

/** What can be seen of a numeric predictor's values on the sample, whatever the codebook says of it. */
export interface PredictorLook {
  name: string;
  /** True when every value is a whole number. */
  whole: boolean;
  /** How many different values there are; null when more than a category would have. */
  distinct: number | null;
  /** True when no two respondents have the same value. */
  allDifferent: boolean;
}

/** Two numeric variables whose product stands in the ladder, and how they go together. */
export interface ProductPair {
  term: string;
  names: readonly [string, string];
  r: number;
}

/** More different values than this are no codes of a category. */
const MOST_CODES = 12;

/** Looks at every numeric predictor. Stops counting early: a hundred thousand answers are looked at in a moment. */
export function predictorLooks(models: LadderModels): PredictorLook[] {
  return [...models.variables].flatMap(([name, values]) =>
    name === models.spec.outcome || "codes" in values ? [] : [{ name, ...lookAt(values) }],
  );
}

function lookAt(values: Float64Array): Omit<PredictorLook, "name"> {
  const seen = new Set<number>();
  let whole = true;
  let repeated = false;
  for (const value of values) {
    if (!Number.isInteger(value)) whole = false;
    repeated ||= seen.has(value);
    if (!repeated || seen.size <= MOST_CODES) seen.add(value);
    if (repeated && seen.size > MOST_CODES) break; // neither codes of categories nor of respondents
  }
  return { whole, distinct: seen.size > MOST_CODES ? null : seen.size, allDifferent: !repeated };
}

/** The correlations between the two components of each product of two numeric variables. */
export function productPairs(models: LadderModels): ProductPair[] {
  return models.spec.steps.flat().flatMap(({ components }): ProductPair[] => {
    const [a, b] = components;
    if (components.length !== 2 || a === b) return [];
    const [x, m] = [models.variables.get(a!)!, models.variables.get(b!)!];
    if ("codes" in x || "codes" in m) return [];
    const r = correlation(x, m);
    return r === null ? [] : [{ term: termName({ components }), names: [a!, b!], r }];
  });
}

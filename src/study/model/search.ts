import { z } from "zod";
import { SEARCH_METHODS } from "@/core/search/search-methods";
import { ObjectId, VariableName } from "./names";

/** How predictors are looked for. */
export const SearchMethod = z.enum(SEARCH_METHODS);
export type SearchMethod = z.infer<typeof SearchMethod>;

/** So many candidates a search takes at most: more would outnumber the respondents of nearly any study. */
export const MOST_CANDIDATES = 500;

/** A search for predictors of a ladder's outcome, its first steps always in. Always exploratory: p and intervals of what it finds know nothing of it. */
export const Search = z
  .strictObject({
    id: ObjectId,
    /** Whose outcome, respondents and first steps. */
    ladder: ObjectId,
    /** So many of its steps are always in. */
    controls: z.int().min(0).default(1),
    candidates: z
      .array(VariableName)
      .min(1)
      .max(MOST_CANDIDATES)
      .refine((all) => new Set(all).size === all.length, "A candidate is named twice."),
    /** The one whose choice is shown; all are worked out. */
    method: SearchMethod.default("lasso"),
    /** Of the searches by p. */
    enter: z.number().gt(0).lt(1).default(0.05),
    leave: z.number().gt(0).lt(1).default(0.1),
    /** Step of the stagewise search, in SD of the outcome. */
    epsilon: z.number().gt(0).max(0.5).default(0.01),
    steps: z.int().min(1).max(100_000).default(10_000),
    /** Where on the lasso's path: the smallest error of folds, or the sparest within one SE of it. */
    at: z.enum(["minimum", "one-se"]).default("one-se"),
    /** At most so many columns besides the controls; null: where the method itself ends. */
    size: z.int().min(0).max(5000).nullable().default(null),
    /** A variable that says which fold a respondent is in; null: ten, drawn with the seed. */
    folds: VariableName.nullable().default(null),
    /** How often everything is chosen anew on respondents drawn again; null: not asked for. */
    resamples: z.int().min(20).max(5000).nullable().default(null),
    seed: z.int().min(0).max(4_294_967_295).default(1),
  })
  .refine((s) => s.leave >= s.enter, {
    path: ["leave"],
    error: "A limit to leave below that to enter would let a term go in and out for ever.",
  });
export type Search = z.infer<typeof Search>;

import { FoldWithoutControlsError, lassoFolds } from "@/core/search/lasso-folds";
import { chosenPoint, termsOf, waysOn } from "@/core/search/methods";
import { stability } from "@/core/search/stability";
import { foldProducts, wholeProducts } from "@/core/search/training-ground";
import type { Desk } from "../kinds/kind";
import type { Search } from "../model/search";
import type { SearchStability } from "./joined-stability";
import { type PreparedSearch, prepareSearch, type SearchQuestion } from "./analyse-search";

/** The choice of a search made anew on respondents drawn again. Null where there is no search. */
export function stabilityOf(question: SearchQuestion, desk: Desk, range: { first: number; count: number }): SearchStability | null {
  const { search } = question;
  const made = prepared(question, desk);
  if (made === null) return null;
  const { ground, folds, chosen } = made;
  const drawn = stability(ground, folds, search, { seed: search.seed, ...range }, chosen, (done) => desk.progress(done, range.count));
  return { terms: ground.terms.map((term) => term.name), chosen, drawn };
}

/** Ranges of one search follow one another: what they stand on is made once. */
function prepared(question: SearchQuestion, desk: Desk) {
  const shelf = desk.shelf<ReturnType<typeof prepare>>("a search to be drawn again");
  const key = JSON.stringify([desk.study, question]);
  const known = shelf.get(key) ?? prepare(question, desk);
  shelf.clear();
  shelf.set(key, known);
  return known;
}

function prepare(question: SearchQuestion, desk: Desk) {
  const found = prepareSearch(question, desk);
  if ("status" in found) return null;
  const { ground } = found;
  const { folds, lambda } = lassoOf(question.search, found);
  const { method, size } = question.search;
  return { ground, folds, chosen: termsOf(ground, chosenPoint(ground, method, waysOn(ground, question.search), { lambda, size }).places) };
}

function lassoOf({ method, at, size }: Search, { ground, given }: PreparedSearch) {
  const none = { folds: null, lambda: null };
  if (method !== "lasso" || size !== null || "reason" in given) return none;
  try {
    const found = lassoFolds(ground, ground.r, wholeProducts(ground), foldProducts(ground, given.folds));
    return { folds: given.folds, lambda: found.lambda[at === "minimum" ? found.minimum : found.oneSe]! };
  } catch (error) {
    if (error instanceof FoldWithoutControlsError) return none;
    throw error;
  }
}

import type { Folds } from "@/core/comparison/cross-validation";
import type { LadderModels } from "@/core/regression/ladder";
import { type Part, partsByKey, termIdentity, termName } from "@/core/regression/terms";
import { explainedBy } from "@/core/search/explained";
import { FoldWithoutControlsError, type LassoFolds, lassoFolds } from "@/core/search/lasso-folds";
import { bestBySize, chosenPoint, type MethodPoint, refitR2, termsOf, type Ways, waysOn } from "@/core/search/methods";
import { SEARCH_METHODS, type SearchMethod } from "@/core/search/search-methods";
import { searchFolds } from "@/core/search/search-folds";
import { adjusted, searchGround, type SearchGround } from "@/core/search/search-ground";
import { netSteps } from "@/core/search/stagewise";
import { foldProducts, wholeProducts } from "@/core/search/training-ground";
import type { Desk } from "../kinds/kind";
import { activeTerms, type Ladder } from "../model/ladder";
import type { Search } from "../model/search";
import type { AnalysisSample } from "../prepare/analysis-sample";
import { fitLadderOf } from "./analyse-ladder";
import { PerfectFitError, type Refusal, refusalOf } from "./refusal";
import { sampleFolds } from "./sample-folds";

/** The best of a method's points with so many columns besides the controls. */
export interface SizePoint {
  size: number;
  /** In the order given. */
  columns: string[];
  R2: number;
  adjR2: number | null;
  refitR2: number;
  refitAdjR2: number | null;
  /** Of cases held out, where the method may take at most so many columns; null without folds. */
  heldOutR2: number | null;
}

export interface Searched extends Ways {
  ground: SearchGround;
  /** Null: the folds cannot be made, for the reason beside it. */
  folds: LassoFolds | null;
  noFolds: NoFolds | null;
  foldNames: string[];
  bySize: Record<SearchMethod, SizePoint[]>;
}

export type SearchResult =
  | {
      status: "told";
      sample: AnalysisSample;
      /** Steps that are always in. */
      controls: number;
      /** What every column is made of, by its name. */
      parts: ReadonlyMap<string, readonly Part[]>;
      searched: Searched;
      /** Columns that the chosen method takes, and the candidates they belong to; and R² beside the controls'. */
      chosen: SizePoint & { terms: string[]; lambda: number | null };
    }
  | { status: "refused"; sample: AnalysisSample | null; refusal: Refusal };

export interface SearchQuestion {
  search: Search;
  ladder: Ladder;
}

/** The ladder whose last step holds every candidate: who is in, and the columns, are its. */
export function searchLadder({ controls, candidates }: Pick<Search, "controls" | "candidates">, ladder: Ladder): Ladder {
  const kept = ladder.steps.slice(0, controls).map((step) => ({ ...step, terms: activeTerms(step) }));
  const there = new Set(kept.flatMap((step) => step.terms.map(termIdentity)));
  const terms = candidates.map((name) => ({ components: [name], off: false })).filter((term) => !there.has(termIdentity(term)));
  return { ...ladder, steps: [...kept.filter((step) => step.terms.length > 0), { id: "search", name: "", terms, off: false }] };
}

/** What a search stands on: its ladder with all candidates in, and the folds. */
export interface PreparedSearch {
  sample: AnalysisSample;
  wide: Ladder;
  models: LadderModels;
  ground: SearchGround;
  given: ReturnType<typeof sampleFolds>;
}

/** @throws CoreError; a refusal of the ladder is returned */
export function prepareSearch(
  { search, ladder }: SearchQuestion,
  { study, responses, columns }: Desk,
): PreparedSearch | Extract<SearchResult, { status: "refused" }> {
  const wide = searchLadder(search, ladder);
  const found = fitLadderOf(study, wide, responses, columns);
  if (found.status === "refused") return found;
  const { models, sample } = found;
  try {
    // every criterion compares what is left of the outcome
    if (models.fits.at(-1)!.perfect) throw new PerfectFitError({ step: wide.steps.length });
    return {
      sample,
      wide,
      models,
      ground: groundOf(models, wide),
      given: sampleFolds(search.folds, search.seed, columns, sample.rowsUsed),
    };
  } catch (error) {
    return { status: "refused", sample, refusal: refusalOf(error) };
  }
}

/** All methods on one sample: complete on outcome, controls and every candidate. */
export function analyseSearch(question: SearchQuestion, desk: Desk): SearchResult {
  const { search } = question;
  const prepared = prepareSearch(question, desk);
  if ("status" in prepared) return prepared;
  const { ground, given, models, sample } = prepared;
  try {
    const ways = waysOn(ground, search);
    const points = Object.fromEntries(SEARCH_METHODS.map((method) => [method, bestBySize(ground, method, ways)])) as Record<SearchMethod, MethodPoint[]>; // prettier-ignore
    const most = Math.max(...Object.values(points).map((list) => list.at(-1)!.places.length));
    const held: HeldOut | NoFolds = "reason" in given ? { reason: given.reason, fold: null } : heldOut(ground, given, search, most);
    const folds = "reason" in held ? null : held;
    const bySize = Object.fromEntries(
      Object.entries(points).map(([method, list]) => [
        method,
        list.map((one) => sizePoint(ground, one, folds?.R2[method as SearchMethod])),
      ]),
    ) as Searched["bySize"];
    const lambda = folds && folds.lasso.lambda[search.at === "minimum" ? folds.lasso.minimum : folds.lasso.oneSe]!;
    const chosen = chosenPoint(ground, search.method, ways, { lambda, size: search.size });
    const searched: Searched = {
      ground,
      ...(Object.fromEntries(Object.entries(ways).map(([name, way]) => [name, way()])) as unknown as Ways),
      folds: folds?.lasso ?? null,
      noFolds: "reason" in held ? held : null,
      foldNames: "names" in given ? given.names : [],
      bySize,
    };
    const parts = partsByKey(models.spec.steps.flat(), models.design.columns);
    return {
      status: "told",
      sample,
      controls: search.controls,
      parts,
      searched,
      chosen: {
        ...sizePoint(ground, chosen, folds?.R2[search.method]),
        terms: termsOf(ground, chosen.places),
        lambda: search.method === "lasso" && search.size === null ? lambda : null,
      },
    };
  } catch (error) {
    return { status: "refused", sample, refusal: refusalOf(error) };
  }
}

interface HeldOut {
  lasso: LassoFolds;
  R2: Record<SearchMethod, Float64Array>;
}

/** Why there are no folds; `fold` names the one that cannot be left out. */
export interface NoFolds {
  reason: string;
  fold: string | null;
}

/** Errors of held-out cases: of the lasso along λ, and of every method by size. */
function heldOut(
  ground: SearchGround,
  { folds, names }: { folds: Folds; names: readonly string[] },
  limits: Search,
  most: number,
): HeldOut | NoFolds {
  try {
    const whole = wholeProducts(ground);
    const parts = foldProducts(ground, folds);
    return { lasso: lassoFolds(ground, ground.r, whole, parts), R2: searchFolds(ground, whole, parts, folds, limits, most) };
  } catch (error) {
    if (error instanceof FoldWithoutControlsError) return { reason: "fold-without-controls", fold: names[error.fold - 1] ?? null };
    throw error;
  }
}

/** The candidates' columns by term, beside those of the controls. */
function groundOf({ design, spec, y }: LadderModels, wide: Ladder): SearchGround {
  const columnsOf = (term: { components: readonly string[] }) => design.columns.filter((column) => termIdentity(column.term) === termIdentity(term)); // prettier-ignore
  const controls = wide.steps.slice(0, -1).flatMap((step) => activeTerms(step).flatMap(columnsOf));
  const candidates = wide.steps.at(-1)!.terms.map((term) => ({ name: termName(term), columns: columnsOf(term) }));
  return searchGround(controls, candidates, { name: spec.outcome, values: y });
}

/** A point by its columns; R² of its own coefficients, of least squares on them, and of cases held out. */
function sizePoint(ground: SearchGround, { places, beta, R2 }: MethodPoint, held: Float64Array | undefined): SizePoint {
  const { rank } = explainedBy(ground, places);
  const refit = refitR2(ground, places);
  const size = places.length;
  return {
    size,
    columns: places.map((j) => ground.names[j]!),
    R2,
    adjR2: adjusted(ground, R2, beta === null ? rank : size),
    refitR2: refit,
    refitAdjR2: adjusted(ground, refit, rank),
    heldOutR2: held?.[size] ?? null,
  };
}

/** Coefficients after so many steps of the stagewise search. */
export const stagewiseBeta = (of: Searched, after: number) =>
  Float64Array.from(netSteps(of.stages, of.ground.names.length, after), (steps) => steps * of.stages.epsilon);

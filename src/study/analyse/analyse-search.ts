import type { LadderModels } from "@/core/regression/ladder";
import { type Part, partsByKey, termIdentity, termName } from "@/core/regression/terms";
import { FoldWithoutControlsError, type LassoFolds, lassoFolds } from "@/core/search/lasso-folds";
import { type Knot, leastAnglePath, pathAt } from "@/core/search/lasso-path";
import { adjusted, pathR2, searchGround, type SearchGround } from "@/core/search/search-ground";
import { netSteps, stagewise, type Stagewise } from "@/core/search/stagewise";
import { searchTerms, type TermSearch } from "@/core/search/term-search";
import { explainedBy } from "@/core/search/explained";
import type { Desk } from "../kinds/kind";
import { activeTerms, type Ladder } from "../model/ladder";
import type { Search, SearchMethod } from "../model/search";
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
}

export interface Searched {
  ground: SearchGround;
  forwardAic: TermSearch;
  stepwiseAic: TermSearch;
  forwardP: TermSearch;
  stepwiseP: TermSearch;
  stages: Stagewise;
  leastAngle: Knot[];
  lasso: Knot[];
  /** Null: the folds cannot be made, for the reason beside it. */
  folds: LassoFolds | null;
  noFolds: string | null;
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

/** The ladder whose last step holds every candidate: who is in, and the columns, are its. */
export function searchLadder({ controls, candidates }: Pick<Search, "controls" | "candidates">, ladder: Ladder): Ladder {
  const kept = ladder.steps.slice(0, controls).map((step) => ({ ...step, terms: activeTerms(step) }));
  const there = new Set(kept.flatMap((step) => step.terms.map(termIdentity)));
  const terms = candidates.map((name) => ({ components: [name], off: false })).filter((term) => !there.has(termIdentity(term)));
  return { ...ladder, steps: [...kept.filter((step) => step.terms.length > 0), { id: "search", name: "", terms, off: false }] };
}

/** All methods on one sample: complete on outcome, controls and every candidate. */
export function analyseSearch({ search, ladder }: { search: Search; ladder: Ladder }, { study, responses, columns }: Desk): SearchResult {
  const wide = searchLadder(search, ladder);
  const found = fitLadderOf(study, wide, responses, columns);
  if (found.status === "refused") return found;
  const { models, sample } = found;
  try {
    // every criterion compares what is left of the outcome
    if (models.fits.at(-1)!.perfect) throw new PerfectFitError({ step: wide.steps.length });
    const ground = groundOf(models, wide);
    const most = ground.n - 1 - ground.controls;
    const p = { by: "p" as const, enter: search.enter, leave: search.leave };
    const [forwardAic, stepwiseAic] = [false, true].map((both) => searchTerms(ground, { by: "aic" }, both)) as [TermSearch, TermSearch];
    const [forwardP, stepwiseP] = [false, true].map((both) => searchTerms(ground, p, both)) as [TermSearch, TermSearch];
    const stages = stagewise(ground, search.epsilon, search.steps);
    const leastAngle = leastAnglePath(ground, most, false);
    const lasso = leastAnglePath(ground, most, true);
    const given = sampleFolds(search.folds, search.seed, columns, sample.rowsUsed);
    const folds = "reason" in given ? null : foldsOf(ground, given.folds);
    const bySize: Searched["bySize"] = {
      "forward-aic": ofMoves(ground, forwardAic),
      "stepwise-aic": ofMoves(ground, stepwiseAic),
      "forward-p": ofMoves(ground, forwardP),
      "stepwise-p": ofMoves(ground, stepwiseP),
      stagewise: ofStages(ground, stages),
      "least-angle": ofPath(ground, leastAngle.map((knot) => knot.beta)), // prettier-ignore
      lasso: ofPath(ground, lasso.map((knot) => knot.beta)), // prettier-ignore
    };
    const searched: Searched = {
      ground,
      forwardAic,
      stepwiseAic,
      forwardP,
      stepwiseP,
      stages,
      leastAngle,
      lasso,
      folds: folds && "lambda" in folds ? folds : null,
      noFolds: "reason" in given ? given.reason : folds && "reason" in folds ? folds.reason : null,
      foldNames: "names" in given ? given.names : [],
      bySize,
    };
    const parts = partsByKey(models.spec.steps.flat(), models.design.columns);
    return { status: "told", sample, controls: search.controls, parts, searched, chosen: chosenBy(search, searched) };
  } catch (error) {
    return { status: "refused", sample, refusal: refusalOf(error) };
  }
}

function foldsOf(ground: SearchGround, folds: Parameters<typeof lassoFolds>[1]): LassoFolds | { reason: string } {
  try {
    return lassoFolds(ground, folds);
  } catch (error) {
    if (error instanceof FoldWithoutControlsError) return { reason: "fold-without-controls" };
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

/** A point by its columns; R² of its own coefficients, and of least squares on them. */
function point(ground: SearchGround, places: readonly number[], R2: number | null): SizePoint {
  const { share, rank } = explainedBy(ground, places);
  const refitR2 = ground.controlsR2 + (1 - ground.controlsR2) * share;
  const own = R2 ?? refitR2;
  const size = places.length;
  return {
    size,
    columns: places.map((j) => ground.names[j]!),
    R2: own,
    adjR2: adjusted(ground, own, R2 === null ? rank : size),
    refitR2,
    refitAdjR2: adjusted(ground, refitR2, rank),
  };
}

/** Of each size the point with the largest R². */
function best(points: Iterable<{ places: number[]; R2: number | null }>, ground: SearchGround): SizePoint[] {
  const found = new Map<number, { places: number[]; R2: number | null; own: number }>();
  for (const { places, R2 } of points) {
    const own = R2 ?? ground.controlsR2 + (1 - ground.controlsR2) * explainedBy(ground, places).share;
    const known = found.get(places.length);
    if (!known || own > known.own) found.set(places.length, { places, R2, own });
  }
  return [...found].sort((a, b) => a[0] - b[0]).map(([, { places, R2 }]) => point(ground, places, R2));
}

function ofMoves(ground: SearchGround, { moves }: TermSearch): SizePoint[] {
  const places = (terms: readonly string[]) =>
    ground.terms.flatMap((term) => (terms.includes(term.name) ? term.columns : [])).sort((a, b) => a - b);
  return best([{ places: [], R2: null }, ...moves.map((move) => ({ places: places(move.terms), R2: null }))], ground);
}

const inModel = (beta: ArrayLike<number>) => Array.from({ length: beta.length }, (_, j) => j).filter((j) => beta[j] !== 0);

function ofPath(ground: SearchGround, points: readonly Float64Array[]): SizePoint[] {
  return best(points.map((beta) => ({ places: inModel(beta), R2: pathR2(ground, beta) })), ground); // prettier-ignore
}

/** Every step is a point of the path: R² is carried along, c = z′e/(n − 1). */
function ofStages(ground: SearchGround, stages: Stagewise): SizePoint[] {
  const q = ground.names.length;
  const c = ground.r.slice();
  const net = new Int32Array(q);
  let explained = 0;
  const points = function* () {
    yield { places: [] as number[], R2: ground.controlsR2 };
    for (let k = 0; k < stages.steps; k++) {
      const [at, sign] = [stages.columns[k]!, stages.signs[k]!];
      explained += stages.epsilon * (2 * sign * c[at]! - stages.epsilon);
      for (let j = 0; j < q; j++) c[j] = c[j]! - stages.epsilon * sign * ground.G[j * q + at]!;
      net[at]! += sign;
      yield { places: inModel(net), R2: ground.controlsR2 + (1 - ground.controlsR2) * explained };
    }
  };
  return best(points(), ground);
}

/** What the method chooses: where a search ends, or the lasso at its λ; of paths without an end of their own the point with the largest adjusted R². */
function chosenBy(search: Search, searched: Searched): Extract<SearchResult, { status: "told" }>["chosen"] {
  const { ground, folds, bySize } = searched;
  const termsOf = (columns: readonly string[]) =>
    ground.terms.filter((term) => term.columns.some((j) => columns.includes(ground.names[j]!))).map((term) => term.name);
  if (search.method === "lasso" && folds) {
    const lambda = folds.lambda[search.at === "minimum" ? folds.minimum : folds.oneSe]!;
    const beta = pathAt(searched.lasso, lambda);
    const own = point(ground, inModel(beta), pathR2(ground, beta));
    return { ...own, terms: termsOf(own.columns), lambda };
  }
  const ends = { "forward-aic": searched.forwardAic, "stepwise-aic": searched.stepwiseAic, "forward-p": searched.forwardP, "stepwise-p": searched.stepwiseP } as const; // prettier-ignore
  if (search.method in ends) {
    const last = ends[search.method as keyof typeof ends].moves.at(-1);
    const places = ground.terms.flatMap((term) => (last?.terms.includes(term.name) ? term.columns : []));
    const own = point(ground, places, null);
    return { ...own, terms: last?.terms ?? [], lambda: null };
  }
  const own = bySize[search.method].reduce((a, b) => ((b.refitAdjR2 ?? -Infinity) > (a.refitAdjR2 ?? -Infinity) ? b : a));
  return { ...own, terms: termsOf(own.columns), lambda: null };
}

/** Coefficients after so many steps of the stagewise search. */
export const stagewiseBeta = (of: Searched, after: number) =>
  Float64Array.from(netSteps(of.stages, of.ground.names.length, after), (steps) => steps * of.stages.epsilon);

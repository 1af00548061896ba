import { pathAt } from "@/core/search/lasso-path";
import { adjusted, pathR2, rawCoefficients, refitColumns, type SearchGround } from "@/core/search/search-ground";
import type { TermSearch } from "@/core/search/term-search";
import type { Analysis, Desk, WorkedOut } from "../kinds/kind";
import type { Ladder } from "../model/ladder";
import type { Search } from "../model/search";
import { fitLadderOf } from "./analyse-ladder";
import { analyseSearch, type Searched, searchLadder, type SearchResult, type SizePoint, stagewiseBeta } from "./analyse-search";
import type { SearchStability } from "./joined-stability";
import { ladderResults } from "./ladder-results";
import { sampleResults } from "./sample-results";
import { stabilityOf } from "./search-stability";

/** The stagewise search is written whenever its steps add up to so much of an SD of the outcome. */
const EVERY = 0.2;

/** A search under the names of docs/results.md: every method, whichever is shown. */
function searchResults(search: Search, desk: Desk, { dealt }: WorkedOut) {
  const ladder = (desk.objects("ladder") as Ladder[]).find((l) => l.id === search.ladder)!;
  const settings = { ...search, id: undefined };
  const found = analyseSearch({ search, ladder }, desk);
  const sample = found.sample && sampleResults(found.sample);
  if (found.status === "refused") return { settings, status: "refused" as const, refusal: found.refusal, sample };
  const { searched, chosen } = found;
  const { ground, folds } = searched;
  const terms = (of: TermSearch) => ({
    start: of.start,
    moves: Object.fromEntries(of.moves.map(({ terms: _terms, ...move }, k) => [String(k + 1), move])),
    last_considered: of.last,
    ended: of.ended,
    terms: of.moves.at(-1)?.terms ?? [],
    ...refitOf(of.moves.at(-1)?.terms ?? [], search, ladder, desk),
  });
  return {
    settings,
    status: "told" as const,
    exploratory: true,
    sample,
    columns: {
      columns: ground.names,
      controls: ground.raw.controls.map(({ name }) => name),
      controls_R2: ground.controlsR2,
      outcome_sd: ground.outcomeSd,
      candidates: Object.fromEntries(ground.names.map((name, j) => [name, { sd: ground.sds[j]!, r: ground.r[j]! }])),
      left_out: ground.leftOut,
    },
    forward_aic: terms(searched.forwardAic),
    stepwise_aic: terms(searched.stepwiseAic),
    forward_p: terms(searched.forwardP),
    stepwise_p: terms(searched.stepwiseP),
    stagewise: stagewiseResults(searched),
    least_angle: { knots: knots(ground, searched.leastAngle) },
    lasso: { knots: knots(ground, searched.lasso) },
    lasso_cross_validation: folds && {
      lambda: Array.from(folds.lambda),
      mse: Array.from(folds.mse),
      se: Array.from(folds.se),
      position_minimum: folds.minimum + 1,
      position_one_se: folds.oneSe + 1,
      left_out_in_training: Object.fromEntries(folds.leftOut.flatMap((list, f) => (list.length === 0 ? [] : [[searched.foldNames[f]!, list.map((j) => ground.names[j]!)]]))), // prettier-ignore
      fold_mse_at_minimum: Object.fromEntries(searched.foldNames.map((name, f) => [name, folds.folds[f * folds.lambda.length + folds.minimum]!])), // prettier-ignore
    },
    no_folds: searched.noFolds && { reason: searched.noFolds.reason, fold: searched.noFolds.fold },
    lasso_chosen: folds && { minimum: lassoAt(searched, folds.minimum), one_se: lassoAt(searched, folds.oneSe) },
    by_size: Object.fromEntries(
      Object.entries(searched.bySize).map(([method, points]) => [
        method.replaceAll("-", "_"),
        Object.fromEntries(points.map((one) => [String(one.size), pointResults(one)])),
      ]),
    ),
    chosen: { ...pointResults(chosen), terms: chosen.terms, lambda: chosen.lambda },
    stability: search.resamples === null ? null : stabilityResults((dealt as SearchStability | undefined) ?? stabilityOf({ search, ladder }, desk, { first: 0, count: search.resamples })), // prettier-ignore
  };
}

const pointResults = ({ columns, R2, adjR2, refitR2, refitAdjR2, heldOutR2 }: SizePoint) => ({ columns, R2, adjR2, refit_R2: refitR2, refit_adjR2: refitAdjR2, held_out_R2: heldOutR2 }); // prettier-ignore

function stabilityResults(found: SearchStability | null) {
  if (found === null) return null;
  const { resamples, failed, times, sizes, same } = found.drawn;
  return {
    resamples,
    failed,
    times: Object.fromEntries(found.terms.map((term, k) => [term, times[k]!])),
    sizes: Object.fromEntries(Array.from(sizes, (count, size) => [String(size), count] as const).filter(([, count]) => count > 0)),
    same_terms: same,
  };
}

/** Least squares on controls and some terms, on the sample of the search: as a ladder has it. */
function refitOf(terms: readonly string[], search: Search, ladder: Ladder, desk: Desk) {
  if (terms.length === 0) return { model: null, coef: null };
  const wide = searchLadder(search, ladder);
  const last = wide.steps.at(-1)!;
  const kept = { ...last, terms: last.terms.map((term) => ({ ...term, off: !terms.includes(term.components[0]!) })) };
  const only: Ladder = { ...wide, steps: [...wide.steps.slice(0, -1), kept] };
  const results = ladderResults(only, fitLadderOf(desk.study, only, desk.responses, desk.columns), desk.columns);
  const step = results.status === "fitted" ? results.steps[String(only.steps.length)] : undefined;
  return { model: step?.model ?? null, coef: step?.coef ?? null };
}

const named = (ground: SearchGround, beta: ArrayLike<number>) =>
  Object.fromEntries(ground.names.flatMap((name, j) => (beta[j] === 0 ? [] : [[name, beta[j]!] as const])));
const sizeOf = (beta: Float64Array) => beta.reduce((count, value) => count + (value === 0 ? 0 : 1), 0);

function stagewiseResults(searched: Searched) {
  const { ground, stages } = searched;
  const first = new Map<number, number>();
  stages.columns.forEach((column, k) => first.has(column) || first.set(column, k));
  const every = Math.max(1, Math.round(EVERY / stages.epsilon));
  const at = Array.from({ length: Math.floor(stages.steps / every) }, (_, k) => (k + 1) * every);
  const told = [...new Set([...at, stages.steps])].filter((step) => step > 0).slice(-500);
  const net = stagewiseBeta(searched, stages.steps);
  return {
    steps: stages.steps,
    stopped: stages.stopped === "steps" ? "steps" : "no improvement",
    largest_correlation_left: stages.left,
    order: [...first.keys()].map((column) => ground.names[column]!),
    first: Object.fromEntries([...first].map(([column, k]) => [ground.names[column]!, { step: k + 1, sign: stages.signs[k]! }])),
    net_steps: Object.fromEntries(ground.names.map((name, j) => [name, Math.round(net[j]! / stages.epsilon)])),
    at_step: Object.fromEntries(
      told.map((step) => {
        const beta = stagewiseBeta(searched, step);
        return [String(step), { R2: pathR2(ground, beta), beta: named(ground, beta) }];
      }),
    ),
  };
}

function knots(ground: SearchGround, path: Searched["lasso"]) {
  return Object.fromEntries(
    path.map(({ lambda, event, column, beta }, k) => {
      const R2 = pathR2(ground, beta);
      const size = sizeOf(beta);
      return [String(k + 1), { lambda, event, column: column === null ? null : ground.names[column]!, size, beta: named(ground, beta), R2, adjR2: adjusted(ground, R2, size) }]; // prettier-ignore
    }),
  );
}

function lassoAt(searched: Searched, at: number) {
  const { ground, folds } = searched;
  const lambda = folds!.lambda[at]!;
  const beta = pathAt(searched.lasso, lambda);
  const R2 = pathR2(ground, beta);
  const columns = Object.keys(named(ground, beta));
  return {
    lambda,
    mse: folds!.mse[at]!,
    se: folds!.se[at]!,
    columns,
    beta: named(ground, beta),
    b: rawCoefficients(ground, beta),
    R2,
    adjR2: adjusted(ground, R2, columns.length),
    refit: refitColumns(ground, columns),
  };
}

export const analysis: Analysis<Search, { search: Search; ladder: Ladder }, SearchResult> = {
  run: analyseSearch,
  results: searchResults,
  dealt: { count: ({ search }) => search.resamples ?? 0, range: stabilityOf },
};

import { coefficientsOn, explainedBy } from "./explained";
import { type Knot, leastAnglePath, pathAt } from "./lasso-path";
import { adjusted, pathR2, type Searchable } from "./search-ground";
import type { SearchMethod } from "./search-methods";
import { netSteps, stagewise, type Stagewise } from "./stagewise";
import { searchTerms, type TermSearch } from "./term-search";

/** How far each goes. */
export interface SearchLimits {
  /** Below which p a term comes in, above which it leaves. */
  enter: number;
  leave: number;
  /** Of the stagewise search, in SD of the outcome; steps at most. */
  epsilon: number;
  steps: number;
}

/** A point of a method's way. */
export interface MethodPoint {
  /** Columns that are in, by place. */
  places: number[];
  /** Coefficients of all columns in the ground's SDs; null: those of least squares. */
  beta: Float64Array | null;
  /** Of these coefficients, controls included. */
  R2: number;
}

/** What each method does on one ground, in full. */
export interface Ways {
  forwardAic: TermSearch;
  stepwiseAic: TermSearch;
  forwardP: TermSearch;
  stepwiseP: TermSearch;
  stages: Stagewise;
  leastAngle: Knot[];
  lasso: Knot[];
}

/** Each way is worked out when it is asked for first, and once. */
export type LazyWays = { readonly [K in keyof Ways]: () => Ways[K] };

export function waysOn(ground: Searchable, { enter, leave, epsilon, steps }: SearchLimits): LazyWays {
  const most = ground.n - 1 - ground.controls;
  return {
    forwardAic: once(() => searchTerms(ground, { by: "aic" }, false)),
    stepwiseAic: once(() => searchTerms(ground, { by: "aic" }, true)),
    forwardP: once(() => searchTerms(ground, { by: "p", enter, leave }, false)),
    stepwiseP: once(() => searchTerms(ground, { by: "p", enter, leave }, true)),
    stages: once(() => stagewise(ground, epsilon, steps)),
    leastAngle: once(() => leastAnglePath(ground, most, false)),
    lasso: once(() => leastAnglePath(ground, most, true)),
  };
}

function once<T>(make: () => T): () => T {
  let made: { of: T } | null = null;
  return () => (made ??= { of: make() }).of;
}

const MOVES_OF = {
  "forward-aic": "forwardAic",
  "stepwise-aic": "stepwiseAic",
  "forward-p": "forwardP",
  "stepwise-p": "stepwiseP",
} as const;

/** Terms that a search by whole terms ends with. */
const lastTerms = (method: keyof typeof MOVES_OF, ways: LazyWays) => ways[MOVES_OF[method]]().moves.at(-1)?.terms ?? [];

/** Of a method's points with so many columns besides the controls the one with the largest R², by size. */
export function bestBySize(ground: Searchable, method: SearchMethod, ways: LazyWays): MethodPoint[] {
  switch (method) {
    case "stagewise":
      return ofStages(ground, ways.stages());
    case "least-angle":
      return ofPath(ground, ways.leastAngle());
    case "lasso":
      return ofPath(ground, ways.lasso());
    default:
      return ofMoves(ground, ways[MOVES_OF[method]]());
  }
}

/** Coefficients of a point in its ground's SDs. */
export const betaOf = (ground: Searchable, { places, beta }: MethodPoint) => beta ?? coefficientsOn(ground, places);

/** Places of the columns of some terms, in the order of the columns. */
export const placesOf = ({ terms }: Searchable, names: readonly string[]) =>
  terms.flatMap((term) => (names.includes(term.name) ? term.columns : [])).sort((a, b) => a - b);

/** Places of the columns that have a coefficient. */
const inModel = (beta: ArrayLike<number>) => Array.from({ length: beta.length }, (_, j) => j).filter((j) => beta[j] !== 0);

/** Terms of which some column is in, in the order given. */
export const termsOf = ({ terms }: Searchable, places: readonly number[]) =>
  terms.filter((term) => term.columns.some((j) => places.includes(j))).map((term) => term.name);

function best(points: Iterable<MethodPoint>): MethodPoint[] {
  const found = new Map<number, MethodPoint>();
  for (const point of points) {
    const known = found.get(point.places.length);
    if (!known || point.R2 > known.R2) found.set(point.places.length, point);
  }
  return [...found].sort((a, b) => a[0] - b[0]).map(([, point]) => point);
}

const pathPoint = (ground: Searchable, beta: Float64Array): MethodPoint => ({ places: inModel(beta), beta, R2: pathR2(ground, beta) });
const leastSquaresPoint = (ground: Searchable, places: number[]): MethodPoint => ({ places, beta: null, R2: refitR2(ground, places) });

/** R² of least squares on some columns, controls included. */
export const refitR2 = (ground: Searchable, places: readonly number[]) =>
  ground.controlsR2 + (1 - ground.controlsR2) * explainedBy(ground, places).share;

function ofMoves(ground: Searchable, { moves }: TermSearch): MethodPoint[] {
  return best([[], ...moves.map((move) => placesOf(ground, move.terms))].map((places) => leastSquaresPoint(ground, places)));
}

function ofPath(ground: Searchable, knots: readonly Knot[]): MethodPoint[] {
  return best(knots.map(({ beta }) => pathPoint(ground, beta)));
}

/** Every step is a point of the path: R² is carried along, c = z′e/(n − 1). */
function ofStages(ground: Searchable, stages: Stagewise): MethodPoint[] {
  const q = ground.names.length;
  const c = ground.r.slice();
  const net = new Int32Array(q);
  const found = new Map<number, { after: number; R2: number }>([[0, { after: 0, R2: ground.controlsR2 }]]);
  let [explained, size] = [0, 0];
  for (let k = 0; k < stages.steps; k++) {
    const [at, sign] = [stages.columns[k]!, stages.signs[k]!];
    explained += stages.epsilon * (2 * sign * c[at]! - stages.epsilon);
    for (let j = 0; j < q; j++) c[j] = c[j]! - stages.epsilon * sign * ground.G[j * q + at]!;
    if (net[at] === 0) size++;
    net[at]! += sign;
    if (net[at] === 0) size--;
    const R2 = ground.controlsR2 + (1 - ground.controlsR2) * explained;
    const known = found.get(size);
    if (!known || R2 > known.R2) found.set(size, { after: k + 1, R2 });
  }
  return [...found]
    .sort((a, b) => a[0] - b[0])
    .map(([, { after, R2 }]) => {
      const beta = Float64Array.from(netSteps(stages, q, after), (steps) => steps * stages.epsilon);
      return { places: inModel(beta), beta, R2 };
    });
}

/** λ of the lasso's folds, null where there are none; and at most so many columns where somebody has said so. */
export interface Chooses {
  lambda: number | null;
  size: number | null;
}

/** Columns that a method chooses: the best of at most so many; otherwise where a search ends, the lasso at its λ, a path without an end of its own where least squares have the largest adjusted R². */
export function chosenPoint(ground: Searchable, method: SearchMethod, ways: LazyWays, { lambda, size }: Chooses): MethodPoint {
  if (size !== null) return bestBySize(ground, method, ways).filter((point) => point.places.length <= size).reduce((a, b) => (b.R2 > a.R2 ? b : a)); // prettier-ignore
  switch (method) {
    case "forward-aic":
    case "stepwise-aic":
    case "forward-p":
    case "stepwise-p":
      return leastSquaresPoint(ground, placesOf(ground, lastTerms(method, ways)));
    case "lasso":
      if (lambda !== null) return pathPoint(ground, pathAt(ways.lasso(), lambda));
  }
  return largestAdjusted(ground, bestBySize(ground, method, ways));
}

/** The point whose least squares have the largest adjusted R². */
function largestAdjusted(ground: Searchable, points: readonly MethodPoint[]): MethodPoint {
  const value = ({ places }: MethodPoint) => {
    const { share, rank } = explainedBy(ground, places);
    return adjusted(ground, ground.controlsR2 + (1 - ground.controlsR2) * share, rank) ?? -Infinity;
  };
  return points.reduce((a, b) => (value(b) > value(a) ? b : a));
}

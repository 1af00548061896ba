import { mean } from "../describe/mean";
import { randomStream, type RandomStream } from "../random/random-stream";
import { seededCounts } from "../resampling/draw";
import { shuffle } from "../random/shuffle";
import { explainedBy } from "../search/explained";
import type { Searchable, SearchGround } from "../search/search-ground";
import { foldProducts, trainingGround } from "../search/training-ground";

/** Each term's share of R²: what it adds, averaged over all orders of entry. */
export interface Importance {
  /** By term, in the order given; they add up to R² − R² of the controls. */
  shares: Float64Array;
  /** Orders they are averaged over: all there are, or so many that were drawn. */
  orders: number;
  drawn: boolean;
  R2: number;
  controlsR2: number;
}

/** Up to so many terms all orders are taken, by subsets; beyond, some are drawn. */
export const MOST_EXACT = 15;
const DRAWN = 10_000;

/**
 * General dominance, the controls first and apart, a product only after its parts.
 * @param parents of each term, the places of those that must be in before it
 * Source: Budescu (1993), Psychological Bulletin 114, 542–551; Lindeman, Merenda & Gold (1980).
 */
export function importance(ground: Searchable, parents: readonly (readonly number[])[], seed = 1): Importance {
  const m = ground.terms.length;
  const outside = 1 - ground.controlsR2;
  const all = explainedBy(
    ground,
    ground.terms.flatMap((term) => term.columns),
  );
  const whole = { R2: ground.controlsR2 + outside * all.share, controlsR2: ground.controlsR2 };
  const found = m <= MOST_EXACT ? bySubsets(ground, parents) : byOrders(ground, parents, seed);
  return { ...found, ...whole, shares: found.shares.map((share) => share * outside) };
}

/**
 * The same shares on resamples of the cases, drawn with replacement: resample r draws from the stream of (seed, r), so that ranges can be dealt out.
 * @param told after each resample; may throw to stop
 * @returns resamples × terms, row-major; NaN where the controls cannot be fitted on what was drawn
 */
export function importanceResamples(
  ground: SearchGround,
  parents: readonly (readonly number[])[],
  { seed, first, count }: { seed: number; first: number; count: number },
  told: (done: number) => void = () => {},
): Float64Array {
  const { n, raw } = ground;
  const m = ground.terms.length;
  const y = raw.outcome.values;
  const centre = mean(y);
  const found = new Float64Array(count * m);
  const one = { of: new Int32Array(n), count: 1 };
  for (let k = 0; k < count; k++) {
    const times = seededCounts(n, seed, first + k);
    const training = trainingGround(ground, foldProducts(ground, one, times)[0]!);
    let [sum, squares] = [0, 0];
    times.forEach((often, i) => {
      sum += often * (y[i]! - centre);
      squares += often * (y[i]! - centre) ** 2;
    });
    // what the controls explain of what was drawn
    const own = training && { ...training.ground, controlsR2: ground.controls === 0 ? 0 : 1 - training.ground.rest / (squares - sum ** 2 / n) }; // prettier-ignore
    found.set(own ? importance(own, parents, seed).shares : new Float64Array(m).fill(NaN), k * m);
    told(k + 1);
  }
  return found;
}

/** How many orders lead to a subset and on from it weigh what a term adds there. */
function bySubsets(ground: Searchable, parents: readonly (readonly number[])[]) {
  const m = parents.length;
  const size = 1 << m;
  const before = parents.map((list) => list.reduce((mask, at) => mask | (1 << at), 0));
  const ways = new Float64Array(size);
  const onward = new Float64Array(size);
  const share = new Float64Array(size).fill(NaN);
  const of = (mask: number) => {
    if (Number.isNaN(share[mask]!)) {
      const columns = ground.terms.flatMap((term, at) => (mask & (1 << at) ? term.columns : []));
      share[mask] = explainedBy(ground, columns).share;
    }
    return share[mask]!;
  };
  const mayEnter = (mask: number, at: number) => !(mask & (1 << at)) && (mask & before[at]!) === before[at];
  ways[0] = 1;
  for (let mask = 0; mask < size; mask++) {
    if (ways[mask] === 0) continue;
    for (let at = 0; at < m; at++) if (mayEnter(mask, at)) ways[mask | (1 << at)]! += ways[mask]!;
  }
  onward[size - 1] = 1;
  for (let mask = size - 2; mask >= 0; mask--)
    for (let at = 0; at < m; at++) if (mayEnter(mask, at)) onward[mask]! += onward[mask | (1 << at)]!;
  const shares = new Float64Array(m);
  for (let mask = 0; mask < size; mask++) {
    if (ways[mask] === 0) continue;
    for (let at = 0; at < m; at++) {
      if (!mayEnter(mask, at)) continue;
      const next = mask | (1 << at);
      shares[at]! += ((ways[mask]! * onward[next]!) / ways[size - 1]!) * (of(next) - of(mask));
    }
  }
  return { shares, orders: ways[size - 1]!, drawn: false };
}

function byOrders(ground: Searchable, parents: readonly (readonly number[])[], seed: number) {
  const m = parents.length;
  const next = lawfulOrders(parents, randomStream(seed));
  const shares = new Float64Array(m);
  for (let draw = 0; draw < DRAWN; draw++) {
    const order = next();
    const columns = Array.from(order, (at) => ground.terms[at]!.columns).flat();
    const { gains } = explainedBy(ground, columns);
    let column = 0;
    for (const at of order) for (let k = 0; k < ground.terms[at]!.columns.length; k++) shares[at]! += gains[column++]! / DRAWN;
  }
  return { shares, orders: DRAWN, drawn: true };
}

/**
 * Orders in which nothing comes before its parts, each as likely as any other. Where there are parts, by swaps of neighbours that the parts allow, 2·m² from one to
 * the next; without any, each is drawn by itself.
 * Source: Karzanov & Khachiyan (1991), Order 8, 7–15.
 */
function lawfulOrders(parents: readonly (readonly number[])[], stream: RandomStream): () => Int32Array {
  const m = parents.length;
  const depth = (at: number): number => parents[at]!.reduce((most, one) => Math.max(most, 1 + depth(one)), 0);
  const order = Int32Array.from({ length: m }, (_, at) => at).sort((a, b) => depth(a) - depth(b) || a - b);
  if (parents.every((list) => list.length === 0)) {
    return () => {
      shuffle(order, stream);
      return order;
    };
  }
  const mix = (steps: number) => {
    for (let step = 0; step < steps; step++) {
      const drawn = stream.below(2 * (m - 1));
      const k = drawn >> 1;
      // every second time all stays: else odd and even orders would take turns
      if (drawn & 1 || parents[order[k + 1]!]!.includes(order[k]!)) continue;
      [order[k], order[k + 1]] = [order[k + 1]!, order[k]!];
    }
  };
  mix(4 * m ** 3);
  return () => {
    mix(2 * m ** 2);
    return order;
  };
}

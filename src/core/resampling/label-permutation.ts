import type { LadderModels } from "../regression/ladder";
import { randomStream } from "../random/random-stream";
import { shuffle } from "../random/shuffle";
import { engineFor, type EngineKind } from "./engine/choose-engine";
import { LadderOnTape } from "./figures/ladder-on-tape";
import { whitenedRows } from "./figures/whitened-rows";
import type { ReplicateRange } from "./resampler";
import { TapeWriter } from "./tape/tape";
import { unitsOf } from "./units";

/** A slope of one group minus that of another, and how many permutations of the labels put the two at least as far apart. */
export interface PermutedDifference {
  readonly column: string;
  readonly first: number;
  readonly second: number;
  readonly difference: number;
  /** Permutations in which a group could not be fitted are counted here too. */
  beyond: number;
}

/**
 * Do slopes differ between groups more than they would if the groups were names only? Labels are shuffled over the cases; all groups are centred by the
 * whole sample (docs/methods.md, “Bootstrap intervals”). The counts of ranges add up: permutation k draws from the stream of (seed, k).
 * @param models the ladder on all cases together
 * @param labels group of each case, from 0
 */
export function permutedDifferences(
  models: LadderModels,
  step: number,
  labels: Int32Array,
  seed: number,
  { first, count }: ReplicateRange,
  kind: EngineKind = null,
): PermutedDifference[] {
  const upTo = { ...models, fits: models.fits.slice(0, step + 1) };
  const rows = whitenedRows(upTo, unitsOf({ by: "cases" }, labels.length));
  if (!rows) throw new RangeError("a ladder that leaves nothing to explain has no differences to tell from chance");
  const writer = new TapeWriter();
  // of several groups most cases are in the others: sums without a group's own cases cost as much as the group is large
  const ladder = new LadderOnTape(writer, upTo, rows, 0, true);
  const { columns } = models.fits[step]!;
  for (const column of columns) writer.output(ladder.enteredB(step, column));
  const engine = engineFor({ parts: [rows.part], tape: writer.tape() }, kind);
  const groups = labels.reduce((most, label) => Math.max(most, label), 0) + 1;
  const atOnce = Math.floor(engine.batch / groups);
  const slopes = new Float64Array(columns.length * engine.batch);
  /** Slopes of each group under each of some labellings. */
  const fitted = (labellings: readonly Int32Array[]) => {
    // one resample a labelling and group: all cases but the group's own
    const fill = (_: number, countsOf: (r: number) => Uint8Array) => {
      for (const [l, own] of labellings.entries()) {
        const counts = Array.from({ length: groups }, (__, group) => countsOf(l * groups + group));
        for (let i = 0; i < own.length; i++) counts[own[i]!]![i] = 0;
      }
    };
    engine.counted(labellings.length * groups, 1, fill, slopes, engine.batch, 0);
    return (labelling: number, group: number, column: number) => slopes[column * engine.batch + labelling * groups + group]!;
  };
  const observed = fitted([labels]);
  const pairs = Array.from({ length: groups }, (_, a) => Array.from({ length: groups - a - 1 }, (__, i) => [a, a + 1 + i] as const)).flat();
  const found = columns.flatMap((column, at) =>
    pairs.map(([a, b]) => ({ at, column, first: a, second: b, difference: observed(0, a, at) - observed(0, b, at), beyond: 0 })),
  );
  for (let from = first; from < first + count; from += atOnce) {
    const many = Math.min(atOnce, first + count - from);
    const slope = fitted(
      Array.from({ length: many }, (_, k) => {
        const shuffled = labels.slice();
        shuffle(shuffled, randomStream(seed, from + k));
        return shuffled;
      }),
    );
    for (const one of found) {
      const limit = Math.abs(one.difference) * (1 - 1e-12); // the same labelling again differs by rounding alone
      for (let k = 0; k < many; k++) {
        if (!(Math.abs(slope(k, one.first, one.at) - slope(k, one.second, one.at)) < limit)) one.beyond++;
      }
    }
  }
  return found.map(({ column, first: a, second: b, difference, beyond }) => ({ column, first: a, second: b, difference, beyond }));
}

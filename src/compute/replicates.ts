import { holm } from "@/core/distributions/holm";
import type { Figure } from "@/core/resampling/figures/figure";
import type { Expected, Jackknife, Limits } from "@/study/analyse/resampling";
import type { Replicating } from "@/study/kinds/kind";
import { askedKind } from "@/study/kinds/kinds";
import type { ReplicateIntervals } from "@/study/model/replicate-intervals";
import type { Dealing, Job, JobResults } from "./protocol/jobs";

/** Does a job somewhere: in a worker of the page, in a thread, or right here. */
export type RunJob = <K extends Job["kind"]>(job: Extract<Job, { kind: K }>) => Promise<JobResults[K]>;

/** Something to be resampled. `everything`: with figures that only the results document has. */
export type Resampled = Dealing & { everything: boolean };

/** What the replicates of something depend on: two ways of reading limits from them share them. */
export function resampled(asked: Dealing, everything: boolean): Resampled {
  const { kind, spec } = asked.of;
  const { context, rows } = asked;
  return { context, rows, of: { kind, spec: askedKind(kind).replicated?.(spec) ?? spec }, everything };
}

/** Replicates so far, in the ranges they were drawn in: figure after figure within each. */
export interface ReplicatesSoFar {
  pieces: { values: Float64Array; count: number }[];
  redrawn: number;
  count: number;
  /** How many there will be. */
  of: number;
}

/** So many come first: enough for a first look at every interval. */
const FIRST = 500;
/** So often a range is tried: what breaks down every worker is not the worker's fault. */
const MOST_TRIES = 3;
/** Most numbers that are sent for their limits at a time: more would hold up the page while they are gathered. */
const MOST_NUMBERS = 500_000;

/**
 * Replicates, in ranges that can be dealt out to any number of workers: the numbers are the same.
 * @param atOnce how many ranges are asked for at a time
 * @param told of the first replicates, and of how many there are
 */
export async function drawReplicates(
  run: RunJob,
  asked: Resampled,
  { replicates: of, seed }: Pick<Replicating, "replicates" | "seed">,
  atOnce: number,
  told: { first?: (so: ReplicatesSoFar) => void; progress?: (done: number, of: number) => void } = {},
): Promise<ReplicatesSoFar> {
  const ranges = [
    ...rangesOf(0, Math.min(of, FIRST), Math.ceil(FIRST / atOnce)),
    ...rangesOf(FIRST, of, Math.max(512, Math.ceil(of / 40))),
  ];
  const pieces = new Array<JobResults["replicates"] | undefined>(ranges.length).fill(undefined);
  let [next, done, firstTold] = [0, 0, false];
  const gathered = (upTo: number): ReplicatesSoFar => ({
    pieces: ranges.slice(0, upTo).map(({ count }, i) => ({ values: pieces[i]!.values, count })),
    redrawn: pieces.slice(0, upTo).reduce((sum, p) => sum + p!.redrawn, 0),
    count: ranges.slice(0, upTo).reduce((sum, r) => sum + r.count, 0),
    of,
  });
  const firstRanges = ranges.filter((r) => r.first < FIRST).length;
  const work = async () => {
    while (next < ranges.length) {
      const at = next++;
      const range = ranges[at]!;
      pieces[at] = await again(() => run<"replicates">({ kind: "replicates", ...asked, seed, ...range }));
      done += range.count;
      told.progress?.(done, of);
      if (!firstTold && firstRanges < ranges.length && pieces.slice(0, firstRanges).every(Boolean)) {
        firstTold = true;
        told.first?.(gathered(firstRanges));
      }
    }
  };
  await Promise.all(Array.from({ length: Math.min(atOnce, ranges.length) }, work));
  return gathered(ranges.length);
}

/** What limits need besides replicates. @param step whose β are compared, from 0; null for none */
export function drawJackknife(run: RunJob, asked: Resampled, step: number | null, by: Replicating["by"]): Promise<Jackknife> {
  return again(() => run<"jackknife">({ kind: "jackknife", ...asked, step, accelerated: by === "bca" }));
}

/** What a worker that broke down was doing is done again by another: the numbers are the same. */
export async function again<T>(work: () => Promise<T>): Promise<T> {
  for (let attempt = 1; ; attempt++) {
    try {
      return await work();
    } catch (error) {
      const crashed = (error as { code?: unknown } | null)?.code === "worker-crashed";
      if (!crashed || attempt === MOST_TRIES) throw error;
    }
  }
}

function rangesOf(from: number, to: number, size: number): { first: number; count: number }[] {
  const ranges: { first: number; count: number }[] = [];
  for (let first = from; first < to; first += size) ranges.push({ first, count: Math.min(size, to - first) });
  return ranges;
}

type HowRead = Pick<Replicating, "by" | "confidence">;

/** Limits of every figure, a few figures a job: what a job needs is gathered when one can begin. */
async function limitsOfAll(run: RunJob, jackknife: Jackknife, so: ReplicatesSoFar, { by, confidence }: HowRead): Promise<Limits[]> {
  const { expected } = jackknife;
  const many = Math.max(1, Math.floor(MOST_NUMBERS / so.count));
  const found = new Array<Limits>(expected.length);
  let next = 0;
  const work = async () => {
    while (next < expected.length) {
      const from = next;
      next += many;
      const some = expected.slice(from, from + many);
      const places = some.map((_, i) => from + i);
      const limits = await again(() =>
        run<"limits">({
          kind: "limits",
          values: rowsOf(so, places),
          figures: some.length,
          expected: [...some],
          pairs: null,
          by,
          confidence,
        }),
      );
      limits.forEach((one, i) => (found[from + i] = one));
    }
  };
  await Promise.all([work(), work()]);
  return found;
}

/** The replicates of some figures, one figure after the other. */
function rowsOf({ pieces, count }: ReplicatesSoFar, figures: readonly number[]): Float64Array {
  const rows = new Float64Array(figures.length * count);
  figures.forEach((figure, row) => {
    let at = row * count;
    for (const piece of pieces) {
      rows.set(piece.values.subarray(figure * piece.count, (figure + 1) * piece.count), at);
      at += piece.count;
    }
  });
  return rows;
}

/** The intervals that replicates give: of every figure, and of the differences between the β of one step. */
export async function intervalsOf(
  run: RunJob,
  jackknife: Jackknife,
  so: ReplicatesSoFar,
  { by, confidence }: HowRead,
): Promise<ReplicateIntervals> {
  const { differences } = jackknife;
  const betas = [...new Set(differences.flatMap(({ first, second }) => [first, second]))];
  const pairs = differences.map(({ first, second }) => ({ first: betas.indexOf(first), second: betas.indexOf(second) }));
  const compared: Promise<Limits[]> =
    pairs.length === 0
      ? Promise.resolve([])
      : again(() =>
          run<"limits">({
            kind: "limits",
            values: rowsOf(so, betas),
            figures: betas.length,
            expected: differences.map(({ estimate, acceleration }): Expected => ({ estimate, acceleration })),
            pairs,
            by,
            confidence,
          }),
        );
  const [all, found] = await Promise.all([limitsOfAll(run, jackknife, so, { by, confidence }), compared]);
  const { figures } = jackknife;
  const column = (at: number) => (figures[at] as Extract<Figure, { column: string }>).column;
  const adjusted = holm(found.map((d) => d.p));
  return {
    replicates: so.count,
    redrawn: so.redrawn,
    units: jackknife.units,
    intervals: all.map(({ interval, spread }, k) => ({ figure: figures[k]!, interval, spread })),
    differences: found.map(({ interval, p }, i) => ({
      ...interval,
      first: column(differences[i]!.first),
      second: column(differences[i]!.second),
      p,
      pHolm: adjusted[i]!,
    })),
  };
}

/**
 * Replicates of something and the intervals they give, in one go.
 * @param step whose β are compared, from 0; null for none
 */
export async function bootstrap(
  run: RunJob,
  asked: Resampled,
  how: Replicating,
  step: number | null,
  atOnce: number,
): Promise<ReplicateIntervals> {
  const [jackknife, so] = await Promise.all([drawJackknife(run, asked, step, how.by), drawReplicates(run, asked, how, atOnce)]);
  return intervalsOf(run, jackknife, so, how);
}

/**
 * Work in parts, dealt out to any number of hands. Null: it has none.
 * @param pieces into so many ranges: as many as there are hands, or more where somebody wants to know how far it is
 */
export async function inParts(
  run: RunJob,
  { context, rows, of }: Dealing,
  joined: (pieces: readonly unknown[]) => unknown,
  atOnce: number,
  { pieces = atOnce, progress }: { pieces?: number; progress?: (done: number, of: number) => void } = {},
): Promise<unknown> {
  const asked = { context, rows, of };
  const all = await again(() => run<"parts">({ kind: "parts", ...asked }));
  if (all === 0) return null;
  const ranges = rangesOf(0, all, Math.ceil(all / pieces));
  const found = new Array<unknown>(ranges.length);
  let [next, done] = [0, 0];
  const work = async () => {
    while (next < ranges.length) {
      const at = next++;
      const range = ranges[at]!;
      found[at] = await again(() => run<"part">({ kind: "part", ...asked, ...range }));
      done += range.count;
      progress?.(done, all);
    }
  };
  await Promise.all(Array.from({ length: Math.min(atOnce, ranges.length) }, work));
  return joined(found);
}

import { referenceSet } from "@/core/test-support/reference-set";
import type { Figure } from "@/core/resampling/figures/figure";
import { limitsOf } from "@/study/analyse/resampling";
import { scale as scaleKind } from "@/study/kinds/scale";
import type { Ladder } from "@/study/model/ladder";
import { ladderFigures, ReplicateIntervals } from "@/study/model/replicate-intervals";
import { Scale } from "@/study/model/scale";
import { sourceOf } from "@/study/test-support/columns";
import { studyOf } from "@/study/test-support/reference-study";
import { askedKind } from "@/study/kinds/kinds";
import { bootstrap, drawReplicates, inParts, intervalsOf, type ReplicatesSoFar, resampled, type RunJob } from "./replicates";
import type { Worker } from "node:worker_threads";
import { thread } from "./node/thread-pool";
import type { Job } from "./protocol/jobs";
import { groundOf, runHere } from "./test-support/here";
import { WorkerPool } from "./worker-pool";

const B = 2000;
const setUp = (name: string, by: "bca" | "percentile", replicates = B) => {
  const set = referenceSet(name);
  const study = studyOf(set);
  const ladder: Ladder = { ...study.ladders[0]!, intervals: { by, replicates }, seed: 20261125 };
  const source = sourceOf(Object.fromEntries(set.cells));
  const asked = resampled({ ...groundOf(study), of: { kind: "ladder", spec: ladder } }, false);
  const how = { by, replicates, confidence: ladder.confidence, seed: ladder.seed, compared: ladder.steps.length - 1, onRequest: false };
  return { ladder, source, asked, how, ground: groundOf(study) };
};
/** Every replicate, in the order they were drawn in, each with all its figures. */
const numbers = ({ pieces }: ReplicatesSoFar) =>
  pieces.flatMap(({ values, count }) =>
    Array.from({ length: count }, (_, r) => Array.from({ length: values.length / count }, (__, figure) => values[figure * count + r]!)),
  );
const keyOf = (figure: Figure) => `step${figure.step + 1}.${figure.kind}${"column" in figure ? `.${figure.column}` : ""}`;

describe.each([
  ["garden_ladder", "bootstrap", 0.25],
  ["ferry_clusters", "bootstrap_clusters", 0.5],
] as const)("%s: agreement with an independent bootstrap", (name, block, extra) => {
  const expected: Record<string, any> = referenceSet(name).expected[block]!.values;
  const run = async (by: "bca" | "percentile") => {
    const { source, asked, how } = setUp(name, by);
    return bootstrap(runHere(source), asked, how, how.compared, 1);
  };
  // the tolerance of B replicates beside that of the reference's own
  const allowed = (sd: number) => 4.5 * sd * Math.sqrt(5000 / B + extra);

  test.each(["percentile", "bca"] as const)("%s limits of every b, β, R² and ΔR² within their Monte Carlo tolerance", async (by) => {
    let compared = 0;
    for (const { figure, interval } of ladderFigures(await run(by))) {
      const known = expected[keyOf(figure)];
      if (!known) continue;
      expect(Math.abs(interval.estimate - known.estimate.value)).toBeLessThanOrEqual(1e-9 * Math.max(1, Math.abs(known.estimate.value)));
      for (const end of ["lower", "upper"] as const)
        expect(Math.abs(interval[end] - known[by][end].value)).toBeLessThanOrEqual(allowed(known[by][end].mc_sd_B5000));
      compared++;
    }
    expect(compared).toBeGreaterThan(10);
  });

  test("differences between β are read from the replicates of the difference", async () => {
    const { differences } = await run("bca");
    for (const [key, known] of Object.entries<any>(expected)) {
      const [, first, second] = /^beta_difference\.(.+)-(.+)$/.exec(key) ?? [];
      if (!first) continue;
      const straight = differences.find((d) => d.first === first && d.second === second);
      const turned = differences.find((d) => d.first === second && d.second === first);
      const [lower, upper] = straight ? [straight.lower, straight.upper] : [-turned!.upper, -turned!.lower];
      expect(Math.abs(lower - known.bca.lower.value)).toBeLessThanOrEqual(allowed(known.bca.lower.mc_sd_B5000));
      expect(Math.abs(upper - known.bca.upper.value)).toBeLessThanOrEqual(allowed(known.bca.upper.mc_sd_B5000));
    }
    for (const d of differences) expect(d.pHolm).toBeGreaterThanOrEqual(d.p);
  });
});

test("law: one, two and five hands draw the same replicates, and the first are told before the rest", async () => {
  const { source, asked, how } = setUp("garden_ladder", "bca", 1100);
  const told: number[] = [];
  const [one, two, five] = await Promise.all(
    [1, 2, 5].map((hands) => drawReplicates(runHere(source), asked, how, hands, { first: (so) => told.push(so.count) })),
  );
  expect(numbers(two!)).toEqual(numbers(one!));
  expect(numbers(five!)).toEqual(numbers(one!));
  expect([one!.count, told]).toEqual([1100, [500, 500, 500]]);
});

test("law: threads of this process give what is worked out right here, also when one of them is killed in the middle", async () => {
  const { ladder, source, asked, how, ground } = setUp("garden_ladder", "bca", 3000);
  const here = await bootstrap(runHere(source), asked, how, how.compared, 1);
  const threads: Worker[] = [];
  const pool = new WorkerPool(() => {
    const { worker, like } = thread();
    threads.push(worker);
    return like;
  }, 2);
  try {
    const names = ladder.steps.flatMap((s) => s.terms.flatMap((t) => t.components)).concat(ladder.outcome!, ladder.filter?.variable ?? []);
    const columns = [...new Set(names)].flatMap((name) => source(name) ?? []);
    let killed = false;
    const run: RunJob = (job) => {
      const work = pool.run(job as Job, "d", columns);
      if (job.kind === "replicates" && (job as { first: number }).first > 500 && !killed) {
        killed = true;
        for (const worker of threads) void worker.terminate();
      }
      return work as never;
    };
    expect(await bootstrap(run, asked, how, how.compared, 2)).toEqual(here);
    expect(threads.length).toBeGreaterThan(2);
    const ordered = { ...ground, of: { kind: "ladder", spec: { ...ladder, order: { by: "rows" } } } };
    const joined = askedKind("ladder").joined!;
    const counted = (await inParts((job) => pool.run(job, "d", columns), ordered, joined, 3)) as { below: number; above: number }[];
    expect(counted).toEqual(await inParts(runHere(source), ordered, joined, 1));
    expect(counted[0]!.below + counted[0]!.above).toBeGreaterThanOrEqual(1999);
  } finally {
    pool.close();
  }
});

test("a range whose worker breaks down is done again, with the same replicates; one that always breaks is told", async () => {
  const { source, asked, how } = setUp("garden_ladder", "bca", 1000);
  const crash = () => Object.assign(new Error("gone"), { code: "worker-crashed" });
  const sound = runHere(source);
  let jobs = 0;
  const shaky: RunJob = async (job) => {
    if (jobs++ % 3 === 1) throw crash();
    return sound(job);
  };
  expect(numbers(await drawReplicates(shaky, asked, how, 2))).toEqual(numbers(await drawReplicates(sound, asked, how, 2)));
  await expect(drawReplicates(() => Promise.reject(crash()), asked, how, 2)).rejects.toMatchObject({ code: "worker-crashed" });
});

test("a ladder without resamples says so by its own code, and is not tried again", async () => {
  const { asked, how } = setUp("garden_ladder", "bca", 1000);
  let jobs = 0;
  const singular: RunJob = async () => {
    jobs++;
    throw Object.assign(new Error("no resample"), { code: "singular-resamples" });
  };
  await expect(drawReplicates(singular, asked, how, 1)).rejects.toMatchObject({ code: "singular-resamples" });
  expect(jobs).toBe(1);
});

test("law: limits do not depend on how many figures are read at a time; the picture of the replicates holds every one", async () => {
  const { source, asked, how } = setUp("garden_ladder", "bca", 1000);
  const run = runHere(source);
  const so = await drawReplicates(run, asked, how, 1);
  const jackknife = await run<"jackknife">({ kind: "jackknife", ...asked, step: 0, accelerated: true });
  const whole = await intervalsOf(run, jackknife, so, { by: "bca", confidence: 0.9 });
  const drawn = numbers(so);
  const values = (figure: number) => Float64Array.from(drawn, (all) => all[figure]!);
  for (const [k, { spread, interval }] of whole.intervals.entries()) {
    expect(limitsOf(values(k), 1, [jackknife.expected[k]!], null, { by: "bca", confidence: 0.9 })).toMatchObject([{ spread, interval }]);
    expect(spread.counts.reduce((sum, c) => sum + c)).toBe(1000);
    expect(spread.edges).toHaveLength(spread.counts.length + 1);
    expect(spread.edges[0]!).toBeLessThanOrEqual(interval.lower);
    expect(spread.edges.at(-1)!).toBeGreaterThanOrEqual(interval.upper - 1e-12);
  }
  // percentile limits need no unit to be left out
  const spared = await run<"jackknife">({ kind: "jackknife", ...asked, step: 0, accelerated: false });
  expect(spared.expected.map((e) => e.estimate)).toEqual(jackknife.expected.map((e) => e.estimate));
  const percentile = async (from: typeof spared) => (await intervalsOf(run, from, so, { by: "percentile", confidence: 0.9 })).intervals;
  expect(await percentile(spared)).toEqual(await percentile(jackknife));
  // what goes to the server and back is what was worked out
  expect(ReplicateIntervals.parse(JSON.parse(JSON.stringify(whole)))).toEqual(whole);
});

test("predicted outcomes of categories and their differences have intervals too, those of their own estimates", async () => {
  const set = referenceSet("museum_categories");
  const study = studyOf(set);
  const ladder: Ladder = { ...study.ladders[0]!, intervals: { by: "bca", replicates: 1000 } };
  const source = sourceOf(Object.fromEntries(set.cells));
  const asked = resampled({ ...groundOf(study), of: { kind: "ladder", spec: ladder } }, true);
  const how = { by: "bca", replicates: 1000, confidence: 0.95, seed: 1, compared: null, onRequest: false } as const;
  const found = ladderFigures(await bootstrap(runHere(source), asked, how, null, 1));
  expect(found.map(({ figure }) => figure.kind)).toEqual(expect.arrayContaining(["marginalMean", "contrast"]));
  for (const { figure, interval } of found) {
    expect(interval.lower).toBeLessThanOrEqual(interval.upper);
    if (figure.kind === "contrast") {
      const mean = (level: string) =>
        found.find(
          ({ figure: f }) => f.kind === "marginalMean" && f.step === figure.step && f.variable === figure.variable && f.level === level,
        )!;
      expect(interval.estimate).toBeCloseTo(mean(figure.level).interval.estimate - mean(figure.minus).interval.estimate, 9);
    }
  }
});

test("the reliability of a scale has intervals that hold its estimates", async () => {
  const cells = (seed: number) => Array.from({ length: 60 }, (_, row) => String(1 + ((row * 7 + ((row * seed) % 3)) % 5)));
  const items = ["i", "j", "k"];
  const source = sourceOf(Object.fromEntries(items.map((name, k) => [name, cells(k + 1)])));
  const scale = Scale.parse({ id: "s", name: "S", items: items.map((variable) => ({ variable })) });
  const asked = resampled({ ...groundOf({ codebook: [], scales: [scale] }), of: { kind: "scale", spec: scale } }, false);
  const found = await bootstrap(runHere(source), asked, { ...scaleKind.replicating(), replicates: 1000, seed: 4 }, null, 2);
  expect([found.intervals.map(({ figure }) => figure), found.units]).toEqual([["alpha", "omega"], 60]);
  for (const { interval } of found.intervals) {
    expect(interval.lower).toBeLessThan(interval.estimate);
    expect(interval.upper).toBeGreaterThan(interval.estimate);
  }
});

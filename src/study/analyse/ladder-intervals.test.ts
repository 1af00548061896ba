import { referenceSet } from "@/core/test-support/reference-set";
import { replicatesOf, type RunJob } from "@/compute/bootstrap";
import { runJob } from "@/compute/run-job";
import type { Figure } from "@/core/resampling/ladder-figures";
import { type Ladder } from "../model/ladder";
import { StudyColumns } from "../prepare/study-columns";
import { sourceOf } from "../test-support/columns";
import { studyOf } from "../test-support/reference-study";
import { type BootstrapShelf, ladderIntervals, ladderReplicates } from "./ladder-intervals";

const B = 2000;
const setUp = (name: string, by: "bca" | "percentile") => {
  const set = referenceSet(name);
  const study = studyOf(set);
  const ladder: Ladder = { ...study.ladders[0]!, intervals: { by, replicates: B }, seed: 20261125 };
  return { set, study, ladder, source: sourceOf(Object.fromEntries(set.cells)) };
};
const keyOf = (figure: Figure) => `step${figure.step + 1}.${figure.kind}${"column" in figure ? `.${figure.column}` : ""}`;

describe.each([
  ["garden_ladder", "bootstrap", 0.25],
  ["ferry_clusters", "bootstrap_clusters", 0.5],
] as const)("%s: agreement with an independent bootstrap", (name, block, extra) => {
  const expected: Record<string, any> = referenceSet(name).expected[block]!.values;
  const run = (by: "bca" | "percentile") => {
    const { study, ladder, source } = setUp(name, by);
    const columns = new StudyColumns(study, source);
    const shelf: BootstrapShelf = new Map();
    const replicates = ladderReplicates(ladder, columns, { first: 0, count: B }, shelf, "k");
    return ladderIntervals(ladder, columns, replicates, ladder.steps.length - 1, shelf, "k");
  };
  // the tolerance of B replicates beside that of the reference's own
  const allowed = (sd: number) => 4.5 * sd * Math.sqrt(5000 / B + extra);

  test.each(["percentile", "bca"] as const)("%s limits of every b, β, R² and ΔR² within their Monte Carlo tolerance", (by) => {
    const { intervals } = run(by);
    let compared = 0;
    for (const { figure, interval } of intervals) {
      const known = expected[keyOf(figure)];
      if (!known) continue;
      expect(Math.abs(interval.estimate - known.estimate.value)).toBeLessThanOrEqual(1e-9 * Math.max(1, Math.abs(known.estimate.value)));
      for (const end of ["lower", "upper"] as const)
        expect(Math.abs(interval[end] - known[by][end].value)).toBeLessThanOrEqual(allowed(known[by][end].mc_sd_B5000));
      compared++;
    }
    expect(compared).toBeGreaterThan(10);
  });

  test("differences between β are read from the replicates of the difference", () => {
    const { differences } = run("bca");
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
  const { study, ladder, source } = setUp("garden_ladder", "bca");
  const shelves = { eigenvalues: new Map(), bootstraps: new Map() };
  const run: RunJob = async (job) => runJob(job, source, null, undefined, shelves) as never;
  const context = { codebook: study.codebook, scales: study.scales, corrections: [], derived: [], filters: [] };
  const asked = { context, ladder: { ...ladder, intervals: { by: "bca" as const, replicates: 1000 } } };
  const told: number[] = [];
  const [one, two, five] = await Promise.all(
    [1, 2, 5].map((hands) => replicatesOf(run, asked, hands, { first: (so) => told.push(so.count), progress: () => undefined })),
  );
  expect(two!.values).toEqual(one!.values);
  expect(five!.values).toEqual(one!.values);
  expect([one!.count, told]).toEqual([1000, [500, 500, 500]]);
});

test("a range whose worker breaks down is done again, with the same replicates; one that always breaks is told", async () => {
  const { study, ladder, source } = setUp("garden_ladder", "bca");
  const shelves = { eigenvalues: new Map(), bootstraps: new Map() };
  const context = { codebook: study.codebook, scales: study.scales, corrections: [], derived: [], filters: [] };
  const asked = { context, ladder: { ...ladder, intervals: { by: "bca" as const, replicates: 1000 } } };
  const crash = () => Object.assign(new Error("gone"), { code: "worker-crashed" });
  let jobs = 0;
  const shaky: RunJob = async (job) => {
    if (jobs++ % 3 === 1) throw crash();
    return runJob(job, source, null, undefined, shelves) as never;
  };
  const told = { first: () => undefined, progress: () => undefined };
  const sound: RunJob = async (job) => runJob(job, source, null, undefined, shelves) as never;
  expect((await replicatesOf(shaky, asked, 2, told)).values).toEqual((await replicatesOf(sound, asked, 2, told)).values);
  await expect(replicatesOf(() => Promise.reject(crash()), asked, 2, told)).rejects.toMatchObject({ code: "worker-crashed" });
});

test("the picture of a figure's replicates holds every one of them", () => {
  const { study, ladder, source } = setUp("garden_ladder", "bca");
  const columns = new StudyColumns(study, source);
  const shelf: BootstrapShelf = new Map();
  const drawn = ladderReplicates(ladder, columns, { first: 0, count: 600 }, shelf, "k");
  for (const { interval, spread } of ladderIntervals(ladder, columns, drawn, 0, shelf, "k").intervals) {
    expect(spread.counts.reduce((sum, c) => sum + c)).toBe(600);
    expect(spread.edges).toHaveLength(spread.counts.length + 1);
    expect(spread.edges[0]!).toBeLessThanOrEqual(interval.lower);
    expect(spread.edges.at(-1)!).toBeGreaterThanOrEqual(interval.upper - 1e-12);
  }
});

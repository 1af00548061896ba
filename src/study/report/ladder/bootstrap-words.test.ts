import type { LadderFit } from "@/core/regression/ladder";
import { analyseLadder } from "../../analyse/analyse-ladder";
import { bootstrap, resampled } from "@/compute/replicates";
import { groundOf, runHere } from "@/compute/test-support/here";
import { ladder as ladderKind } from "../../kinds/ladder";
import { ladderFigures, type ReplicateIntervals } from "../../model/replicate-intervals";
import { Ladder } from "../../model/ladder";
import { plain } from "../words";
import { Study } from "../../model/study";
import { StudyColumns } from "../../prepare/study-columns";
import { sourceOf } from "../../test-support/columns";
import { bootstrapWords, differenceOf, differenceSentence } from "./bootstrap-words";
import { partsFromReplicates, withReplicateIntervals } from "./with-intervals";

const wave = (i: number, k: number) => (Math.sin((i + 1) * (k + 3) * 12.9898) * 43758.5453) % 1;
const cells = (f: (i: number) => number | string) => Array.from({ length: 50 }, (_, i) => String(f(i)));
const source = sourceOf({
  y: cells((i) => 3 * wave(i, 1) + 0.2 * wave(i, 2) + wave(i, 9)),
  a: cells((i) => wave(i, 1)),
  b: cells((i) => wave(i, 2)),
  g: cells((i) => (i === 7 ? "rare" : i % 2 ? "x" : "z")),
  class: cells((i) => `c${i % 9}`),
});
const study = Study.parse({
  format: "beta-step-study",
  version: 1,
  name: "s",
  codebook: [...["y", "a", "b"].map((name) => ({ name })), { name: "g", kind: "category" }, { name: "class", kind: "code" }],
});
const ladderOf = (over: object, ...steps: string[][]) =>
  Ladder.parse({
    id: "l",
    name: "L",
    outcome: "y",
    seed: 3,
    intervals: { by: "bca", replicates: 1000 },
    steps: steps.map((terms, k) => ({ id: `s${k}`, terms: terms.map((t) => ({ components: [t] })) })),
    ...over,
  });
async function run(ladder: Ladder): Promise<{ fit: LadderFit; of: ReplicateIntervals }> {
  const columns = new StudyColumns(study, source);
  const result = analyseLadder(study, ladder, source, columns);
  if (result.status !== "fitted") throw new Error(result.refusal.code);
  const asked = resampled({ ...groundOf(study), of: { kind: "ladder", spec: ladder } }, false);
  const how = ladderKind.replicating(ladder)!;
  return { fit: result.fit, of: await bootstrap(runHere(source), asked, how, how.compared, 1) };
}

test("too few replicates for the limits: it is said, with how many would tell them, and so many do", async () => {
  const few = ladderOf({ confidence: 0.999, intervals: { by: "percentile", replicates: 1000 } }, ["a"]);
  const words = bootstrapWords(few, (await run(few)).of);
  expect(words[1]).toBe("6 intervals end at an outermost replicate: there are too few to tell the limit. About 2\u202f000 would tell it.");
  const enough = ladderOf({ confidence: 0.999, intervals: { by: "percentile", replicates: 2000 } }, ["a"]);
  expect(bootstrapWords(enough, (await run(enough)).of)).toHaveLength(1);
});

test("replicates say what was drawn, of whom, with which seed, and what had to be drawn again", async () => {
  const plain = ladderOf({}, ["a"], ["b"]);
  expect(bootstrapWords(plain, (await run(plain)).of)).toEqual([
    expect.stringMatching(
      /^BCa intervals from 1.000 resamples of 50 respondents, seed 3; means, SDs, z-scores and products are formed anew in each\./,
    ),
    expect.stringMatching(/^From fewer than 200 respondents BCa intervals of a ΔR² near 0 end too low/),
  ]);
  // nothing is said of ΔR² where there is one step, or where limits are percentiles
  const single = ladderOf({}, ["a", "b"]);
  expect(bootstrapWords(single, (await run(single)).of)).toHaveLength(1);
  const clustered = ladderOf({ cluster: "class", intervals: { by: "percentile", replicates: 1000 } }, ["a"]);
  expect(bootstrapWords(clustered, (await run(clustered)).of)[0]).toMatch(/^Percentile intervals from 1.000 resamples of 9 whole clusters/);
  const rare = ladderOf({}, ["a", "g"]);
  const words = bootstrapWords(rare, (await run(rare)).of);
  expect(words[1]).toMatch(
    /^\d+ resamples were drawn again because a column vanished in them, \d+ % of all: the ladder asks much of its smallest groups\.$/,
  );
});

test("a fit with intervals from replicates keeps its numbers and tests, and has no interval of another kind while they are drawn", async () => {
  const { fit, of } = await run(ladderOf({}, ["a"], ["b"]));
  const [ours, waiting] = [withReplicateIntervals(fit, of), withReplicateIntervals(fit, null)];
  fit.steps.forEach((step, k) => {
    step.coefficients.forEach((c, i) => {
      const own = ours.steps[k]!.coefficients[i]!;
      expect([own.b.estimate, own.b.p, own.beta!.estimate]).toEqual([c.b.estimate, c.b.p, c.beta!.estimate]);
      const found = ladderFigures(of).find(({ figure: f }) => f.kind === "beta" && f.step === k && f.column === c.column)!.interval;
      expect([own.beta!.lower, own.beta!.upper]).toEqual([found.lower, found.upper]);
      expect(own.beta!.lower).not.toBe(c.beta!.lower);
      expect(waiting.steps[k]!.coefficients[i]!.b).toMatchObject({ estimate: c.b.estimate, lower: null, upper: null });
    });
    expect(ours.steps[k]!.changeInterval!.lower).toBeLessThanOrEqual(step.change.change);
    expect(waiting.steps[k]!.changeInterval).toBeNull();
  });
  const parts = partsFromReplicates(fit, of);
  expect(Object.keys(parts[1]!)).toEqual(["a", "b"]);
  expect(parts[1]!.a!.lower).toBeLessThan(fit.steps[1]!.coefficients[0]!.part);
});

test("a difference turned round is its negative, and its sentence names the larger β, or says that the data do not tell", async () => {
  const { of, fit } = await run(ladderOf({}, ["a"], ["b"]));
  const [ab, ba] = [differenceOf(of, "a", "b")!, differenceOf(of, "b", "a")!];
  expect([ba.estimate, ba.lower, ba.upper, ba.p]).toEqual([-ab.estimate, -ab.upper, -ab.lower, ab.p]);
  const words = (d: typeof ab) => plain(differenceSentence(d, fit, (name) => name.toUpperCase(), "95 %"));
  expect(words(ab)).toMatch(
    /^The β of A is larger than that of B by \.\d\d \(95 % interval of the difference \[\.\d\d, 1?\.\d\d\], p = \.002\)\.$/,
  );
  expect(words(ba)).toMatch(/^The β of A is larger than that of B by/);
  expect(words({ ...ab, lower: -0.1 })).toMatch(/which these data do not tell from no difference/);
  expect(differenceOf(of, "a", "nobody")).toBeNull();
});

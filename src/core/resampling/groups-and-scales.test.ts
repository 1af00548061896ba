import { readFileSync } from "node:fs";
import Papa from "papaparse";
import { cronbachAlpha } from "../reliability/cronbach-alpha";
import { factorReliability } from "../reliability/omega";
import { randomStream } from "../random/random-stream";
import { ladderModels, type LadderSpec } from "../regression/ladder";
import { drawCounts, seededState } from "./draw";
import type { EngineKind } from "./engine/choose-engine";
import { groupBootstrap, type GroupFigure, groupFigures } from "./group-bootstrap";
import { bcaLimits, percentileLimits } from "./interval-limits";
import { permutedDifferences } from "./label-permutation";
import { permutationP } from "./permutation-p";
import { reliabilityBootstrap } from "./reliability-bootstrap";
import { accelerationsOf, replicatesOf } from "./resampler";

const KINDS: [EngineKind][] = [["kernel"], ["plain"]];
const expectClose = (ours: ArrayLike<number>, theirs: ArrayLike<number>, digits = 1e-9) =>
  Array.from(ours).forEach((value, i) =>
    expect(Math.abs(value - theirs[i]!)).toBeLessThanOrEqual(digits * Math.max(1, Math.abs(theirs[i]!))),
  );

/** The town data, by town: complete answers as columns. */
function towns() {
  const { spec, expected } = JSON.parse(readFileSync("reference/water_groups.json", "utf8"));
  const rows = Papa.parse<Record<string, string>>(readFileSync("reference/water_groups.csv", "utf8"), {
    header: true,
    skipEmptyLines: true,
  }).data;
  const names = [spec.outcome, "bill", "concern", "knowledge"] as string[];
  const complete = rows.filter((row) => names.every((name) => row[name] !== "-9"));
  const groups = (spec.group_levels as string[]).map((level) => {
    const own = complete.filter((row) => row[spec.group] === level);
    return new Map(names.map((name) => [name, Float64Array.from(own, (row) => Number(row[name]))]));
  });
  const ladder: LadderSpec = {
    outcome: spec.outcome, centring: spec.centring, confidence: 0.95,
    steps: (spec.steps as string[][]).map((terms) => terms.map((term) => ({ components: term.split("*") }))),
  }; // prettier-ignore
  return {
    groups,
    ladder,
    levels: spec.group_levels as string[],
    differences: expected.bootstrap_differences,
    permutation: expected.permutation,
  };
}

describe("slopes compared between groups", () => {
  const { groups, ladder, levels, differences } = towns();
  const models = groups.map((data) => ladderModels(ladder, data));
  const step = ladder.steps.length - 1;
  const figures = groupFigures(models, step);
  const boot = groupBootstrap(models, step, figures);

  test("agree with an independent bootstrap of the same data: estimates to 1e-9, limits within Monte Carlo error", () => {
    const B = 5000;
    const { values } = replicatesOf(boot, 20261, { first: 0, count: B });
    const estimates = boot.estimates();
    const accelerations = accelerationsOf(boot, estimates).figures;
    let seen = 0;
    for (const [k, figure] of figures.entries()) {
      if (figure.kind !== "difference" || figure.of === "betaOwn") continue;
      const expected = differences.values[figure.column][`${levels[figure.first]} - ${levels[figure.second]}`][figure.of];
      const own = values.subarray(k * B, (k + 1) * B);
      const bca = bcaLimits(own, estimates[k]!, accelerations[k]!, 0.95)!;
      const percentile = percentileLimits(own, 0.95);
      const within = (value: number, wanted: { value: number; tol: number }) =>
        expect(Math.abs(value - wanted.value)).toBeLessThanOrEqual(wanted.tol);
      within(estimates[k]!, expected.estimate);
      within(percentile.lower, expected.percentile.lower);
      within(percentile.upper, expected.percentile.upper);
      within(bca.lower, expected.bca.lower);
      within(bca.upper, expected.bca.upper);
      // the reference takes jackknife values as they are, without each group's (n − 1)/n
      expect(accelerations[k]).toBeCloseTo(expected.acceleration, 3);
      seen++;
    }
    expect(seen).toBe(24); // 4 columns × 3 pairs × b and β
  });

  test.each(KINDS)(
    "law: a replicate is each group fitted on what was drawn of it, centred and standardized by all groups together (%s)",
    (kind) => {
      const again = groupBootstrap(models, step, figures, kind);
      const { values } = replicatesOf(again, 5, { first: 0, count: 6 });
      const state = new Int32Array(4);
      for (let r = 0; r < 6; r++) {
        seededState(5, r, 0, state);
        const drawn = groups.map((data) => {
          const counts = new Uint8Array(data.get("bill")!.length);
          drawCounts(counts, state);
          const cases = Array.from(counts).flatMap((times, i) => new Array<number>(times).fill(i));
          return new Map([...data].map(([name, v]) => [name, Float64Array.from(cases, (i) => v[i]!)]));
        });
        expectClose(figures.map((_, k) => values[k * 6 + r]!), byHand(drawn, ladder, figures)); // prettier-ignore
      }
    },
  );
});

describe("slopes under permuted labels", () => {
  const { groups, ladder, levels, permutation } = towns();
  const together = new Map([...groups[0]!.keys()].map((name) => [name, Float64Array.from(groups.flatMap((data) => Array.from(data.get(name)!)))] as const)); // prettier-ignore
  const labels = Int32Array.from(groups.flatMap((data, g) => Array.from(data.get("bill")!, () => g)));
  const models = ladderModels(ladder, together);
  const step = ladder.steps.length - 1;

  test.each(KINDS)("p agrees with an independent permutation test, and the differences with the groups fitted one by one (%s)", (kind) => {
    const B = 2000;
    const found = permutedDifferences(models, step, labels, 7, { first: 0, count: B }, kind);
    const own = groupBootstrap(groups.map((data) => ladderModels(ladder, data)), step, found.map(({ column, first, second }) => ({ kind: "difference", of: "b", column, first, second }))).estimates(); // prettier-ignore
    expect(found).toHaveLength(12);
    found.forEach(({ column, first, second, difference, beyond }, i) => {
      expect(difference).toBeCloseTo(own[i]!, 9);
      const { p } = permutation.values[column][`${levels[first]} - ${levels[second]}`];
      expect(Math.abs(permutationP(beyond, B) - p.value)).toBeLessThanOrEqual(p.tol);
    });
  });

  test("law: ranges add up", () => {
    const beyond = (first: number, count: number) => permutedDifferences(models, step, labels, 3, { first, count }).map((d) => d.beyond);
    const [one, two] = [beyond(0, 130), beyond(130, 70)];
    expect(beyond(0, 200)).toEqual(one.map((b, i) => b + two[i]!));
  });
});

/** The same figures from groups whose variables were centred and standardized beforehand. */
function byHand(groups: readonly ReadonlyMap<string, Float64Array>[], ladder: LadderSpec, figures: readonly GroupFigure[]): number[] {
  const all = (name: string) => groups.flatMap((data) => Array.from(data.get(name)!));
  const mean = (v: number[]) => v.reduce((sum, x) => sum + x, 0) / v.length;
  const sd = (v: number[]) => Math.sqrt(v.reduce((sum, x) => sum + (x - mean(v)) ** 2, 0) / (v.length - 1));
  const fit = (change: (name: string, x: number, own: number[]) => number) =>
    groups.map((data) => {
      const changed = new Map([...data].map(([name, v]) => [name, v.map((x) => change(name, x, Array.from(v)))]));
      const { columns, slopes } = ladderModels({ ...ladder, centring: "raw" }, changed).fits.at(-1)!;
      return (column: string) => slopes[columns.indexOf(column)]!;
    });
  const inProduct = new Set(["concern", "knowledge"]);
  const fits = {
    b: fit((name, x) => (inProduct.has(name) ? x - mean(all(name)) : x)),
    beta: fit((name, x) => (x - mean(all(name))) / sd(all(name))),
    betaOwn: fit((_, x, own) => (x - mean(own)) / sd(own)),
  };
  return figures.map((f) =>
    f.kind === "difference" ? fits[f.of][f.first]!(f.column) - fits[f.of][f.second]!(f.column) : fits[f.kind][f.group]!(f.column),
  );
}

describe.each([[2], [5]])("reliability of %d items", (k) => {
  const random = randomStream(3);
  const trait = Float64Array.from({ length: 80 }, () => random.normal());
  const items = Array.from({ length: k }, (_, j) => trait.map((x) => Math.round(4 + x + (0.7 + 0.1 * j) * random.normal())));
  /** From the items themselves, as the scale's own page finds them. */
  const found = (of: readonly Float64Array[]): number[] => {
    const alpha = cronbachAlpha(of, 0.95);
    if (k < 3) return [alpha.alpha!];
    const r = Float64Array.from(alpha.interItem.flat(), (x) => x!);
    const sds = alpha.perItem.map((item) => item.sd);
    return [alpha.alpha!, factorReliability({ r, items: k, n: alpha.n }, sds, sds.map(String)).omega];
  };

  test.each(KINDS)("law: a replicate is the reliability of the cases it draws, the jackknife that without each case (%s)", (kind) => {
    const boot = reliabilityBootstrap(items, kind);
    expectClose(boot.estimates(), found(items), 1e-8);
    const { values, redrawn } = replicatesOf(boot, 2, { first: 0, count: 20 });
    expect(redrawn).toBe(0);
    for (let r = 0; r < 20; r++) {
      const [counts, state] = [new Uint8Array(80), new Int32Array(4)];
      seededState(2, r, 0, state);
      drawCounts(counts, state);
      const cases = Array.from(counts).flatMap((times, i) => new Array<number>(times).fill(i));
      expectClose(values.filter((_, i) => i % 20 === r), found(items.map((item) => Float64Array.from(cases, (i) => item[i]!))), 1e-6); // prettier-ignore
    }
    const out = new Float64Array(boot.figures * 2);
    boot.leaveOut(0, 30, 2, out, 2, 0);
    expectClose(out.filter((_, i) => i % 2 === 1), found(items.map((item) => item.filter((__, i) => i !== 31))), 1e-6); // prettier-ignore
  });
});

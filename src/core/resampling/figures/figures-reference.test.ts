import type { Predictor } from "../../regression/design-matrix";
import { ladderModels, type LadderSpec } from "../../regression/ladder";
import { completeColumns, type ReferenceSet, referenceSet, relativeError } from "../../test-support/reference-set";
import { ladderBootstrap } from "../ladder-bootstrap";
import { accelerationsOf, replicatesOf } from "../resampler";
import { bcaLimits, percentileLimits } from "../interval-limits";
import type { HeldAt } from "../../regression/design-point";
import type { Figure } from "./figure";

/** The ladder of a reference set, its categories as such. */
function ladderOf(set: ReferenceSet): { spec: LadderSpec; variables: Map<string, Predictor> } {
  const categories: Record<string, { reference: string; levels: string[]; coding: "indicator" | "deviation" }> =
    set.json.spec.categorical ?? {};
  const names = [...new Set([set.spec.outcome, ...set.spec.steps.flat().flatMap((term) => term.split("*"))])];
  const order = names.filter((name) => !(name in categories));
  // complete on the categories too: a level as a number tells rows apart, and is told back
  const codeOf = (name: string, cell: string) => String(categories[name]!.levels.indexOf(cell));
  const cells = new Map([...set.cells].map(([name, column]) => [name, name in categories ? column.map((c) => (c === "" ? "" : codeOf(name, c))) : column] as const)); // prettier-ignore
  const missing = new Map([...set.missing].map(([name, codes]) => [name, name in categories ? ["-1"] : codes] as const));
  const columns = completeColumns({ ...set, cells, missing }, [...order, ...Object.keys(categories)]);
  const variables = new Map<string, Predictor>(
    names.map((name) => {
      const column = columns.get(name)!;
      return [name, name in categories ? { levels: categories[name]!.levels, codes: Int32Array.from(column) } : column];
    }),
  );
  const spec: LadderSpec = {
    outcome: set.spec.outcome,
    centring: set.json.spec.centring,
    confidence: 0.95,
    steps: set.spec.steps.map((terms) => terms.map((term) => ({ components: term.split("*") }))),
    categories: new Map(Object.entries(categories).map(([name, { coding, reference }]) => [name, { coding, reference }])),
  };
  return { spec, variables };
}

/** Estimates of figures, to the reference's nine digits; their intervals hold them. */
function expectFigures(set: ReferenceSet, figures: readonly Figure[], expected: readonly number[]): void {
  const { spec, variables } = ladderOf(set);
  const models = ladderModels(spec, variables);
  const boot = ladderBootstrap(models, { by: "cases" }, figures);
  const estimates = boot.estimates();
  expected.forEach((value, k) => expect(relativeError(estimates[k]!, value)).toBeLessThanOrEqual(1e-9));
  const B = 1000;
  const { values } = replicatesOf(boot, 1, { first: 0, count: B });
  const accelerations = accelerationsOf(boot, estimates).figures;
  figures.forEach((_, k) => {
    const limits = bcaLimits(values.subarray(k * B, (k + 1) * B), estimates[k]!, accelerations[k]!, 0.95)!;
    expect(limits.lower).toBeLessThan(estimates[k]!);
    expect(limits.upper).toBeGreaterThan(estimates[k]!);
  });
}

test("simple slopes at each level of a category are those worked out by a separate program", () => {
  const set = referenceSet("cycling_moderation");
  const slopes = set.expected.simple_slopes!.values.classical;
  const levels = ["lane", "track"];
  const figures = levels.map((level): Figure => ({ kind: "slope", step: 2, column: "traffic", at: [{ component: "infrastructure[track]", unit: "raw", value: level === "track" ? 1 : 0 }] })); // prettier-ignore
  expectFigures(
    set,
    figures,
    levels.map((level) => slopes[level].estimate),
  );
});

test("slopes at the grid of two moderators: low, mean and high of both, at their values and at SDs from their means", () => {
  const set = referenceSet("office_threeway");
  const expected = Object.entries<any>(set.expected.three_way_slopes!.values);
  expect(expected.length).toBeGreaterThanOrEqual(9);
  const slope = (at: HeldAt[]): Figure => ({ kind: "slope", step: 2, column: "noise", at });
  const byValue = expected.map(([, { at }]) =>
    slope(Object.entries<number>(at).map(([component, value]) => ({ component, unit: "raw", value }))),
  );
  const SDS: Record<string, number> = { low: -1, mean: 0, high: 1 };
  const bySd = expected.map(([name]) =>
    slope(name.split(", ").map((part) => ({ component: part.split(" ")[0]!, unit: "sd", value: SDS[part.split(" ")[1]!]! }))),
  );
  const estimates = expected.map(([, { estimate }]) => estimate as number);
  expectFigures(set, byValue, estimates);
  expectFigures(set, bySd, estimates);
});

test.each([
  ["marginal_means", 2],
  ["marginal_means_step2", 1],
] as const)("predicted outcomes of the levels of a category and their differences: %s", (block, step) => {
  const set = referenceSet("museum_categories");
  const { means, contrasts } = set.expected[block]!.values.ticket;
  const figures: Figure[] = [];
  const expected: number[] = [];
  for (const [level, { estimate }] of Object.entries<any>(means)) {
    figures.push({ kind: "marginalMean", step, variable: "ticket", level });
    expected.push(estimate);
  }
  for (const [name, { estimate }] of Object.entries<any>(contrasts)) {
    const [level, minus] = name.split(" - ") as [string, string];
    figures.push({ kind: "contrast", step, variable: "ticket", level, minus });
    expected.push(estimate);
  }
  expect(figures).toHaveLength(6);
  expectFigures(set, figures, expected);
});

test("limits of simple slopes at mean ± SD, formed anew in each replicate, agree with an independent bootstrap", () => {
  const set = referenceSet("garden_ladder");
  const { spec, variables } = ladderOf(set);
  const places = { low: -1, mean: 0, high: 1 };
  const figures = Object.values(places).map((value): Figure => ({ kind: "slope", step: 2, column: "hours", at: [{ component: "knowhow", unit: "sd", value }] })); // prettier-ignore
  const boot = ladderBootstrap(ladderModels(spec, variables), { by: "cases" }, figures);
  const B = 5000;
  const { values } = replicatesOf(boot, 20261128, { first: 0, count: B });
  const estimates = boot.estimates();
  const accelerations = accelerationsOf(boot, estimates).figures;
  Object.keys(places).forEach((place, k) => {
    const expected = set.expected["bootstrap"]!.values[`slope.hours at knowhow.${place}`];
    const own = values.subarray(k * B, (k + 1) * B);
    const limits = { percentile: percentileLimits(own, 0.95), bca: bcaLimits(own, estimates[k]!, accelerations[k]!, 0.95)! };
    for (const by of ["percentile", "bca"] as const)
      for (const end of ["lower", "upper"] as const)
        expect(Math.abs(limits[by][end] - expected[by][end].value)).toBeLessThanOrEqual(expected[by][end].tol);
  });
});

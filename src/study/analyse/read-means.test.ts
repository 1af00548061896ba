import { referenceSet } from "@/core/test-support/reference-set";
import { Study } from "../model/study";
import { sourceOf } from "../test-support/columns";
import { studyOf } from "../test-support/reference-study";
import { resultsOf } from "../test-support/results";

/** Predicted outcomes as the page asks for them, against values worked out by a separate program. */
test.each([
  ["museum_categories", "ticket", (values: any) => values.ticket],
  ["museum_categories", "guide", (values: any) => values.guide],
  ["cycling_moderation", "infrastructure", (values: any) => values],
  ["garden_ladder", "hours", (values: any) => values],
])("%s: means of %s and every pair, Holm over all", async (name, variable, of) => {
  const set = referenceSet(name);
  const means = [{ id: "m", ladder: "main", variable, compare: "pairs" }];
  const study = Study.parse({ ...studyOf(set), means, probes: [] });
  const told = (await resultsOf(study, sourceOf(Object.fromEntries(set.cells)))).means.m;
  const expected = of(set.expected["marginal_means"]!.values);
  for (const part of ["means", "contrasts"])
    for (const [key, wanted] of Object.entries<any>(expected[part]))
      for (const [what, value] of Object.entries<any>(wanted))
        if (what !== "at") expect([key, what, Math.abs(told[part][key][what] / value - 1) < 1e-8]).toEqual([key, what, true]);
  expect(Object.keys(told.contrasts)).toHaveLength(Object.keys(expected.contrasts).length);
});

test("held against the mean of all the differences add up to nothing; by a second variable pairs stay within its levels", async () => {
  const set = referenceSet("museum_categories");
  const base = { ladder: "main", variable: "ticket" };
  const means = [
    { ...base, id: "all", by: "guide", compare: "mean" },
    { ...base, id: "one", by: "guide", compare: "one", against: "season" },
  ];
  const study = Study.parse({ ...studyOf(set), means, probes: [] });
  const { all, one } = (await resultsOf(study, sourceOf(Object.fromEntries(set.cells)))).means;
  const differences = Object.values<any>(all.contrasts).map((c) => c.estimate as number);
  expect(differences).toHaveLength(6);
  expect(Math.abs(differences.reduce((a, b) => a + b, 0))).toBeLessThan(1e-9);
  const predicted = Object.values<any>(all.means).map((m) => m.estimate as number);
  expect(all.mean_of_all).toBeCloseTo(predicted.reduce((a, b) => a + b, 0) / 6, 9);
  expect(Object.keys(one.contrasts).every((key) => / - guide (none|audio), ticket season$/.test(key))).toBe(true);
  expect(Object.keys(one.contrasts)).toHaveLength(4);
  // the cells are those that a probe of the product tells
  const cell = (set.expected["cell_means"]!.values as any).cells["free & audio"];
  expect(all.means["guide audio, ticket free"].estimate / cell.estimate).toBeCloseTo(1, 9);
});

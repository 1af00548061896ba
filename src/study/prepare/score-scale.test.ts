import { describe as describeColumn } from "@/core/describe/description";
import { referenceSet, relativeError } from "@/core/test-support/reference-set";
import { columnOf } from "../test-support/columns";
import { Scale } from "../model/scale";
import { Variable } from "../model/variable";
import { presentValues } from "./numeric-column";
import { UndeclaredRangeError } from "./score-scale";
import { StudyColumns } from "./study-columns";

const set = referenceSet("repair_items");
const scales = (
  set.spec as unknown as { scales: Record<string, { items: string[]; reversed: string[]; minimum: number; maximum: number }> }
).scales;
const responses = new Map([...set.cells].map(([name, cells]) => [name, columnOf(name, cells)]));

function scored(name: string, change: Partial<Scale> = {}) {
  const { items, reversed, minimum, maximum } = scales[name]!;
  const codebook = items.map((item) =>
    Variable.parse({ name: item, kind: "item", range: { low: minimum, high: maximum }, missing: ["-9"] }),
  );
  const scale = Scale.parse({
    id: name,
    name,
    items: items.map((variable) => ({ variable, reversed: reversed.includes(variable) })),
    ...change,
  });
  return new StudyColumns({ codebook, scales: [scale] }, (column) => responses.get(column)).scale(scale).scores;
}

describe.each(["skill", "thrift", "social", "green"])("repair_items, scores of %s (relative 1e-9)", (name) => {
  const want = set.expected[`scores_${name}`]!.values;
  test.each([
    ["mean", {}],
    ["sum", { rule: "sum" }],
    ["mean_half_answered", { answeredShare: 0.5 }],
  ] as const)("%s", (key, change) => {
    const scores = scored(name, change);
    const expected: (number | null)[] = want[key];
    expect(scores.values).toHaveLength(expected.length);
    expected.forEach((value, row) => {
      expect(scores.missing[row] === 1).toBe(value === null);
      if (value !== null) expect(relativeError(scores.values[row]!, value)).toBeLessThan(1e-9);
    });
  });

  test("how many are scored, from how many answers, and what the scores look like", () => {
    const scores = scored(name);
    expect(scores.missing.filter((gone) => gone === 0)).toHaveLength(want.scored);
    expect(Array.from(scores.answered)).toEqual(want.answered);
    const got = describeColumn(presentValues(scores));
    for (const key of ["n", "mean", "sd", "min", "max", "skewness", "kurtosis"] as const)
      expect(relativeError(got[key]!, want.description[key])).toBeLessThan(1e-9);
  });
});

test("turning an item round twice gives the score back; the declared range decides, not the answers", () => {
  const items = [columnOf("a", ["1", "2", "2"]), columnOf("b", ["2", "1", "3"])];
  const of = (reversed: boolean, high: number) => {
    const codebook = ["a", "b"].map((name) => Variable.parse({ name, range: { low: 1, high } }));
    const scale = Scale.parse({ id: "s", name: "s", items: [{ variable: "a", reversed }, { variable: "b" }] });
    return Array.from(new StudyColumns({ codebook, scales: [scale] }, (n) => items.find((c) => c.name === n)).scale(scale).scores.values);
  };
  expect(of(false, 5)).toEqual([1.5, 1.5, 2.5]);
  expect(of(true, 5)).toEqual([3.5, 2.5, 3.5]); // a becomes 5, 4, 4
  expect(of(true, 7)).toEqual([4.5, 3.5, 4.5]);
});

test("a reversed item without a declared range is refused by name", () => {
  const scale = Scale.parse({ id: "s", name: "s", items: [{ variable: "a", reversed: true }] });
  const columns = new StudyColumns({ codebook: [Variable.parse({ name: "a" })], scales: [scale] }, () => columnOf("a", ["1"]));
  expect(() => columns.scale(scale)).toThrow(UndeclaredRangeError);
});

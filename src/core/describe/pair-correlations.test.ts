import fc from "fast-check";
import { randomStream } from "../random/random-stream";
import { fitLadder } from "../regression/ladder";
import { correlation } from "./correlation";
import { correlationTest } from "./correlation-tests";
import { density, heaps } from "./density";
import { fitLine, lineAtPlace } from "./fit-line";
import type { GappedColumn } from "./gapped-column";
import { pairCorrelations } from "./pair-correlations";
import { partialCorrelations } from "./partial-correlations";
import { ranks } from "./ranks";

/** Columns with gaps, ties and far offsets. */
const gapped = (rows: number) =>
  fc.array(
    fc.record({
      values: fc.array(fc.integer({ min: -4, max: 5 }), { minLength: rows, maxLength: rows }),
      gone: fc.array(fc.boolean(), { minLength: rows, maxLength: rows }),
      offset: fc.constantFrom(0, 1e6, -1e-3),
      unit: fc.constantFrom(1, 1e-100, 1e90),
    }),
    { minLength: 2, maxLength: 5 },
  );
const columnOf = ({ values, gone, offset, unit }: { values: number[]; gone: boolean[]; offset: number; unit: number }): GappedColumn => ({
  values: Float64Array.from(values, (v) => (v + offset) * unit),
  missing: Uint8Array.from(gone, Number),
});

/** What two columns have in common. */
function both(columns: readonly GappedColumn[]): Float64Array[] {
  const rows = [...columns[0]!.values.keys()].filter((row) => columns.every((c) => !c.missing[row]));
  return columns.map((c) => Float64Array.from(rows, (row) => c.values[row]!));
}

describe.each([["pearson"], ["spearman"]] as const)("law: each pair is the two columns over the rows that both have (%s)", (by) => {
  test.each([9, 30])("%d rows", (rows) => {
    fc.assert(
      fc.property(gapped(rows), (made) => {
        const columns = made.map(columnOf);
        const { n, r } = pairCorrelations(columns, by);
        const k = columns.length;
        for (let i = 0; i < k; i++) {
          for (let j = 0; j < i; j++) {
            const [x, y] = both([columns[i]!, columns[j]!]) as [Float64Array, Float64Array];
            expect(n[i * k + j]).toBe(x.length);
            const wanted = x.length < 2 ? null : by === "pearson" ? correlation(x, y) : correlation(ranks(x), ranks(y));
            if (wanted === null) expect(r[i * k + j]).toBeNaN();
            else expect(r[j * k + i]).toBeCloseTo(wanted, 9);
          }
        }
      }),
      { numRuns: 60 },
    );
  });
});

test("ranks: equal values share the mean of theirs", () => {
  expect([...ranks(Float64Array.from([3, 1, 3, -7, 3]))]).toEqual([4, 2, 4, 1, 4]);
});

function madeUp(n: number, gaps: boolean) {
  const random = randomStream(12);
  const normal = () => Float64Array.from({ length: n }, () => random.normal());
  const [a, b] = [normal(), normal()];
  const x = a.map((v, i) => v + 0.5 * b[i]! + random.normal());
  const y = b.map((v) => v + random.normal());
  const missing = () => Uint8Array.from({ length: n }, () => (gaps && random.uniform() < 0.2 ? 1 : 0));
  return [x, y, a, b].map((values): GappedColumn => ({ values, missing: missing() }));
}

test.each([false, true])("law: a partial correlation is that of the residuals, its test that of the coefficient (gaps %s)", (gaps) => {
  const [x, y, a, b] = madeUp(80, gaps) as [GappedColumn, GappedColumn, GappedColumn, GappedColumn];
  const { n, r } = partialCorrelations([x, y], [a, b]);
  const [ux, uy, ua, ub] = both([x, y, a, b]) as [Float64Array, Float64Array, Float64Array, Float64Array];
  const spec = { outcome: "y", centring: "raw" as const, confidence: 0.95, steps: [["a", "b"], ["x"]].map((names) => names.map((name) => ({ components: [name] }))) }; // prettier-ignore
  const own = fitLadder(spec, new Map([["y", uy], ["x", ux], ["a", ua], ["b", ub]])).steps[1]!.coefficients[2]!; // prettier-ignore
  expect(n[1]).toBe(ux.length);
  expect(r[1]).toBeCloseTo(own.partial, 10);
  const test = correlationTest(r[1]!, n[1]!, 0.95, 2)!;
  expect(test.t).toBeCloseTo(own.b.t!, 9);
  expect(test.p! / own.b.p!).toBeCloseTo(1, 9);
});

test("nothing is left of what the controls determine, and controls that are combinations leave nothing to tell", () => {
  const [x, y, a] = madeUp(40, false) as [GappedColumn, GappedColumn, GappedColumn];
  const twice = { ...a, values: a.values.map((v) => 2 * v + 1) };
  expect(partialCorrelations([a, y], [twice]).r[1]).toBeNaN();
  expect(partialCorrelations([x, y], [a, twice]).r[1]).toBeNaN();
});

test("a line is the regression's, and its band that of a prediction's mean", () => {
  const [x, y] = madeUp(50, false).map((c) => c.values) as [Float64Array, Float64Array];
  const line = fitLine(x, y, 0.95)!;
  const spec = { outcome: "y", centring: "raw" as const, confidence: 0.95, steps: [[{ components: ["x"] }]] };
  const at = (moved: number) => fitLadder(spec, new Map([["y", y], ["x", x.map((v) => v - moved)]])).steps[0]!; // prettier-ignore
  expect(line.slope).toBeCloseTo(at(0).coefficients[0]!.b.estimate, 10);
  expect(line.R2).toBeCloseTo(at(0).model.R2, 10);
  // moved to a place, the intercept is the prediction there
  const { intercept } = at(1.5);
  expect(lineAtPlace(line, 1.5)).toMatchObject({ y: expect.closeTo(intercept.estimate, 9), lower: expect.closeTo(intercept.lower!, 9), upper: expect.closeTo(intercept.upper!, 9) }); // prettier-ignore
  expect(fitLine(new Float64Array(5).fill(2), y.slice(0, 5), 0.95)).toBeNull();
});

test("a density holds all of the values, whatever their unit; two heaps are two", () => {
  const random = randomStream(5);
  const one = Float64Array.from({ length: 400 }, () => random.normal()).sort();
  const two = Float64Array.from({ length: 400 }, (_, i) => random.normal() + (i % 2) * 6).sort();
  for (const unit of [1, 1e-150, 1e200]) {
    const { x, y } = density(one.map((v) => v * unit))!;
    const area = y.reduce((sum, v, i) => (i === 0 ? 0 : sum + ((v + y[i - 1]!) / 2) * (x[i]! - x[i - 1]!)), 0);
    expect(area).toBeCloseTo(1, 2);
  }
  expect([heaps(density(one)!), heaps(density(two)!)]).toEqual([1, 2]);
  expect(density(new Float64Array(9).fill(3))).toBeNull();
});

import { randomStream } from "../random/random-stream";
import { madeUpSpec } from "../test-support/made-up-data";
import { fitLadder } from "./ladder";

/** Columns with exactly the correlations asked for among a, b and y. */
function correlated(ab: number, ay: number, by: number, n = 200): Map<string, Float64Array> {
  const random = randomStream(2);
  const raw = Array.from({ length: 3 }, () => Float64Array.from({ length: n }, () => random.normal()));
  const basis: Float64Array[] = [];
  for (const column of raw) {
    let v = column.map((x) => x - column.reduce((s, w) => s + w / n, 0));
    for (const q of basis) {
      const share = v.reduce((s, x, i) => s + x * q[i]!, 0);
      v = v.map((x, i) => x - share * q[i]!);
    }
    const length = Math.hypot(...v);
    basis.push(v.map((x) => x / length));
  }
  const [e1, e2, e3] = basis as [Float64Array, Float64Array, Float64Array];
  const rest = Math.sqrt(1 - ab * ab);
  const along = (by - ab * ay) / rest;
  const last = Math.sqrt(1 - ay * ay - along * along);
  return new Map([
    ["a", e1],
    ["b", e1.map((x, i) => ab * x + rest * e2[i]!)],
    ["y", e1.map((x, i) => ay * x + along * e2[i]! + last * e3[i]!)],
  ]);
}
const flags = (ab: number, ay: number, by: number) => fitLadder(madeUpSpec(["a", "b"]), correlated(ab, ay, by)).steps[0]!.suppression;
const pair = (ab: number, ay: number, by: number) => flags(ab, ay, by).find((f) => f.scope === "pair");

test.each([
  ["classical: b goes with a and not with the outcome", 0.5, 0.5, 0, { kind: "classical", suppressor: "b" }],
  ["classical also when β has the other sign of a small r", 0.5, 0.5, 0.02, { kind: "classical", suppressor: "b" }],
  ["negative: β of b turns round", 0.8, 0.6, 0.3, { kind: "negative", suppressor: "b" }],
  ["reciprocal: both gain, as they go apart and with the outcome alike", -0.4, 0.4, 0.35, { kind: "reciprocal", suppressor: "both" }],
])("%s", (_, ab, ay, by, expected) => {
  expect(pair(ab, ay, by)).toMatchObject(expected);
});

test("predictors that share what they explain, or share nothing, are no suppression", () => {
  expect(flags(0.4, 0.5, 0.4)).toEqual([]);
  expect(flags(0, 0.5, 0.4)).toEqual([]);
});

test("signs of a single predictor: stronger, of the other sign, hidden", () => {
  const signs = (ab: number, ay: number, by: number, name: string) =>
    flags(ab, ay, by).flatMap((f) => (f.scope === "predictor" && f.predictor === name ? f.signs : []));
  // β of b is (.3 − .48)/.36 = −.5
  expect(signs(0.8, 0.6, 0.3, "b")).toEqual(["stronger", "other-sign"]);
  expect(signs(0.9, 0.6, 0.3, "a")).toEqual(["stronger"]);
  expect(signs(0.5, 0.5, 0, "b")).toEqual(["stronger", "hidden"]);
});

test("beside a product β and r do not speak of the same thing: no flags", () => {
  const data = correlated(0.8, 0.6, 0.3);
  expect(fitLadder(madeUpSpec(["a", "b", "a*b"]), data).steps[0]!.suppression).toEqual([]);
  expect(fitLadder(madeUpSpec(["a"]), data).steps[0]!.suppression).toEqual([]);
});

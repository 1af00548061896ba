import { randomStream } from "../random/random-stream";
import { expectClose } from "../test-support/made-up-data";
import { cronbachAlpha } from "./cronbach-alpha";
import { correlationMatrix } from "../factors/correlation-matrix";
import { itemUnits } from "../factors/factor-scores";
import { factorReliability } from "./omega";

const names = ["a", "b", "c", "d"];
const reliabilityOf = (items: Float64Array[]) =>
  factorReliability(correlationMatrix(items, names), itemUnits(items).map((unit) => unit.sd), names); // prettier-ignore
const N = 160;
const random = randomStream(31);
const normal = () => Float64Array.from({ length: N }, () => random.normal());

/** Columns whose sample covariances are exactly those of equal loadings: made by rotating orthonormal columns. */
function parallelItems(loading: number, k: number): Float64Array[] {
  const base: Float64Array[] = [];
  while (base.length <= k) {
    const x = normal();
    const centre = x.reduce((s, v) => s + v, 0) / N;
    const column = x.map((v) => v - centre);
    for (const b of base) {
      const along = column.reduce((s, v, i) => s + v * b[i]!, 0);
      column.forEach((v, i) => (column[i] = v - along * b[i]!));
    }
    const length = Math.sqrt(column.reduce((s, v) => s + v * v, 0));
    base.push(column.map((v) => v / length));
  }
  return Array.from({ length: k }, (_, i) => base[0]!.map((f, row) => loading * f + Math.sqrt(1 - loading ** 2) * base[i + 1]![row]!));
}

test("law: of parallel items ω, composite reliability and α are one, and the mean squared loading is their r", () => {
  const items = parallelItems(0.8, 4);
  const { alpha, meanInterItemR } = cronbachAlpha(items, 0.95);
  const result = reliabilityOf(items);
  expectClose(result.omega, alpha, 1e-8);
  expectClose(result.compositeReliability, alpha, 1e-8);
  expectClose(result.averageVarianceExtracted, meanInterItemR, 1e-8);
  expectClose(meanInterItemR, 0.64, 1e-8);
});

test("law: units move ω, never composite reliability; turning every item round moves nothing", () => {
  const truth = normal();
  const items = names.map((_, i) => truth.map((t) => (0.9 - 0.15 * i) * t + 0.7 * random.normal()));
  const plain = reliabilityOf(items);
  const wide = reliabilityOf(items.map((item, i) => (i === 0 ? item.map((x) => 5 * x) : item)));
  expectClose(wide.compositeReliability, plain.compositeReliability, 1e-7);
  expect(Math.abs(wide.omega - plain.omega)).toBeGreaterThan(0.005);
  const turned = reliabilityOf(items.map((item) => item.map((x) => 6 - x)));
  expectClose(turned.omega, plain.omega, 1e-7);
});

test("a copy of an item is refused by name", () => {
  const [a, b, c] = [normal(), normal(), normal()];
  expect(() => reliabilityOf([a, b, c, a])).toThrow(
    expect.objectContaining({ code: "singular-correlations", details: expect.objectContaining({ item: "d" }) }),
  );
});

import type { ReferenceBlock } from "@/core/test-support/reference-set";

/** One number of a reference set beside ours. `undefined`: we have nothing under that path. */
interface Compared {
  path: string;
  expected: unknown;
  got: unknown;
}

/** Values below this count as this size, unless the block says otherwise. */
const FLOOR = 1e-6;

/** Every leaf of the expected values with what stands at the same place in ours; a list of numbers is one leaf. */
export function leaves(expected: unknown, got: unknown, path = ""): Compared[] {
  // a value that carries its own tolerance is one leaf, as a list of one
  if (expected !== null && typeof expected === "object" && "value" in expected && "tol" in expected)
    return [{ path, expected: [expected], got: [got] }];
  const things =
    Array.isArray(expected) &&
    typeof expected[0] === "object" &&
    expected[0] !== null &&
    !Array.isArray(expected[0]) &&
    !("tol" in expected[0]);
  if (expected === null || typeof expected !== "object" || (Array.isArray(expected) && !things)) return [{ path, expected, got }];
  return Object.entries(expected).flatMap(([key, value]) => {
    const inside = got !== null && typeof got === "object" ? (got as Record<string, unknown>)[key] : undefined;
    return leaves(value, inside, path === "" ? key : `${path}/${key}`);
  });
}

/**
 * How far one leaf is off, as a multiple of nothing: relative, absolute, or 10^−digits, as the block's tolerance measures it.
 * A p is measured relatively however small it is, and allowed ten times the tolerance. Infinity: not the same kind of thing.
 */
export function errorOf({ path, expected, got }: Compared, { tolerance }: ReferenceBlock): number {
  if (Array.isArray(expected)) {
    if (!Array.isArray(got) || got.length !== expected.length) return Infinity;
    if (tolerance.kind === "montecarlo") return Math.max(...expected.map(({ value, tol }, i) => Math.abs(got[i] - value) / tol));
    if (Array.isArray(expected[0])) return errorOf({ path, expected: expected.flat(), got: got.flat() }, { tolerance } as ReferenceBlock);
    if (!expected.some((v) => typeof v === "number")) return JSON.stringify(got) === JSON.stringify(expected) ? 0 : Infinity;
    const size = Math.max(tolerance.floor ?? FLOOR, ...expected.map((v) => Math.abs(Number(v))));
    const errors = expected.map((v, i) => {
      if (v === null || got[i] === null) return v === got[i] ? 0 : Infinity;
      return Math.abs(Number(got[i]) - Number(v)) / (tolerance.kind === "absolute" ? 1 : size);
    });
    return Math.max(...errors);
  }
  if (typeof expected !== "number" || typeof got !== "number") return expected === got ? 0 : Infinity;
  if (tolerance.kind === "digits") return expected === got ? 0 : Math.abs(got - expected) / Math.abs(expected);
  if (tolerance.kind === "absolute") return Math.abs(got - expected);
  if (/(^|\/)(p|pF|p_holm)$/.test(path)) return Math.abs(got / expected - 1) / 10;
  return Math.abs(got - expected) / Math.max(tolerance.floor ?? FLOOR, Math.abs(expected));
}

/** What the largest error may be. */
export function allowance({ tolerance }: ReferenceBlock): number {
  if (tolerance.kind === "montecarlo") return 1; // a value carries its own tolerance, by which its error was divided
  return tolerance.kind === "digits" ? 10 ** -tolerance.value : tolerance.value;
}

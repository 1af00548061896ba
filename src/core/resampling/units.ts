import type { ErrorChoice } from "../regression/covariance";

/** What is drawn: cases, cases within groups, or whole clusters. Codes are one a case. */
export type Drawing =
  | { readonly by: "cases" }
  | { readonly by: "within"; readonly codes: Int32Array }
  | { readonly by: "clusters"; readonly codes: Int32Array };

/** Whole clusters where the errors allow for them, otherwise cases. */
export function drawingOf(errors: ErrorChoice | undefined): Drawing {
  return errors?.kind === "cluster" ? { by: "clusters", codes: errors.codes } : { by: "cases" };
}

/** The units of a drawing, numbered from 0. */
export interface Units {
  readonly count: number;
  /** Units in stretches that are drawn from each by itself. */
  readonly strata: readonly number[];
  /** True: a unit may hold several cases. */
  readonly together: boolean;
  /** Unit of a case. */
  readonly unitOf: (row: number) => number;
}

/** @param n cases */
export function unitsOf(drawing: Drawing, n: number): Units {
  if (drawing.by === "cases") return { count: n, strata: [n], together: false, unitOf: (row) => row };
  const { codes } = drawing;
  const places = new Map<number, number>();
  const sizes: number[] = [];
  const group = Int32Array.from(codes, (code) => {
    const place = places.get(code) ?? places.size;
    places.set(code, place);
    sizes[place] = (sizes[place] ?? 0) + 1;
    return place;
  });
  if (drawing.by === "clusters") return { count: sizes.length, strata: [sizes.length], together: true, unitOf: (row) => group[row]! };
  // within groups: group after group, the cases of each in their order
  const next = sizes.map((_, g) => sizes.slice(0, g).reduce((sum, s) => sum + s, 0));
  const at = Int32Array.from(group, (g) => next[g]!++);
  return { count: n, strata: sizes, together: false, unitOf: (row) => at[row]! };
}

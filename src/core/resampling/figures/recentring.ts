import type { ComponentColumn, DesignColumn } from "../../regression/design-matrix";

/** A share of one coefficient in another, once the variables are centred anew: times the shifts of some numeric components. */
export interface Share {
  /** Position among the step's columns. */
  from: number;
  /** How many ways the larger column can be cut down to the smaller. */
  times: number;
  /** Numeric components (positions in `components`) whose shifts are multiplied. */
  shifts: readonly number[];
}

/** How the coefficients of a step change when its numeric components are centred elsewhere, and which components each column is made of. */
export interface Recentring {
  /** Names of the numeric components. */
  readonly components: readonly string[];
  /** Per column of the step: its own share first, then those of the larger columns. */
  readonly shares: readonly (readonly Share[])[];
  /** Per column: its numeric components, as positions in `components`, repeated for a square. */
  readonly numeric: readonly (readonly number[])[];
}

/**
 * With x = x' + δ, Π x = Σ over subsets Π δ · Π x': the coefficient of a column then is its own plus those of every product that holds it, times
 * the shifts of what they have beyond it. Needs every such part of a product among the columns.
 * @param columns of one step, in order
 * @param levelsToo true: the columns of categories are standardized for β as numbers are
 * @returns null when a part is missing: the step then has to be formed anew
 */
export function recentring(columns: readonly DesignColumn[], levelsToo: boolean): Recentring | null {
  const isNumeric = (one: ComponentColumn) => levelsToo || one.level === null;
  const components = [...new Set(columns.flatMap((c) => c.components.filter(isNumeric).map((one) => one.name)))];
  const parts = columns.map((c) => {
    const [numeric, fixed] = [c.components.filter(isNumeric), c.components.filter((one) => !isNumeric(one))];
    return {
      numeric: numeric.map((one) => components.indexOf(one.name)).sort((a, b) => a - b),
      fixed: fixed
        .map((one) => one.name)
        .sort()
        .join("*"),
    };
  });
  const keyOf = (fixed: string, numeric: readonly number[]) => `${fixed}|${numeric.join(",")}`;
  const position = new Map(parts.map((part, i) => [keyOf(part.fixed, part.numeric), i]));
  const shares: Share[][] = columns.map((_, i) => [{ from: i, times: 1, shifts: [] }]);
  for (const [from, { fixed, numeric }] of parts.entries()) {
    if (numeric.length + (fixed === "" ? 0 : 1) < 2) continue;
    // every way to leave out one or more of its numeric components
    const found = new Map<string, { rest: number[]; shifts: number[]; times: number }>();
    for (let mask = 1; mask < 2 ** numeric.length; mask++) {
      const shifts = numeric.filter((_, i) => (mask >> i) & 1);
      const rest = numeric.filter((_, i) => !((mask >> i) & 1));
      const key = keyOf(fixed, rest);
      const known = found.get(key);
      if (known) known.times++;
      else found.set(key, { rest, shifts, times: 1 });
    }
    for (const [key, { rest, shifts, times }] of found) {
      if (rest.length === 0 && fixed === "") continue; // the intercept's share
      const at = position.get(key);
      if (at === undefined) return null;
      shares[at]!.push({ from, times, shifts });
    }
  }
  return { components, shares, numeric: parts.map((part) => part.numeric) };
}

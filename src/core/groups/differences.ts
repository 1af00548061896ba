import { holm } from "../distributions/holm";
import { normalQuantile, normalUpperTail } from "../distributions/normal-distribution";
import type { Estimate } from "../regression/coefficients";

/** A coefficient of one group minus that of another. Null: one of them, or its error, is not available. */
export interface GroupDifference {
  readonly column: string;
  readonly first: number;
  readonly second: number;
  readonly estimate: number | null;
  readonly se: number | null;
  readonly z: number | null;
  readonly p: number | null;
  readonly lower: number | null;
  readonly upper: number | null;
  /** Adjusted over every difference of the table, and over those of this column alone. */
  readonly pHolm: number | null;
  readonly pHolmColumn: number | null;
}

/**
 * Every difference between two groups, of every column: z = d/√(SE₁² + SE₂²), normal p (docs/methods.md, “Groups”).
 * Source: Clogg, Petkova & Haritou (1995), American Journal of Sociology 100, 1261–1293.
 * @param of per group, by column; null: the step could not be fitted there
 */
export function groupDifferences(
  columns: readonly string[],
  of: readonly (((column: string) => Estimate | null) | null)[],
  confidence: number,
): GroupDifference[] {
  const critical = -normalQuantile((1 - confidence) / 2);
  const found = columns.flatMap((column) =>
    of.flatMap(
      (a, first) =>
      of.slice(first + 1).flatMap((b, i) => (a && b ? [{ column, first, second: first + 1 + i, ...difference(a(column), b(column), critical)}] : [])), // prettier-ignore
    ),
  );
  const all = holmOver(found);
  const byColumn = new Map(columns.flatMap((column) => [...holmOver(found.filter((d) => d.column === column))]));
  return found.map((d) => ({ ...d, pHolm: all.get(d) ?? null, pHolmColumn: byColumn.get(d) ?? null }));
}

function difference(a: Estimate | null, b: Estimate | null, critical: number) {
  const none = { estimate: null, se: null, z: null, p: null, lower: null, upper: null };
  if (!a || !b) return none;
  const estimate = a.estimate - b.estimate;
  const se = a.se === null || b.se === null ? null : Math.hypot(a.se, b.se);
  if (se === null || se === 0) return { ...none, estimate, se };
  const z = estimate / se;
  return { estimate, se, z, p: 2 * normalUpperTail(Math.abs(z)), lower: estimate - critical * se, upper: estimate + critical * se };
}

function holmOver<D extends { p: number | null }>(found: readonly D[]): Map<D, number> {
  const tested = found.filter((d) => d.p !== null);
  const adjusted = holm(tested.map((d) => d.p!));
  return new Map(tested.map((d, i) => [d, adjusted[i]!]));
}

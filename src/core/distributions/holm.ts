/**
 * Holm's adjusted p values, in the order given: the i-th smallest times the number of hypotheses not yet rejected,
 * never below the one before, at most 1.
 * Source: Holm (1979), Scandinavian Journal of Statistics 6, 65–70.
 */
export function holm(p: readonly number[]): number[] {
  const order = p.map((_, i) => i).sort((a, b) => p[a]! - p[b]!);
  const adjusted = new Array<number>(p.length);
  let floor = 0;
  order.forEach((at, rank) => {
    floor = Math.max(floor, Math.min(1, p[at]! * (p.length - rank)));
    adjusted[at] = floor;
  });
  return adjusted;
}

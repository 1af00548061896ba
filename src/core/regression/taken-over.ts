import { type Fit, leastSquares } from "./least-squares";
import { type NamedColumn, prepareDesign } from "./prepared-design";

/** What one newcomer has to do with a coefficient that has changed. */
export interface Newcomer {
  /** What its columns take from the coefficient: all newcomers' add up to b before − b after. */
  taken: number;
  /** b in the later step when only this newcomer stays out. */
  without: number;
}

/**
 * Which newcomers changed a coefficient from one step to a later one, in whatever order they entered: b before − b after = Σ γⱼ·bⱼ, with bⱼ the newcomer's coefficient in the
 * later step and γⱼ that of the predictor in the regression of the newcomer on the earlier step.
 * @param column in both steps
 * @param newcomers names of the later step's further columns, by term; those it dropped count for nothing
 * Source: Gelbach (2016), Journal of Labor Economics 34, 509–543 (the omitted-variable formula).
 */
export function takenOver(before: Fit, after: Fit, column: string, newcomers: readonly (readonly string[])[]): Newcomer[] {
  const { design } = after.basis;
  const columnOf = (name: string): NamedColumn => {
    const { values } = design.columns.find((one) => one.name === name)!;
    return { name, values };
  };
  const earlier = before.columns.map(columnOf);
  const later = after.columns.map(columnOf);
  const slope = (fit: Fit, name: string) => fit.slopes[fit.columns.indexOf(name)]!;
  return newcomers.map((names) => {
    const own = names.filter((name) => after.columns.includes(name));
    const taken = own.reduce((sum, name) => {
      const along = leastSquares(prepareDesign(earlier, columnOf(name)), earlier.length);
      return sum + slope(along, column) * slope(after, name);
    }, 0);
    const others = later.filter(({ name }) => !own.includes(name));
    const outcome: NamedColumn = { name: design.outcome.name, values: design.outcome.values };
    const rest = leastSquares(prepareDesign(others, outcome), others.length);
    return { taken, without: slope(rest, column) };
  });
}

import type { HeldAt } from "../../regression/design-point";
import type { LadderModels } from "../../regression/ladder";

/** A number of a ladder that replicates are made of. Steps are counted from 0. */
export type Figure =
  | { readonly kind: "R2" | "adjustedR2" | "dR2"; readonly step: number }
  | { readonly kind: "b" | "beta" | "part"; readonly step: number; readonly column: string }
  /** One β minus another. */
  | { readonly kind: "difference"; readonly step: number; readonly first: string; readonly second: string }
  /** Simple slope of a variable, per raw unit; components of its products that are not held stand at their averages. */
  | { readonly kind: "slope"; readonly step: number; readonly column: string; readonly at: HeldAt[] }
  /** Predicted outcome at a level of a category, or at mean − SD, mean, mean + SD ("low", "mean", "high") of a numeric variable. */
  | { readonly kind: "marginalMean"; readonly step: number; readonly variable: string; readonly level: string }
  | { readonly kind: "contrast"; readonly step: number; readonly variable: string; readonly level: string; readonly minus: string }
  | Combined;

/** A weighted sum of slopes and predicted outcomes at places: an effect, a difference of effects, one predicted outcome against the mean of several. */
export interface Combined {
  readonly kind: "combined";
  readonly step: number;
  /** Slope of a component, per raw unit; null: the predicted outcome. */
  readonly parts: { readonly weight: number; readonly slope: string | null; readonly at: HeldAt[] }[];
  /** Null: outcome units. Otherwise SDs of the outcome, per SD of a component unless that is null. */
  readonly per: { readonly column: string | null } | null;
}

/** The figures of every step: R², adjusted R², ΔR², and b, β and part correlation of each column. */
export function figuresOf({ fits }: LadderModels): Figure[] {
  return fits.flatMap((fit, step): Figure[] => [
    { kind: "R2", step },
    { kind: "adjustedR2", step },
    { kind: "dR2", step },
    ...fit.columns.flatMap((column): Figure[] => [
      { kind: "b", step, column },
      { kind: "beta", step, column },
      { kind: "part", step, column },
    ]),
  ]);
}

/** Differences between every two β of a step. */
export function differencesOf({ fits }: LadderModels, step: number): Figure[] {
  const { columns } = fits[step]!;
  return columns.flatMap((first, i) => columns.slice(i + 1).map((second): Figure => ({ kind: "difference", step, first, second })));
}

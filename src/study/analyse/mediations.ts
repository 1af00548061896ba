import { type LadderModels, testedCoefficients } from "@/core/regression/ladder";
import type { Covariance } from "@/core/regression/covariance";
import { type Mediation, mediationOf } from "./mediation";
import { productPairs } from "./predictor-looks";

/** What `mediationOf` finds in a fitted ladder up to a step (from 0), for its products of two numbers among some. */
export function mediationsAt(models: LadderModels, step: number, of: Covariance, among: readonly string[]): Mediation[] {
  const { spec, fits } = models;
  const fit = fits[step]!;
  const stepOf = (name: string) => spec.steps.slice(0, step + 1).findIndex((terms) => terms.some(({ components }) => components.length === 1 && components[0] === name)); // prettier-ignore
  const bOf = (name: string, k: number) => fits[k]?.slopes[fits[k].columns.indexOf(name)] ?? null;
  const { slopes } = testedCoefficients(fit, of, spec.confidence);
  return productPairs(models).flatMap((pair) => {
    if (!pair.names.every((name) => among.includes(name))) return [];
    return mediationOf(pair, stepOf, bOf, slopes[fit.columns.indexOf(pair.term)]?.p ?? null) ?? [];
  });
}

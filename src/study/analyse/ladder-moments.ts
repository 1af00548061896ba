import { designMatrix } from "@/core/regression/design-matrix";
import type { LadderModels } from "@/core/regression/ladder";
import { fitMoments, type Moments, momentsOf } from "@/core/regression/moments";

/** What a ladder can be refitted from without a row: the columns of its last step and the outcome, as fitted and in the metric of β. */
export interface LadderMoments {
  readonly as_fitted: Moments;
  /** Numeric variables as z-scores, products of these left as they are; columns of categories as they are. */
  readonly z: Moments;
}

/** The outcome's name among the columns of moments: no column of a design is called so. */
export const OUTCOME = "(Outcome)";

export function ladderMoments({ spec, variables, design, y }: LadderModels): LadderMoments {
  const zDesign = designMatrix(spec.steps, variables, spec, "z");
  const column = ({ name, values }: { name: string; values: Float64Array }) => ({ name, values });
  const outcome = { name: OUTCOME, values: y };
  return { as_fitted: momentsOf([outcome, ...design.columns.map(column)]), z: momentsOf([outcome, ...zDesign.columns.map(column)]) };
}

/** The part of a ladder's results that its moments give again. */
export interface RefittableResults {
  status: string;
  moments?: LadderMoments | null | undefined;
  steps?: Readonly<Record<string, { model: { R2: number }; change: { dR2: number }; coef: Readonly<Record<string, { b: number; se: number | null }>> }>>; // prettier-ignore
  standardized?: Readonly<Record<string, Readonly<Record<string, { beta: number } | null>>>>;
}

/** A number that moments do not give as it is stored. */
export interface RefitDifference {
  readonly of: string;
  readonly stored: number;
  readonly found: number;
}

const TOLERANCE = 1e-9;

/**
 * Every b, SE, β, R² and ΔR² of a ladder fitted again from n, means, SDs and correlations.
 * @returns how many were held against the stored ones, and those that differ by more than 1e-9 of their size
 */
export function refitted(results: RefittableResults): { compared: number; differ: RefitDifference[] } {
  const { moments, steps, standardized } = results;
  if (results.status !== "fitted" || !moments || !steps) return { compared: 0, differ: [] };
  let compared = 0;
  const differ: RefitDifference[] = [];
  const hold = (of: string, stored: number | null | undefined, found: number | null) => {
    if (stored === null || stored === undefined || found === null) return;
    compared++;
    if (!(Math.abs(stored - found) <= TOLERANCE * Math.max(1e-6, Math.abs(stored)))) differ.push({ of, stored, found });
  };
  let before = 0;
  for (const [k, step] of Object.entries(steps)) {
    const names = Object.keys(step.coef).filter((name) => name !== "(Intercept)");
    const fit = fitMoments(moments.as_fitted, OUTCOME, names);
    hold(`steps.${k}.model.R2`, step.model.R2, fit.R2);
    hold(`steps.${k}.change.dR2`, step.change.dR2, fit.R2 - before);
    before = fit.R2;
    names.forEach((name, i) => {
      hold(`steps.${k}.coef.${name}.b`, step.coef[name]!.b, fit.b[i]!);
      hold(`steps.${k}.coef.${name}.se`, step.coef[name]!.se, fit.se[i]!);
    });
    const betas = standardized?.[k] ?? {};
    const z = fitMoments(moments.z, OUTCOME, names);
    const sd = moments.z.sds[moments.z.names.indexOf(OUTCOME)]!;
    names.forEach((name, i) => hold(`standardized.${k}.${name}.beta`, betas[name]?.beta, z.b[i]! / sd));
  }
  return { compared, differ };
}

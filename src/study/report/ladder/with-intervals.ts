import type { Estimate } from "@/core/regression/coefficients";
import type { LadderFit } from "@/core/regression/ladder";
import type { Figure } from "@/core/resampling/figures/figure";
import type { LadderDepth } from "../../analyse/ladder-depth";
import { ladderFigures, type ReplicateIntervals, type ReplicateInterval } from "../../model/replicate-intervals";

const NONE = { lower: null, upper: null };

/** Where an interval of a figure is looked up. */
function lookup(of: ReplicateIntervals | null): (figure: Figure) => ReplicateInterval | null {
  const key = (figure: Figure) => `${figure.kind} ${figure.step} ${"column" in figure ? figure.column : ""}`;
  const all = new Map(of && ladderFigures(of).map(({ figure, interval }) => [key(figure), interval]));
  return (figure) => all.get(key(figure)) ?? null;
}

/**
 * A fit whose intervals are those of replicates; its tests stay. Null intervals: they are still being drawn, and none is shown in place of another kind.
 */
export function withReplicateIntervals(fit: LadderFit, of: ReplicateIntervals | null): LadderFit {
  const find = lookup(of);
  const put = (e: Estimate, found: ReplicateInterval | null): Estimate => ({
    ...e,
    ...(found ? { lower: found.lower, upper: found.upper } : NONE),
  });
  const steps = fit.steps.map((step, k) => {
    const change = find({ kind: "dR2", step: k });
    return {
      ...step,
      changeInterval: change && step.change.df[0] > 0 ? { lower: change.lower, upper: change.upper } : null,
      intercept: { ...step.intercept, ...NONE },
      coefficients: step.coefficients.map((c) => ({
        ...c,
        b: put(c.b, find({ kind: "b", step: k, column: c.column })),
        beta: c.beta && put(c.beta, find({ kind: "beta", step: k, column: c.column })),
      })),
    };
  });
  return { ...fit, steps };
}

/** The same for part correlations. */
export function partsFromReplicates(fit: LadderFit, of: ReplicateIntervals | null): LadderDepth["parts"] {
  const find = lookup(of);
  return fit.steps.map((step, k) =>
    Object.fromEntries(
      step.coefficients.map((c) => {
        const found = find({ kind: "part", step: k, column: c.column });
        return [c.column, found && { lower: found.lower, upper: found.upper }];
      }),
    ),
  );
}

import type { LadderFit } from "@/core/regression/ladder";
import type { Ladder } from "@/study/model/ladder";
import { csvOf } from "./csv-cells";

const HEAD = [
  "step",
  "step_name",
  "term",
  "b",
  "se",
  "b_lower",
  "b_upper",
  "beta",
  "t",
  "p",
  "r",
  "partial",
  "part",
  "tolerance",
  "vif",
  "n",
  "R2",
  "adjusted_R2",
  "delta_R2",
  "delta_R2_lower",
  "delta_R2_upper",
  "F_change",
  "df1",
  "df2",
  "p_change",
  "errors",
  "intervals",
] as const;

/** Where the intervals come from, with all it takes to draw them again. */
function intervalsBy({ intervals, seed }: Ladder): string {
  return intervals.by === "normal" ? "normal" : `${intervals.by}, ${intervals.replicates} replicates, seed ${seed}`;
}

/**
 * The ladder's table as CSV: one row a coefficient, all steps but those that are switched off.
 * @param fit with the intervals that are shown: those of replicates, where the ladder has them
 */
export function ladderCsv(ladder: Ladder, fit: LadderFit): string {
  const rows = fit.steps.flatMap((step, k) => {
    if (ladder.steps[k]!.off) return [];
    const { model, change, changeInterval: interval } = step;
    const of = (term: string, values: (number | null)[]) => [
      k + 1,
      ladder.steps[k]!.name,
      term,
      ...values,
      model.n,
      model.R2,
      model.adjustedR2,
      change.change,
      interval?.lower ?? null,
      interval?.upper ?? null,
      change.F,
      change.df[0],
      change.df[1],
      change.p,
      fit.errors,
      intervalsBy(ladder),
    ];
    const { intercept: i } = step;
    return [
      of("(Intercept)", [i.estimate, i.se, i.lower, i.upper, null, i.t, i.p, null, null, null, null, null]),
      ...step.coefficients.map((c) =>
        of(c.column, [
          c.b.estimate,
          c.b.se,
          c.b.lower,
          c.b.upper,
          c.beta?.estimate ?? null,
          c.b.t,
          c.b.p,
          c.zeroOrder,
          c.partial,
          c.part,
          c.tolerance,
          c.vif,
        ]),
      ),
    ];
  });
  return csvOf([HEAD, ...rows]);
}

import type { Coefficient } from "@/core/regression/coefficients";
import type { Analysis, Desk } from "../kinds/kind";
import type { Ladder } from "../model/ladder";
import type { Residuals } from "../model/residuals";
import { analyseResiduals, type ResidualsResult } from "./analyse-residuals";
import { sampleResults } from "./sample-results";
import type { StepTold, WithoutPullers } from "./without-pullers";

/** The residuals of a step under the names of docs/results.md; values per case stand under the ladder. */
function residualsResults(asked: Residuals, desk: Desk) {
  const ladder = (desk.objects("ladder") as Ladder[]).find((l) => l.id === asked.ladder)!;
  const settings = {
    ladder: ladder.id,
    step: asked.step ?? ladder.steps.length,
    along: asked.along,
    rows: asked.rows,
    pulls: asked.pulls,
    seed: asked.seed,
  };
  const found = analyseResiduals({ residuals: asked, ladder }, desk);
  const sample = found.sample && sampleResults(found.sample);
  if (found.status === "refused") return { settings, status: "refused" as const, refusal: found.refusal, sample };
  const { spread, bend, shape } = found.tests;
  const sorted = found.envelope ? found.cases.filter((one) => one.normal !== null).sort((a, b) => a.normal! - b.normal!) : [];
  return {
    settings,
    status: "told" as const,
    sample,
    s: found.s,
    df: found.df,
    envelope: found.envelope && {
      ...found.envelope,
      share_outside: found.outside,
      ranks: Object.fromEntries(sorted.map(({ studentized, normal, lower, upper }, k) => [String(k + 1), { studentized, normal, lower, upper }])), // prettier-ignore
    },
    tests: { breusch_pagan_koenker: spread, reset: "reason" in bend ? bend : { F: bend.F, df1: bend.df[0], df2: bend.df[1], p: bend.p }, shapiro_wilk: shape }, // prettier-ignore
    bends: Object.fromEntries(found.bends.map(({ variable, bend: one }) => [variable, "reason" in one ? one : { F: one.F, df1: one.df[0], df2: one.df[1], p: one.p, upwards: one.upwards }])), // prettier-ignore
    durbin_watson: found.neighbours,
    by_level: found.levels && Object.fromEntries(found.levels.map(({ level, n, mean, sd }) => [level, { n, mean, sd }])),
    cooks_d: { largest: found.cooks.largest, above_4_over_n: found.cooks.above, above_1: found.cooks.farAbove },
    without: found.without && ("refusal" in found.without ? found.without : withoutResults(found.without)),
  };
}

/** With and without those above the usual mark, side by side. */
function withoutResults({ rows, movers, coefficients, step }: WithoutPullers) {
  const told = (c: Coefficient | null) => c && { b: c.b.estimate, se: c.b.se, p: c.b.p, beta: c.beta?.estimate ?? null };
  const model = ({ n, R2, deltaR2, p }: StepTold) => ({ n, R2, dR2: deltaR2, p });
  return {
    rows,
    movers,
    step: { with: model(step.with), without: model(step.without) },
    coef: Object.fromEntries(coefficients.map((c) => [c.column, { with: told(c.with), without: told(c.without), moved_most_by: c.mover && { row: c.mover.row, dfbetas: c.mover.errors } }])), // prettier-ignore
  };
}

export const analysis: Analysis<Residuals, { residuals: Residuals; ladder: Ladder }, ResidualsResult> = {
  run: (spec, desk) => analyseResiduals(spec, desk),
  results: residualsResults,
};

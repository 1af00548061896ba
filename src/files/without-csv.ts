import type { WithoutPullers } from "@/study/analyse/without-pullers";
import { csvOf } from "./csv-cells";

const HEAD = ["term", "b_with", "se_with", "p_with", "beta_with", "b_without", "se_without", "p_without", "beta_without", "moved_most_by_row", "dfbetas"]; // prettier-ignore

/** A row a coefficient with and without those who pull, then the step's ΔR², at full precision; what is not available is empty. */
export function withoutCsv({ coefficients, step }: WithoutPullers): string {
  const told = (c: WithoutPullers["coefficients"][number]["without"]) => [c?.b.estimate ?? null, c?.b.se ?? null, c?.b.p ?? null, c?.beta?.estimate ?? null]; // prettier-ignore
  return csvOf([
    HEAD,
    ...coefficients.map(({ column, with: one, without, mover }) => [column, ...told(one), ...told(without), mover?.row ?? null, mover?.errors ?? null]), // prettier-ignore
    ["R2_change", step.with.deltaR2, null, step.with.p, null, step.without.deltaR2, null, step.without.p, null, null, null],
    ["R2", step.with.R2, null, null, null, step.without.R2, null, null, null, null, null],
    ["n", step.with.n, null, null, null, step.without.n, null, null, null, null, null],
  ]);
}

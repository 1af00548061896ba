import Papa from "papaparse";
import type { WithoutPullers } from "@/study/analyse/without-pullers";
import { guarded } from "./spreadsheet-guard";

/** A row a coefficient with and without those who pull, then the step's ΔR², at full precision; what is not available is empty. */
export function withoutCsv({ coefficients, step }: WithoutPullers): string {
  const fields = ["term", "b_with", "se_with", "p_with", "beta_with", "b_without", "se_without", "p_without", "beta_without", "moved_most_by_row", "dfbetas"]; // prettier-ignore
  const told = (c: WithoutPullers["coefficients"][number]["without"]) => [c?.b.estimate, c?.b.se, c?.b.p, c?.beta?.estimate];
  const data = [
    ...coefficients.map((one) => [guarded(one.column), ...told(one.with), ...told(one.without), one.mover?.row, one.mover?.errors]),
    ["R2_change", step.with.deltaR2, null, step.with.p, null, step.without.deltaR2, null, step.without.p, null, null, null],
    ["R2", step.with.R2, null, null, null, step.without.R2, null, null, null, null, null],
    ["n", step.with.n, null, null, null, step.without.n, null, null, null, null, null],
  ].map((cells) => cells.map((cell) => cell ?? ""));
  return `\uFEFF${Papa.unparse({ fields, data }, { newline: "\r\n" })}\r\n`;
}

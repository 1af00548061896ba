import type { ResidualsTold } from "@/study/analyse/analyse-residuals";
import { csvOf } from "./csv-cells";

const HEAD = ["row", "seen_along", "residual", "studentized", "leverage", "cooks_d", "normal_quantile", "envelope_lower", "envelope_upper"];

/** A row a respondent that is drawn, at full precision; along a category the level; what is not available is empty. */
export function residualsCsv({ cases, levels, smooth }: ResidualsTold): string {
  const along = (x: number) =>
    Number.isNaN(x) ? null : levels === null ? x : (levels[smooth.findIndex((one) => one.x === x)]?.level ?? null);
  const rows = cases.map((one) => [one.row, along(one.x), one.residual, one.studentized, one.leverage, one.cooksD, one.normal, one.lower, one.upper]); // prettier-ignore
  return csvOf([HEAD, ...rows]);
}

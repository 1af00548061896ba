import Papa from "papaparse";
import type { ResidualsTold } from "@/study/analyse/analyse-residuals";

/** A row a respondent that is drawn, at full precision; what is not available is empty. */
export function residualsCsv(told: ResidualsTold): string {
  const fields = [
    "row",
    "seen_along",
    "residual",
    "studentized",
    "leverage",
    "cooks_d",
    "normal_quantile",
    "envelope_lower",
    "envelope_upper",
  ];
  const data = told.cases.map((one) => [
    one.row,
    Number.isNaN(one.x) ? "" : one.x,
    one.residual,
    one.studentized ?? "",
    one.leverage,
    one.cooksD ?? "",
    one.normal ?? "",
    one.lower ?? "",
    one.upper ?? "",
  ]);
  return `\uFEFF${Papa.unparse({ fields, data }, { newline: "\r\n" })}\r\n`;
}

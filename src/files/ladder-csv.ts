import type { LadderFit } from "@/core/regression/ladder";
import type { Ladder } from "@/study/model/ladder";

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
  "part",
  "tolerance",
  "n",
  "R2",
  "delta_R2",
  "F_change",
  "df1",
  "df2",
  "p_change",
  "errors",
] as const;

/**
 * The ladder's table as CSV for further work: one row a coefficient, all steps, numbers at full precision with a decimal
 * point, empty where a value is not available. UTF-8 with a byte order mark so that spreadsheets read names right.
 */
export function ladderCsv(ladder: Ladder, fit: LadderFit): string {
  const rows = fit.steps.flatMap((step, k) => {
    const { model, change } = step;
    const of = (term: string, values: (number | null)[]) => [
      k + 1,
      ladder.steps[k]!.name,
      term,
      ...values,
      model.n,
      model.R2,
      change.change,
      change.F,
      change.df[0],
      change.df[1],
      change.p,
      fit.errors,
    ];
    const { intercept: i } = step;
    return [
      of("(Intercept)", [i.estimate, i.se, i.lower, i.upper, null, i.t, i.p, null, null]),
      ...step.coefficients.map((c) =>
        of(c.column, [c.b.estimate, c.b.se, c.b.lower, c.b.upper, c.beta?.estimate ?? null, c.b.t, c.b.p, c.part, c.tolerance]),
      ),
    ];
  });
  return `\uFEFF${[HEAD, ...rows].map((row) => row.map(cell).join(",")).join("\r\n")}\r\n`;
}

/** A name that a spreadsheet would take for a formula is set off with an apostrophe. */
function cell(value: string | number | null): string {
  if (value === null) return "";
  if (typeof value === "number") return String(value);
  const safe = /^[=+\-@\t\r]/.test(value) ? `'${value}` : value;
  return /[",\r\n]/.test(safe) ? `"${safe.replaceAll('"', '""')}"` : safe;
}

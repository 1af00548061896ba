import { lowess } from "@/core/describe/lowess";
import { mean } from "@/core/describe/mean";
import { orderOf } from "@/core/describe/order-of";
import { standardDeviation } from "@/core/describe/standard-deviation";
import { type Bend, bendOf } from "@/core/diagnostics/bend";
import { leftOfColumn } from "@/core/diagnostics/case-statistics";
import type { NoTest } from "@/core/diagnostics/residual-tests";
import type { Coefficient } from "@/core/regression/coefficients";
import { ladderTables } from "@/core/regression/ladder";
import type { Fit } from "@/core/regression/least-squares";
import { columnKey, type Part } from "@/core/regression/terms";
import type { Desk } from "../kinds/kind";
import type { Added } from "../model/added";
import type { Ladder } from "../model/ladder";
import type { AnalysisSample } from "../prepare/analysis-sample";
import { fitLadderOf } from "./analyse-ladder";
import { PerfectFitError, NotInStepError, type Refusal, refusalOf } from "./refusal";

/** One column: its picture, and what is said of it. */
export interface AddedColumn {
  column: string;
  coefficient: Coefficient;
  /** Slope of the picture: SDs of the outcome per SD of the column. */
  slope: number;
  /** Share of the column's SD that the others leave: how far its cloud reaches. */
  ownSd: number;
  /** Respondents that are drawn: row of the data, and both sides in SDs of the outcome and of the column. */
  points: { row: number; x: number; y: number }[];
  /** Smooth of all respondents at so many places. */
  smooth: { x: number; y: number }[];
  /** Whether its square would add anything; null for what cannot bend: a level, a product. */
  bend: Bend | NoTest | null;
  /** Smallest value among the respondents. */
  lowest: number;
}

export type AddedResult =
  | {
      status: "told";
      sample: AnalysisSample;
      step: number;
      n: number;
      outcome: string;
      parts: ReadonlyMap<string, readonly Part[]>;
      columns: AddedColumn[];
    }
  | { status: "refused"; sample: AnalysisSample | null; refusal: Refusal };

/** So many respondents are drawn, evenly, where there are more. */
const MOST_POINTS = 2000;
const SMOOTH_AT = 50;

/** Pictures of what each column adds, in SDs, so that rivals have equal axes. */
export function analyseAdded({ added, ladder }: { added: Added; ladder: Ladder }, { study, responses, columns }: Desk): AddedResult {
  const found = fitLadderOf(study, ladder, responses, columns);
  if (found.status === "refused") return found;
  const { models, sample } = found;
  const step = Math.min(added.step ?? ladder.steps.length, ladder.steps.length);
  const fit = models.fits[step - 1]!;
  try {
    if (fit.perfect) throw new PerfectFitError({ step });
    const tables = ladderTables(models);
    const wanted = added.columns.map(columnKey);
    const missing = added.columns.find((column) => !fit.columns.includes(columnKey(column)));
    if (missing) throw new NotInStepError({ column: missing, step });
    const shown = wanted.length > 0 ? wanted : fit.columns;
    const sd = standardDeviation(models.y);
    const used = new Uint8Array(sample.rows);
    for (const row of sample.rowsUsed) used[row - 1] = 1;
    const told = shown.map((column): AddedColumn => {
      const own = models.design.columns.find(({ name }) => name === column)!;
      const ownSd = standardDeviation(own.values);
      const { x, y } = cloud(fit, column, own.values, added.as);
      const coefficient = tables.steps[step - 1]!.coefficients.find((c) => c.column === column)!;
      const parts = tables.parts.get(column)!;
      const number = parts.length === 1 && parts[0]!.level === null;
      return {
        column,
        coefficient,
        slope: (coefficient.b.estimate * ownSd) / sd,
        ownSd: Math.sqrt(coefficient.tolerance),
        ...pointsOf(x.map((v) => v / ownSd), y.map((v) => v / sd), sample.rowsUsed), // prettier-ignore
        bend: number ? bendOf(fit, own.values) : null,
        // of a number as it is in the data: a column may be centred
        lowest: number
          ? columns.numbers(parts[0]!.variable).values.reduce((least, v, row) => (used[row] ? Math.min(least, v) : least), Infinity)
          : 0,
      };
    });
    return { status: "told", sample, step, n: fit.n, outcome: models.spec.outcome, parts: tables.parts, columns: told };
  } catch (error) {
    return { status: "refused", sample, refusal: refusalOf(error) };
  }
}

/** Both sides about 0, in their own units: with the others taken out of both, or the column itself with its part and the residuals. */
function cloud(fit: Fit, column: string, values: Float64Array, as: Added["as"]): { x: Float64Array; y: Float64Array } {
  const k = fit.columns.indexOf(column);
  const b = fit.slopes[k]!;
  const centre = mean(values);
  const x = as === "added" ? leftOfColumn(fit, k) : values.map((v) => v - centre);
  return { x, y: x.map((v, i) => b * v + fit.residuals[i]!) };
}

function pointsOf(x: Float64Array, y: Float64Array, rows: ArrayLike<number>) {
  const order = orderOf(x);
  const [xs, ys] = [x, y].map((list) => Float64Array.from(order, (i) => list[i]!)) as [Float64Array, Float64Array];
  const line = lowess(xs, ys);
  const stride = Math.ceil(order.length / MOST_POINTS);
  const pace = Math.max(1, Math.floor(order.length / SMOOTH_AT));
  return {
    points: Array.from(order).flatMap((i, k) => (k % stride === 0 ? [{ row: rows[i]!, x: x[i]!, y: y[i]! }] : [])),
    smooth: Array.from(xs).flatMap((value, k) => (k % pace === 0 || k === xs.length - 1 ? [{ x: value, y: line[k]! }] : [])),
  };
}

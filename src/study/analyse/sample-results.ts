import type { AnalysisSample } from "../prepare/analysis-sample";

/** Who is in, under the names of docs/results.md. */
export function sampleResults(sample: AnalysisSample) {
  return {
    rows: sample.rows,
    left_out: sample.leftOut.map(({ filter, name, reason, count, unmet }) => ({ filter, name, reason, count, unmet })),
    kept_by_filter: sample.keptByFilter,
    complete: sample.complete,
    used: sample.used,
    missing_by_variable_among_kept: sample.missingByVariable,
    rows_used: sample.rowsUsed,
  };
}

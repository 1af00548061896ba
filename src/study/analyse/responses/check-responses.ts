import { group } from "d3-array";
import type { Analysis } from "../../kinds/kind";
import type { StudyContext } from "../../model/context";
import type { StudyColumns } from "../../prepare/study-columns";
import { checkValues } from "./check-values";
import { type Finding, finding } from "./findings";
import { idleCorrections, unmatchedCodes } from "./unmatched";

/** Every check on every variable of the file. Respondents who are left out of the study already are not reported again. */
export function checkResponses(study: StudyContext, columns: StudyColumns, rows: number): Finding[] {
  const derived = new Set(study.derived?.map((d) => d.name));
  const variables = study.codebook.filter((v) => !derived.has(v.name));
  const kept = columns.kept(rows);
  const stillThere = (row: number) => kept[row - 1] === 1;
  const findings = variables.flatMap((v) => checkValues(v, columns));
  const left = findings.flatMap((f) => {
    if (f.rows.length === 0) return [f];
    const still = f.rows.filter(stillThere);
    return still.length === 0 ? [] : [{ ...f, rows: still, count: still.length }];
  });
  return [...left, ...checkNamed({ ...study, codebook: variables }, columns)];
}

/** What the study names and the file does not have: no respondent is concerned, or those whose cell was not mended. */
function checkNamed(study: StudyContext, columns: StudyColumns): Finding[] {
  const codes = unmatchedCodes(study, columns).map(({ id, values }) => ({
    ...finding("unmet-codes", id, [], new Map(values.map((value) => [value, 0]))),
    count: values.length,
  }));
  const idle = group(idleCorrections(study, columns), (c) => c.variable);
  const corrections = [...idle].map(([variable, list]) => {
    const rows = list.map((c) => c.row).sort((a, b) => a - b);
    return finding("idle-corrections", variable, rows);
  });
  return [...codes, ...corrections];
}

export const analysis: Analysis<object, object, Finding[]> = {
  run: (_, { study, columns, rows }) => checkResponses(study, columns, rows),
};

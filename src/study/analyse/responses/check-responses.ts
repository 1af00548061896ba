import type { Analysis } from "../../kinds/kind";
import type { StudyContext } from "../../model/context";
import type { StudyColumns } from "../../prepare/study-columns";
import { checkRespondents } from "./check-respondents";
import { checkValues } from "./check-values";
import type { Finding } from "./findings";

/** Every check on every variable of the file. Respondents who are left out of the study already are not reported again. */
export function checkResponses(study: StudyContext, columns: StudyColumns, rows: number): Finding[] {
  const derived = new Set(study.derived?.map((d) => d.name));
  const variables = study.codebook.filter((v) => !derived.has(v.name));
  const kept = columns.kept(rows);
  const stillThere = (row: number) => kept[row - 1] === 1;
  const findings = [...checkRespondents(variables, columns, rows), ...variables.flatMap((v) => checkValues(v, columns))];
  return findings.flatMap((f) => {
    if (f.rows.length === 0) return [f];
    const groups = f.groups.map((g) => g.filter(stillThere)).filter((g) => g.length > 1);
    const left = f.groups.length > 0 ? groups.flatMap((g) => g.slice(1)).sort((a, b) => a - b) : f.rows.filter(stillThere);
    return left.length === 0 ? [] : [{ ...f, rows: left, groups, count: left.length }];
  });
}

export const analysis: Analysis<object, object, Finding[]> = {
  run: (_, { study, columns, rows }) => checkResponses(study, columns, rows),
};

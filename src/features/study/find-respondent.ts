import { cellText } from "@/study/model/response-column";
import type { StudyView } from "./study-context";

/**
 * The row, from 1, of the respondent that a code or a row names: by the code in a variable of respondent codes first.
 * @returns null when there is none
 * @throws when the columns cannot be fetched
 */
export async function findRespondent(
  { study, dataset, columns }: Pick<StudyView, "study" | "dataset" | "columns">,
  named: string,
): Promise<number | null> {
  const wanted = named.trim().toLowerCase();
  if (wanted === "") return null;
  const codes = study.codebook.filter((v) => v.kind === "code" && dataset.columns.includes(v.name)).map((v) => v.name);
  for (const column of await columns.columns(codes))
    for (let row = 0; row < column.values.length; row++) if (cellText(column, row)?.toLowerCase() === wanted) return row + 1;
  const row = Number(wanted);
  return Number.isInteger(row) && row >= 1 && row <= dataset.rows ? row : null;
}

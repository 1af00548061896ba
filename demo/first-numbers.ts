import { datasetOf } from "@/features/study/dataset-facts";
import { firstNumbersOf } from "@/features/study/first-numbers";
import type { Database } from "@/server/database";
import { firstNumbersRepository } from "@/server/repositories/first-numbers-repository";
import { responsesRepository } from "@/server/repositories/responses-repository";
import { studiesRepository } from "@/server/repositories/studies-repository";
import { analyseLadder } from "@/study/analyse/analyse-ladder";
import { resultText } from "@/study/model/first-numbers";

/** Works the first ladder of the demo study out, as the page that is opened next would, and keeps its numbers. @param program what is built, or will be */
export function keepFirstNumbers(db: Database, id: string, program: string): void {
  const { study } = studiesRepository(db).load(id);
  const ladder = study.ladders[0];
  if (!ladder) return;
  const dataset = datasetOf(study);
  const columns = new Map(
    responsesRepository(db)
      .columns(dataset.id, dataset.columns)
      .map((column) => [column.name, column]),
  );
  const result = resultText(analyseLadder(study, ladder, (name) => columns.get(name)));
  if (result !== null) firstNumbersRepository(db).put(id, { ...firstNumbersOf(study, ladder, program), result });
}

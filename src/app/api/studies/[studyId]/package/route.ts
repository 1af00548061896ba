import { writePackage } from "@/files/codebook/write-package";
import { database } from "@/server/database";
import { route } from "@/server/http/route";
import { responsesRepository } from "@/server/repositories/responses-repository";
import { studiesRepository } from "@/server/repositories/studies-repository";
import { unlessRefused } from "@/study/analyse/refusal";
import { emptyColumn } from "@/study/model/response-column";
import { titleOf } from "@/study/model/study";
import { StudyColumns } from "@/study/prepare/study-columns";
import { refusalWords } from "@/study/report/refusals";

/**
 * The responses with their corrections and derived variables, and the codebook, as a data package (ZIP). A variable that cannot be worked out is there without values,
 * and its note says why.
 */
export const GET = route<{ studyId: string }>("studies.package", (_request, { studyId }) => {
  const db = database();
  const { study } = studiesRepository(db).load(studyId);
  const responses = responsesRepository(db);
  const names = new Set(responses.facts(study.responses!.dataset).columns);
  const columns = new StudyColumns(study, (name) => (names.has(name) ? responses.columns(study.responses!.dataset, [name])[0] : undefined));
  const title = (name: string) => titleOf(study, name);
  const { rows } = study.responses!;
  const all = study.codebook.map((variable) => {
    const column = unlessRefused(() => columns.column(variable.name));
    if (!("refusal" in column)) return { variable, column };
    const why = `Not worked out: ${refusalWords(column.refusal, title).what}`;
    return { variable: { ...variable, note: [variable.note, why].filter(Boolean).join(" ") }, column: emptyColumn(variable.name, rows) };
  });
  const bytes = writePackage(
    study.name,
    all.map(({ variable }) => variable),
    all.map(({ column }) => column),
  );
  return new Response(bytes, {
    headers: { "content-type": "application/zip", "content-disposition": `attachment; filename="${encodeURIComponent(study.name)}.zip"` },
  });
});

import { writePackage } from "@/files/codebook/write-package";
import { database } from "@/server/database";
import { route } from "@/server/http/route";
import { responsesRepository } from "@/server/repositories/responses-repository";
import { studiesRepository } from "@/server/repositories/studies-repository";
import { StudyColumns } from "@/study/prepare/study-columns";

/** The responses with their corrections and derived variables, and the codebook, as a data package (ZIP). */
export const GET = route<{ studyId: string }>("studies.package", (_request, { studyId }) => {
  const db = database();
  const { study } = studiesRepository(db).load(studyId);
  const responses = responsesRepository(db);
  const names = new Set(responses.facts(study.responses!.dataset).columns);
  const columns = new StudyColumns(study, (name) => (names.has(name) ? responses.columns(study.responses!.dataset, [name])[0] : undefined));
  const bytes = writePackage(study.name, study.codebook, (name) => columns.column(name));
  return new Response(bytes, {
    headers: { "content-type": "application/zip", "content-disposition": `attachment; filename="${encodeURIComponent(study.name)}.zip"` },
  });
});

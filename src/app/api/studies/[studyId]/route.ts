import { database } from "@/server/database";
import { route } from "@/server/http/route";
import { studiesRepository } from "@/server/repositories/studies-repository";
import { deleteStudy } from "@/server/study-end";

/** A study as saved, with its revision. */
export const GET = route<{ studyId: string }>("studies.load", (_request, { studyId }) => {
  const { study, revision } = studiesRepository(database()).load(studyId);
  return Response.json({ study, revision });
});

/** Deletes a study: for two weeks it can be taken back. */
export const DELETE = route<{ studyId: string }>("studies.delete", (_request, { studyId }) => {
  deleteStudy(database(), studyId);
  return new Response(null, { status: 204 });
});

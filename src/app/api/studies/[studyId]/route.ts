import { database } from "@/server/database";
import { route } from "@/server/http/route";
import { studiesRepository } from "@/server/repositories/studies-repository";

/** A study as saved, with its revision. */
export const GET = route<{ studyId: string }>("studies.load", (_request, { studyId }) => {
  const { study, revision } = studiesRepository(database()).load(studyId);
  return Response.json({ study, revision });
});

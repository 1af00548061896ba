import { z } from "zod";
import { readJson } from "@/server/http/read-json";
import { putStudyAway, renameStudy } from "@/server/study-list";
import { Title } from "@/study/model/names";
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

const Change = z.union([z.strictObject({ name: Title }), z.strictObject({ putAway: z.boolean() })]);

/** From the list of studies: another name, put away, or among the others again. */
export const PATCH = route<{ studyId: string }>("studies.change", async (request, { studyId }) => {
  const change = await readJson(request, Change, 10_000);
  if ("name" in change) renameStudy(database(), studyId, change.name);
  else putStudyAway(database(), studyId, change.putAway);
  return new Response(null, { status: 204 });
});

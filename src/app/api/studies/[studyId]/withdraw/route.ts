import { z } from "zod";
import { database } from "@/server/database";
import { readJson } from "@/server/http/read-json";
import { route } from "@/server/http/route";
import { studiesRepository } from "@/server/repositories/studies-repository";
import { withdrawRespondent } from "@/server/withdrawal";

const Body = z.strictObject({ revision: z.int().min(1), row: z.int().min(1) });

/** The other studies that stand on the same responses, by name: they keep a respondent who withdraws from this one. */
export const GET = route<{ studyId: string }>("studies.besides", (_request, { studyId }) => {
  const repository = studiesRepository(database());
  const { study } = repository.load(studyId);
  return Response.json(repository.besides(studyId, study.responses!.dataset).map(({ name }) => name));
});

/** Erases one respondent of a study for good. Answers with the revision that says so. */
export const POST = route<{ studyId: string }>("studies.withdraw", async (request, { studyId }) => {
  const { revision, row } = await readJson(request, Body, 1000);
  const saved = await withdrawRespondent(database(), studyId, revision, row);
  return Response.json({ revision: saved.revision });
});

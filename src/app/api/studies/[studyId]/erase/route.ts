import { z } from "zod";
import { database } from "@/server/database";
import { NotFoundError } from "@/server/errors";
import { readJson } from "@/server/http/read-json";
import { route } from "@/server/http/route";
import { studiesRepository } from "@/server/repositories/studies-repository";
import { eraseStudy } from "@/server/study-end";

/** The name of the study, so that none is erased by a slip. */
const Body = z.strictObject({ name: z.string() });

/** Erases a study that was deleted, for good: nothing of it stays on this machine. */
export const POST = route<{ studyId: string }>("studies.erase", async (request, { studyId }) => {
  const { name } = await readJson(request, Body, 10_000);
  const db = database();
  const deleted = studiesRepository(db)
    .deleted()
    .find((study) => study.id === studyId);
  if (!deleted || deleted.name !== name) throw new NotFoundError({ what: "deleted study", id: name });
  await eraseStudy(db, studyId);
  return new Response(null, { status: 204 });
});

import { z } from "zod";
import { database } from "@/server/database";
import { route } from "@/server/http/route";
import { NotFoundError } from "@/server/errors";
import { studiesRepository } from "@/server/repositories/studies-repository";
import { studyAt } from "@/server/study-door";

/** One revision: what it changed, and the study as it stood after it. */
export const GET = route<{ studyId: string; revision: string }>("studies.revision", (_request, params) => {
  const revision = z.coerce.number().int().min(1).parse(params.revision);
  const db = database();
  const [recorded] = studiesRepository(db).revisions(params.studyId, { before: revision + 1, most: 1 });
  if (!recorded || recorded.revision !== revision) throw new NotFoundError({ what: "revision", id: params.revision });
  return Response.json({ ...recorded, study: studyAt(db, params.studyId, revision) });
});

import { z } from "zod";
import { database } from "@/server/database";
import { route } from "@/server/http/route";
import { studiesRepository } from "@/server/repositories/studies-repository";
import { undoable } from "@/study/model/history";

const Query = z.object({ before: z.coerce.number().int().min(1).optional(), most: z.coerce.number().int().min(1).max(200).default(50) });

/** The trail, newest first (?before=120&most=50), and which revision would be taken back or done again next. */
export const GET = route<{ studyId: string }>("studies.trail", (request, { studyId }) => {
  const { before, most } = Query.parse(Object.fromEntries(new URL(request.url).searchParams));
  const repository = studiesRepository(database());
  const { revision } = repository.load(studyId);
  const list = repository.revisions(studyId, { before: before ?? null, most });
  return Response.json({ revision, ...undoable(repository.marks(studyId)), revisions: list });
});

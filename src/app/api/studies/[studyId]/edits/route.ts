import { z } from "zod";
import { database } from "@/server/database";
import { readJson } from "@/server/http/read-json";
import { route } from "@/server/http/route";
import { editStudy } from "@/server/study-door";
import { EditSet } from "@/study/model/edit";
import { RevisionKind } from "@/study/model/history";

const Body = z.strictObject({
  revision: z.int().min(1),
  edits: EditSet,
  how: RevisionKind.exclude(["withdrawal"]).default("edit"),
  of: z.int().min(1).nullable().default(null),
  id: z.uuid().nullable().default(null),
});

/** Edits, made on a revision: all take effect, or none. Answers with the revision that records them. */
export const POST = route<{ studyId: string }>("studies.edit", async (request, { studyId }) => {
  const { revision, edits, how, of, id } = await readJson(request, Body, 16_000_000);
  const saved = editStudy(database(), studyId, revision, edits, { how, of, id });
  return Response.json({ revision: saved.revision });
});

import { database } from "@/server/database";
import { readJson } from "@/server/http/read-json";
import { route } from "@/server/http/route";
import { seenRepository } from "@/server/repositories/seen-repository";
import { studiesRepository } from "@/server/repositories/studies-repository";
import { SeenResult } from "@/study/model/seen-result";

/** A result was looked at: what it was, and what it stood on. */
export const POST = route<{ studyId: string }>("studies.seen", async (request, { studyId }) => {
  const seen = await readJson(request, SeenResult, 1_000_000);
  const db = database();
  studiesRepository(db).load(studyId);
  seenRepository(db).put(studyId, seen);
  return new Response(null, { status: 204 });
});

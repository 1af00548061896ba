import { database } from "@/server/database";
import { readJson } from "@/server/http/read-json";
import { route } from "@/server/http/route";
import { keptRepository } from "@/server/repositories/kept-repository";
import { studiesRepository } from "@/server/repositories/studies-repository";
import { KeptIntervals } from "@/study/model/replicate-intervals";

/** Intervals kept under a key; 204 when there are none. */
export const GET = route<{ studyId: string }>("studies.kept.find", async (request, { studyId }) => {
  const key = KeptIntervals.shape.key.parse(new URL(request.url).searchParams.get("key"));
  const found = keptRepository(database()).find(studyId, key);
  return found ? Response.json(found) : new Response(null, { status: 204 });
});

/** Keeps intervals that were worked out. */
export const PUT = route<{ studyId: string }>("studies.kept.put", async (request, { studyId }) => {
  const kept = await readJson(request, KeptIntervals, 4_000_000);
  const db = database();
  studiesRepository(db).load(studyId);
  keptRepository(db).put(studyId, kept);
  return new Response(null, { status: 204 });
});

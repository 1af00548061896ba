import { database } from "@/server/database";
import { readJson } from "@/server/http/read-json";
import { route } from "@/server/http/route";
import { firstNumbersRepository } from "@/server/repositories/first-numbers-repository";
import { studiesRepository } from "@/server/repositories/studies-repository";
import { FirstNumbers } from "@/study/model/first-numbers";

/** Keeps what a page has worked out, for when it is next opened. */
export const PUT = route<{ studyId: string }>("studies.first-numbers", async (request, { studyId }) => {
  const worked = await readJson(request, FirstNumbers, 400_000);
  const db = database();
  studiesRepository(db).load(studyId);
  firstNumbersRepository(db).put(studyId, worked);
  return new Response(null, { status: 204 });
});

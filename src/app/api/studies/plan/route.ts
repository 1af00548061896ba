import { beginPlan, PlannedStudy } from "@/server/begin-plan";
import { database } from "@/server/database";
import { readJson } from "@/server/http/read-json";
import { route } from "@/server/http/route";

/** A study before its answers: of a name and a codebook. */
export const POST = route("studies.plan", async (request) => {
  const planned = await readJson(request, PlannedStudy, 20_000_000);
  return Response.json({ id: (await beginPlan(database(), planned)).id }, { status: 201 });
});

import { database } from "@/server/database";
import { route } from "@/server/http/route";
import { responsesRepository } from "@/server/repositories/responses-repository";

/** Responses that were read and are not wanted after all. Those a study stands on, or stood on, stay. */
export const DELETE = route<{ datasetId: string }>("datasets.discard", (_request, { datasetId }) => {
  responsesRepository(database()).abandonUnheld(datasetId);
  return new Response(null, { status: 204 });
});

import { z } from "zod";
import { database } from "@/server/database";
import { route } from "@/server/http/route";
import { responsesRepository } from "@/server/repositories/responses-repository";

const Block = z.object({ from: z.coerce.number().int().min(0), count: z.coerce.number().int().min(1).max(500) });

/** A block of rows (?from=0&count=200) as texts, null where a cell is empty. */
export const GET = route<{ datasetId: string }>("datasets.cells", (request, { datasetId }) => {
  const { from, count } = Block.parse(Object.fromEntries(new URL(request.url).searchParams));
  return Response.json(responsesRepository(database()).cells(datasetId, from, count), {
    headers: { "cache-control": "private, max-age=31536000, immutable" },
  });
});

import { z } from "zod";
import { database } from "@/server/database";
import { readJson } from "@/server/http/read-json";
import { route } from "@/server/http/route";
import { responsesRepository } from "@/server/repositories/responses-repository";

const Block = z.strictObject({ names: z.array(z.string().min(1)).min(1).max(200), rows: z.array(z.int().min(0)).min(1).max(500) });

/** Some cells as texts: a list of the columns asked for, for each row asked for (from 0); null where a cell is empty. */
export const POST = route<{ datasetId: string }>("datasets.cells", async (request, { datasetId }) => {
  const { names, rows } = await readJson(request, Block, 200_000);
  return Response.json(responsesRepository(database()).cells(datasetId, names, rows));
});

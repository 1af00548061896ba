import { z } from "zod";
import { encodeColumns } from "@/files/column-bytes";
import { database } from "@/server/database";
import { route } from "@/server/http/route";
import { responsesRepository } from "@/server/repositories/responses-repository";

const Names = z.array(z.string().min(1)).min(1).max(200);

/** Whole columns (?name=a&name=b) as bytes: see src/files/column-bytes.ts. */
export const GET = route<{ datasetId: string }>("datasets.columns", (request, { datasetId }) => {
  const names = Names.parse(new URL(request.url).searchParams.getAll("name"));
  const bytes = encodeColumns(responsesRepository(database()).columns(datasetId, names));
  return new Response(bytes, {
    headers: { "content-type": "application/octet-stream" },
  });
});

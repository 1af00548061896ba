import { GivenOptions } from "@/files/reading/understanding";
import { readJson } from "@/server/http/read-json";
import { route } from "@/server/http/route";
import { understandUpload } from "@/server/reader/reader";
import { discardUpload, findUpload } from "@/server/uploads";

/** How the file would be read when some things are said rather than found. */
export const POST = route<{ uploadId: string }>("uploads.understand", async (request, { uploadId }) => {
  const given = await readJson(request, GivenOptions, 1_000_000);
  const upload = await findUpload(uploadId);
  return Response.json({ id: upload.id, name: upload.name, understanding: await understandUpload(upload.path, given) });
});

/** The file is not wanted after all. */
export const DELETE = route<{ uploadId: string }>("uploads.discard", async (_request, { uploadId }) => {
  await discardUpload(uploadId);
  return new Response(null, { status: 204 });
});

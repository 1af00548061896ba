import { Readable } from "node:stream";
import type { ReadableStream as NodeStream } from "node:stream/web";
import { z } from "zod";
import { ImportFaultError } from "@/files/reading/import-fault";
import { isStudyFile } from "@/files/study-file/read-study-file";
import { route } from "@/server/http/route";
import { understandUpload } from "@/server/reader/reader";
import { studyFileFacts } from "@/server/study-file";
import { discardUpload, saveUpload } from "@/server/uploads";

const FileName = z.string().trim().min(1).max(255);
const ContentLength = z.coerce.number().int().min(0).nullable();

/** A file arrives (raw body; its name, percent-encoded, in x-file-name). Answers with how it would be read; nothing is kept yet. */
export const POST = route("uploads.save", async (request) => {
  const name = FileName.parse(decodeURIComponent(request.headers.get("x-file-name") ?? ""));
  const expected = ContentLength.parse(request.headers.get("content-length"));
  if (!request.body) throw new ImportFaultError("empty-file", "The file is empty: it has neither a header nor rows.");
  const upload = await saveUpload(Readable.fromWeb(request.body as NodeStream<Uint8Array>), { name, expected });
  try {
    if (await isStudyFile(upload.path)) {
      const studyFile = await studyFileFacts(upload.path);
      return Response.json({ id: upload.id, name: upload.name, studyFile }, { status: 201 });
    }
    return Response.json({ id: upload.id, name: upload.name, understanding: await understandUpload(upload.path) }, { status: 201 });
  } catch (error) {
    await discardUpload(upload.id);
    throw error;
  }
});

import { z } from "zod";
import { ImportFaultError } from "@/files/reading/import-fault";
import { TableOptions } from "@/files/reading/table-options";
import { database } from "@/server/database";
import { stageAppend, stageReplace } from "@/server/further-responses";
import { readJson } from "@/server/http/read-json";
import { faultOf, route } from "@/server/http/route";
import { beginStudy, type Watch } from "@/server/import-responses";
import { takeStudyFile } from "@/server/study-file";
import { discardUpload, findUpload, type Upload } from "@/server/uploads";
import { VariableName } from "@/study/model/names";

const Body = z.strictObject({
  /** Of a study file none are asked: it says itself how it is read. */
  options: TableOptions.optional(),
  as: z.discriminatedUnion("kind", [
    z.strictObject({ kind: z.literal("study") }),
    z.strictObject({ kind: z.literal("study-file") }),
    z.strictObject({ kind: z.literal("append"), study: z.string() }),
    z.strictObject({ kind: z.literal("replace"), study: z.string(), key: VariableName.nullable() }),
  ]),
});

/**
 * Reads the whole file: into a new study, or beside one as responses that wait to be taken. Answers with lines of JSON:
 * { rows } now and then while it reads, and at the end { done } or { fault }. Going away ends the reading, and nothing stays.
 */
export const POST = route<{ uploadId: string }>("uploads.take", async (request, { uploadId }) => {
  const body = await readJson(request, Body, 1_000_000);
  const upload = await findUpload(uploadId);
  const stop = new AbortController();
  request.signal.addEventListener("abort", () => stop.abort());
  const lines = new ReadableStream<Uint8Array>({
    async start(controller) {
      const say = (line: unknown) => {
        if (!stop.signal.aborted) controller.enqueue(new TextEncoder().encode(`${JSON.stringify(line)}\n`));
      };
      try {
        const done = await take(upload, body, { signal: stop.signal, progress: (rows) => say({ rows }) });
        await discardUpload(upload.id);
        say({ done });
      } catch (error) {
        say({ fault: faultOf("uploads.take", error) });
      }
      if (!stop.signal.aborted) controller.close();
    },
    cancel: () => stop.abort(),
  });
  return new Response(lines, { headers: { "content-type": "application/x-ndjson", "cache-control": "no-store" } });
});

async function take(upload: Upload, { options, as }: z.infer<typeof Body>, watch: Watch) {
  const db = database();
  if (as.kind === "study-file") return { kind: "study", id: (await takeStudyFile(db, upload, watch)).id };
  if (!options) throw new ImportFaultError("malformed-request", "It was not said how the file is to be read. Drop it again.");
  if (as.kind === "study") return { kind: "study", id: (await beginStudy(db, upload, options, watch)).id };
  if (as.kind === "append") return stageAppend(db, as.study, upload, options, watch);
  return stageReplace(db, as.study, upload, options, as.key, watch);
}

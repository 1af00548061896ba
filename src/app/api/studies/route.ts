import { Readable } from "node:stream";
import type { ReadableStream as NodeStream } from "node:stream/web";
import { z } from "zod";
import { ImportFaultError } from "@/files/import-fault";
import { database } from "@/server/database";
import { route } from "@/server/http/route";
import { importAsStudy } from "@/server/import-responses";
import { studiesRepository } from "@/server/repositories/studies-repository";

const FileName = z.string().trim().min(1).max(255);
const ContentLength = z.coerce.number().int().min(0).nullable();

/** The list of studies. */
export const GET = route("studies.list", () => Response.json(studiesRepository(database()).list()));

/** A file (raw body; its name, percent-encoded, in x-file-name) becomes a new study. */
export const POST = route("studies.import", async (request) => {
  const name = FileName.parse(decodeURIComponent(request.headers.get("x-file-name") ?? ""));
  const expected = ContentLength.parse(request.headers.get("content-length"));
  if (!request.body) throw new ImportFaultError("empty-file", "The file is empty: it has neither a header nor rows.");
  const upload = Readable.fromWeb(request.body as NodeStream<Uint8Array>);
  const { id } = await importAsStudy(database(), upload, { name, expected }, undefined, request.signal);
  return Response.json({ id }, { status: 201 });
});

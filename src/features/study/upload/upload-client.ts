import { z } from "zod";
import type { TableOptions } from "@/files/reading/table-options";
import { type GivenOptions, Understanding } from "@/files/reading/understanding";
import { StagedResponses } from "@/study/prepare/staged-responses";

/** A file that has arrived, and how it would be read. */
const Arrived = z.strictObject({ id: z.string(), name: z.string(), understanding: Understanding });
export type Arrived = z.infer<typeof Arrived>;

/** A study file that has arrived: what it holds, in words. */
const ArrivedStudyFile = z.strictObject({
  id: z.string(),
  name: z.string(),
  studyFile: z.strictObject({ name: z.string(), said: z.array(z.string()) }),
});
export type ArrivedStudyFile = z.infer<typeof ArrivedStudyFile>;

/** What came of sending a file: what was understood, or a sentence that says why not. */
export type Sent =
  | { status: "arrived"; file: Arrived }
  | { status: "study-file"; file: ArrivedStudyFile }
  | { status: "refused"; message: string }
  | { status: "stopped" };

const Fault = z.looseObject({ code: z.string(), message: z.string() });
const Line = z.union([
  z.strictObject({ rows: z.int() }),
  z.strictObject({ fault: Fault }),
  z.strictObject({ done: z.union([z.strictObject({ kind: z.literal("study"), id: z.string() }), StagedResponses]) }),
]);
const SILENT = "The server does not answer. Nothing was kept; please try again.";
const BROKEN = "The server gave no answer that could be understood. Nothing was kept; please try again.";

/**
 * Sends a file to be looked at. XMLHttpRequest, because fetch tells nothing of how far an upload is.
 * @param progress share sent, 0…1; 1 means sent and being looked at
 */
export function sendFile(file: File, progress: (share: number) => void, signal: AbortSignal): Promise<Sent> {
  return new Promise((resolve) => {
    const request = new XMLHttpRequest();
    request.open("POST", "/api/uploads");
    request.setRequestHeader("x-file-name", encodeURIComponent(file.name));
    request.upload.onprogress = (event) => progress(event.lengthComputable ? event.loaded / event.total : 0);
    request.onload = () => resolve(readAnswer(request.status, request.responseText));
    request.onerror = () => resolve({ status: "refused", message: `The file could not be sent. ${SILENT}` });
    request.onabort = () => resolve({ status: "stopped" });
    signal.addEventListener("abort", () => request.abort());
    request.send(file);
  });
}

/** Asks again how a file would be read, some things said rather than found. */
export async function understandAgain(id: string, given: GivenOptions): Promise<Sent> {
  try {
    const response = await fetch(`/api/uploads/${id}`, {
      method: "POST",
      headers: { "content-type": "application/json" },
      body: JSON.stringify(given),
    });
    return readAnswer(response.status, await response.text());
  } catch {
    return { status: "refused", message: SILENT };
  }
}

/** The file is not wanted. */
export function discard(id: string): void {
  void fetch(`/api/uploads/${id}`, { method: "DELETE", keepalive: true }).catch(() => undefined); // it goes by itself after a day
}

function readAnswer(status: number, text: string): Sent {
  try {
    const body: unknown = JSON.parse(text);
    const whole = ArrivedStudyFile.safeParse(body);
    if (whole.success) return { status: "study-file", file: whole.data };
    if (status === 200 || status === 201) return { status: "arrived", file: Arrived.parse(body) };
    const fault = Fault.safeParse(body);
    return { status: "refused", message: fault.success ? fault.data.message : BROKEN };
  } catch {
    return { status: "refused", message: BROKEN };
  }
}

/** What a file is to become. */
export type Purpose =
  { kind: "study" } | { kind: "study-file" } | { kind: "append"; study: string } | { kind: "replace"; study: string; key: string | null };

/** What came of taking a file in. */
export type Taken =
  | { status: "study"; id: string }
  | { status: "staged"; staged: StagedResponses }
  | { status: "refused"; code: string; message: string }
  | { status: "stopped" };

/** Has the whole file read. @param options null for a study file, which says itself how it is read @param progress rows read so far */
export async function takeFile(
  id: string,
  options: TableOptions | null,
  as: Purpose,
  progress: (rows: number) => void,
  signal: AbortSignal,
): Promise<Taken> {
  try {
    const response = await fetch(`/api/uploads/${id}/take`, {
      method: "POST",
      headers: { "content-type": "application/json" },
      body: JSON.stringify({ ...(options && { options }), as }),
      signal,
    });
    if (!response.ok || !response.body) {
      const fault = Fault.safeParse(await response.json().catch(() => null));
      return { status: "refused", code: fault.data?.code ?? "broken", message: fault.data?.message ?? BROKEN };
    }
    let rest = "";
    const decoder = new TextDecoder();
    const reader = response.body.getReader();
    for (let next = await reader.read(); !next.done; next = await reader.read()) {
      rest += decoder.decode(next.value, { stream: true });
      const lines = rest.split("\n");
      rest = lines.pop()!;
      for (const line of lines) {
        const said = Line.parse(JSON.parse(line));
        if ("rows" in said) progress(said.rows);
        else if ("fault" in said) return { status: "refused", code: said.fault.code, message: said.fault.message };
        else return said.done.kind === "study" ? { status: "study", id: said.done.id } : { status: "staged", staged: said.done };
      }
    }
    return { status: "refused", code: "broken", message: BROKEN };
  } catch {
    return signal.aborted ? { status: "stopped" } : { status: "refused", code: "silent", message: SILENT };
  }
}

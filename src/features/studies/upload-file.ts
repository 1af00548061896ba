import { z } from "zod";

const Created = z.object({ id: z.string() });
const Fault = z.object({ message: z.string() });

/** What came of an upload: the new study, or a sentence that says why not. */
export type Upload = { status: "created"; id: string } | { status: "refused"; message: string } | { status: "stopped" };

/**
 * Sends a file to become a study. XMLHttpRequest, because fetch tells nothing of how far an upload is.
 * @param progress share sent, 0…1; 1 means sent and being read
 */
export function uploadFile(file: File, progress: (share: number) => void, signal: AbortSignal): Promise<Upload> {
  return new Promise((resolve) => {
    const request = new XMLHttpRequest();
    request.open("POST", "/api/studies");
    request.setRequestHeader("x-file-name", encodeURIComponent(file.name));
    request.upload.onprogress = (event) => progress(event.lengthComputable ? event.loaded / event.total : 0);
    request.onload = () => resolve(readAnswer(request));
    request.onerror = () =>
      resolve({
        status: "refused",
        message: "The file could not be sent: the server does not answer. Nothing was kept; please try again.",
      });
    request.onabort = () => resolve({ status: "stopped" });
    signal.addEventListener("abort", () => request.abort());
    request.send(file);
  });
}

function readAnswer(request: XMLHttpRequest): Upload {
  const broken = {
    status: "refused",
    message: "The server gave no answer that could be understood. Nothing was kept; please try again.",
  } as const;
  try {
    const body: unknown = JSON.parse(request.responseText);
    if (request.status === 201) return { status: "created", id: Created.parse(body).id };
    const fault = Fault.safeParse(body);
    return fault.success ? { status: "refused", message: fault.data.message } : broken;
  } catch {
    return broken;
  }
}

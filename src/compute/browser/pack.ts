import type { StudyFileParts } from "@/files/study-file/pack";

type Answer = { done: number; of: number } | { pieces: Uint8Array[] } | { failed: true };

/** A study file, packed in a worker of its own. @throws the signal's reason, or an error when it could not be packed */
export function packed(parts: StudyFileParts, progress: (done: number, of: number) => void, signal: AbortSignal): Promise<Blob> {
  signal.throwIfAborted();
  const worker = new Worker(new URL("./pack.worker.ts", import.meta.url), { type: "module" });
  return new Promise<Blob>((resolve, reject) => {
    signal.addEventListener("abort", () => reject(signal.reason as Error));
    worker.onerror = () => reject(new Error("the study file could not be packed"));
    worker.onmessage = ({ data }: MessageEvent<Answer>) => {
      if ("done" in data) progress(data.done, data.of);
      else if ("pieces" in data) resolve(new Blob(data.pieces as BlobPart[], { type: "application/zip" }));
      else reject(new Error("the study file could not be packed"));
    };
    worker.postMessage(parts);
  }).finally(() => worker.terminate());
}

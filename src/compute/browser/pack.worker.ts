import { packStudyFile, type StudyFileParts } from "@/files/study-file/pack";

/** Packs one study file, and is ended: a large one takes seconds, which the page has not. */
self.addEventListener("message", (event: MessageEvent<StudyFileParts>) => {
  try {
    const pieces = packStudyFile(event.data, (done, of) => self.postMessage({ done, of }));
    self.postMessage({ pieces }, { transfer: pieces.map((piece) => piece.buffer as ArrayBuffer) });
  } catch {
    self.postMessage({ failed: true });
  }
});

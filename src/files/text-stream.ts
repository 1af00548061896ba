import { ImportFaultError } from "./import-fault";

/**
 * Bytes to text, strictly UTF-8 with or without a byte order mark, piece by piece.
 * @throws ImportFaultError for another encoding, and for bytes that are no text at all, with the line
 */
export async function* decodeText(bytes: AsyncIterable<Uint8Array>): AsyncGenerator<string> {
  const decoder = new TextDecoder("utf-8", { fatal: true });
  let line = 1;
  let first = true;
  for await (const piece of bytes) {
    if (first && piece.length >= 2) refuseOtherEncodings(piece);
    first = false;
    if (piece.includes(0)) throw binaryFault(line + linesBefore(piece, piece.indexOf(0)));
    let text: string;
    try {
      text = decoder.decode(piece, { stream: true });
    } catch {
      throw encodingFault(line + linesBefore(piece, firstInvalid(piece)));
    }
    line += linesBefore(piece, piece.length);
    if (text !== "") yield text;
  }
  try {
    const rest = decoder.decode();
    if (rest !== "") yield rest;
  } catch {
    throw encodingFault(line);
  }
}

function refuseOtherEncodings(piece: Uint8Array): void {
  const [a, b] = [piece[0]!, piece[1]!];
  if ((a === 0xff && b === 0xfe) || (a === 0xfe && b === 0xff)) {
    throw new ImportFaultError("wrong-encoding", "The file is written in UTF-16. Save it again as CSV in UTF-8 and drop it here.", 1);
  }
  if (a === 0x50 && b === 0x4b) {
    throw new ImportFaultError(
      "not-text",
      "This is a packed file (a spreadsheet or an archive), not a CSV file. Save the sheet as CSV in UTF-8 and drop that here.",
    );
  }
}

function binaryFault(line: number): ImportFaultError {
  return new ImportFaultError(
    "not-text",
    `The file holds bytes that are not text (first at line ${line}). Save the data as CSV in UTF-8 and drop that here.`,
    line,
  );
}

function encodingFault(line: number): ImportFaultError {
  return new ImportFaultError(
    "wrong-encoding",
    `Line ${line} is not written in UTF-8. Save the file again as CSV in UTF-8 and drop it here.`,
    line,
  );
}

function linesBefore(piece: Uint8Array, end: number): number {
  let lines = 0;
  for (let i = 0; i < end; i++) if (piece[i] === 10) lines++;
  return lines;
}

/** Index of the first byte that cannot stand in UTF-8, by bisecting: only called once a file is refused. */
function firstInvalid(piece: Uint8Array): number {
  let [good, bad] = [0, piece.length];
  while (bad - good > 1) {
    const middle = (good + bad) >> 1;
    try {
      new TextDecoder("utf-8", { fatal: true }).decode(piece.subarray(0, middle), { stream: true });
      good = middle;
    } catch {
      bad = middle;
    }
  }
  return good;
}

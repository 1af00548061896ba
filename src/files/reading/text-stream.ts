import { ImportFaultError } from "./import-fault";
import type { TextEncodingName } from "./table-options";

/** What encoding a file's bytes are in, and how that is known. */
export interface FoundEncoding {
  encoding: TextEncodingName;
  why: string;
}

const HEAD = 4096;

/**
 * Finds the encoding: a byte order mark says it; else zero bytes in every second place mean UTF-16; else UTF-8 when all of it
 * is that; else Windows-1252. Reads the file to its end only when no mark is there.
 * @throws ImportFaultError when the bytes are no text
 */
export async function findEncoding(bytes: AsyncIterable<Uint8Array>): Promise<FoundEncoding> {
  const decoder = new TextDecoder("utf-8", { fatal: true });
  let line = 1;
  let first = true;
  for await (const piece of bytes) {
    if (first) {
      const marked = byMark(piece) ?? byZeros(piece);
      if (marked) return marked;
      first = false;
    }
    const zero = piece.indexOf(0);
    if (zero >= 0) throw binaryFault(line + linesBefore(piece, zero));
    try {
      decoder.decode(piece, { stream: true });
    } catch {
      return latin(line + linesBefore(piece, firstInvalid(piece)));
    }
    line += linesBefore(piece, piece.length);
  }
  try {
    decoder.decode();
  } catch {
    return latin(line);
  }
  return { encoding: "utf-8", why: "every byte of the file is valid UTF-8" };
}

function byMark([a, b, c]: Uint8Array): FoundEncoding | null {
  if (a === 0xff && b === 0xfe) return { encoding: "utf-16le", why: "the file begins with the mark of UTF-16" };
  if (a === 0xfe && b === 0xff) return { encoding: "utf-16be", why: "the file begins with the mark of UTF-16" };
  if (a === 0xef && b === 0xbb && c === 0xbf) return { encoding: "utf-8", why: "the file begins with the mark of UTF-8" };
  return null;
}

/** Text of mostly Western letters in UTF-16 has a zero in every second byte. */
function byZeros(piece: Uint8Array): FoundEncoding | null {
  const head = piece.subarray(0, Math.min(HEAD, piece.length & ~1));
  let [even, odd] = [0, 0];
  for (let i = 0; i < head.length; i++) {
    if (head[i] !== 0) continue;
    if (i % 2 === 0) even++;
    else odd++;
  }
  const most = head.length / 2;
  const why = "every second byte of its beginning is zero, as in UTF-16";
  if (most >= 2 && odd > 0.7 * most && even < 0.1 * most) return { encoding: "utf-16le", why };
  if (most >= 2 && even > 0.7 * most && odd < 0.1 * most) return { encoding: "utf-16be", why };
  return null;
}

const latin = (line: number): FoundEncoding => ({
  encoding: "windows-1252",
  why: `line ${line} is not valid UTF-8, so the letters are taken as Windows-1252 (Latin-1); look whether those with accents are right`,
});

/**
 * Bytes to text, piece by piece, without a byte order mark.
 * @throws ImportFaultError with the line, for bytes that are not in this encoding and for text with zero bytes in it
 */
export async function* decodeText(bytes: AsyncIterable<Uint8Array>, encoding: TextEncodingName = "utf-8"): AsyncGenerator<string> {
  const decoder = new TextDecoder(encoding, { fatal: true });
  let line = 1;
  const decoded = (piece?: Uint8Array): string => {
    try {
      return piece ? decoder.decode(piece, { stream: true }) : decoder.decode();
    } catch {
      const before = piece && encoding === "utf-8" ? linesBefore(piece, firstInvalid(piece)) : 0;
      throw new ImportFaultError(
        "wrong-encoding",
        `Line ${line + before} is not written in ${encoding.toUpperCase()}. Choose another encoding, or save the file again in UTF-8.`,
        line + before,
      );
    }
  };
  const checked = (text: string): string => {
    const zero = text.indexOf("\0");
    if (zero >= 0) throw binaryFault(line + text.slice(0, zero).split("\n").length - 1);
    for (let at = text.indexOf("\n"); at >= 0; at = text.indexOf("\n", at + 1)) line++;
    return text;
  };
  for await (const piece of bytes) {
    const text = checked(decoded(piece));
    if (text !== "") yield text;
  }
  const rest = checked(decoded());
  if (rest !== "") yield rest;
}

function binaryFault(line: number): ImportFaultError {
  return new ImportFaultError(
    "not-text",
    `The file holds bytes that are not text (zero bytes, first at line ${line}). Save the data again as CSV in UTF-8 and drop that here.`,
    line,
  );
}

function linesBefore(piece: Uint8Array, end: number): number {
  let lines = 0;
  for (let at = piece.indexOf(10); at >= 0 && at < end; at = piece.indexOf(10, at + 1)) lines++;
  return lines;
}

/** Index of the first byte that cannot stand in UTF-8, by bisecting: only called once a piece is known to hold one. */
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

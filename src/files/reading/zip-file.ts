import type { Readable } from "node:stream";
import { promisify } from "node:util";
import { crc32 } from "node:zlib";
import yauzl, { type Entry, type ZipFile as OpenZip } from "yauzl";
import { ImportFaultError } from "./import-fault";

/** A part that is read as a stream may unpack to this; one that is read whole, to much less. */
const MOST_STREAMED = 1_500_000_000;
const MOST_WHOLE = 200_000_000;
/** Spreadsheets pack to a tenth or a fiftieth; what packs to less than this was made to fill a disk. */
const MOST_RATIO = 200;
const MOST_PARTS = 10_000;

const DAMAGED = "The file is damaged or was cut short: it cannot be unpacked. Save or download it again and drop it here.";

/** A packed file: its parts by name. Sizes are checked before and while a part is unpacked. */
export class ZipFile {
  private constructor(
    private readonly zip: OpenZip,
    private readonly entries: ReadonlyMap<string, Entry>,
  ) {}

  /** @throws ImportFaultError for a file that is damaged, cut short or locked */
  static async open(path: string): Promise<ZipFile> {
    const zip = await promisify<string, yauzl.Options, OpenZip>(yauzl.open)(path, { lazyEntries: true, autoClose: false }).catch(() => {
      throw new ImportFaultError("damaged-file", DAMAGED);
    });
    const entries = new Map<string, Entry>();
    await new Promise<void>((resolve, reject) => {
      zip.on("entry", (entry: Entry) => {
        entries.set(entry.fileName, entry);
        if (entries.size > MOST_PARTS)
          reject(new ImportFaultError("too-many-parts", `The file has more than ${MOST_PARTS} parts, which no table has.`));
        else zip.readEntry();
      });
      zip.on("end", resolve);
      zip.on("error", () => reject(new ImportFaultError("damaged-file", DAMAGED)));
      zip.readEntry();
    }).catch((error: unknown) => {
      zip.close();
      throw error;
    });
    return new ZipFile(zip, entries);
  }

  get names(): string[] {
    return [...this.entries.keys()];
  }

  has(name: string): boolean {
    return this.entries.has(name);
  }

  /** A part's bytes as they are unpacked. @throws ImportFaultError when it is missing, locked, or unpacks to too much */
  async *stream(name: string, most = MOST_STREAMED): AsyncGenerator<Uint8Array> {
    const entry = this.entries.get(name);
    if (!entry) throw new ImportFaultError("missing-part", `The file lacks its part "${name}". ${DAMAGED}`);
    if (entry.generalPurposeBitFlag & 1)
      throw new ImportFaultError("locked-file", "The file is locked with a password. Save it without one and drop that here.");
    if (entry.uncompressedSize > most || entry.uncompressedSize > 1e7 + MOST_RATIO * entry.compressedSize) throw tooMuch(name);
    const open = promisify(
      this.zip.openReadStream.bind(this.zip) as (e: Entry, done: (error: Error | null, stream: Readable) => void) => void,
    );
    let [bytes, sum] = [0, 0];
    try {
      for await (const piece of (await open(entry)) as AsyncIterable<Buffer>) {
        bytes += piece.length;
        if (bytes > most) throw tooMuch(name);
        sum = crc32(piece, sum);
        yield piece;
      }
      if (sum !== entry.crc32)
        throw new ImportFaultError("damaged-file", `The part "${name}" is not as it was packed (its checksum differs). ${DAMAGED}`);
    } catch (error) {
      if (error instanceof ImportFaultError) throw error;
      throw new ImportFaultError("damaged-file", DAMAGED);
    }
  }

  /** A small part as text. */
  async text(name: string, most = MOST_WHOLE): Promise<string> {
    const pieces: Uint8Array[] = [];
    for await (const piece of this.stream(name, most)) pieces.push(piece);
    return new TextDecoder().decode(Buffer.concat(pieces));
  }

  close(): void {
    this.zip.close();
  }
}

function tooMuch(name: string): ImportFaultError {
  return new ImportFaultError(
    "unpacks-too-large",
    `The part "${name}" unpacks to far more than a table of answers needs, so it was not unpacked. Save the sheet as CSV and drop that here.`,
  );
}

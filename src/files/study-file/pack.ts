import { sha256 } from "@noble/hashes/sha2.js";
import { bytesToHex } from "@noble/hashes/utils.js";
import { strToU8, Zip, ZipDeflate } from "fflate";
import { cellText, markOf, type ResponseColumn } from "@/study/model/response-column";
import type { Variable } from "@/study/model/variable";
import { packageDescriptor } from "../codebook/write-package";
import { codebookCsv } from "../codebook/codebook-table";
import { guarded } from "../spreadsheet-guard";
import { type Manifest, newManifest, PARTS, type StudyFileKind } from "./manifest";

/** Everything that goes into a study file, as values. */
export interface StudyFileParts {
  kind: StudyFileKind;
  name: string;
  /** The file that the answers came from. */
  source: string;
  /** Respondents who withdrew and were erased. */
  withdrawn: number;
  /** ISO time. */
  made: string;
  /** The study document, its responses named by their file name and rows only. */
  study: object;
  /** Of the columns of the file, in their order. */
  codebook: readonly Variable[];
  /** The answers as they came; none in a copy without respondents. */
  columns: readonly ResponseColumn[];
  results: object;
  /** Null: it does not travel. */
  trail: object | null;
  text: string;
  page: string;
}

const ROWS_AT_ONCE = 2000;

/** The answers as CSV, some rows at a time: numbers at full precision in the file's own decimal mark, so that what the study names is written as it was. */
function* responsesCsv(columns: readonly ResponseColumn[]): Generator<string> {
  const rows = columns[0]?.values.length ?? 0;
  yield `${columns.map(({ name }) => cell(guarded(name))).join(",")}\n`;
  for (let first = 0; first < rows; first += ROWS_AT_ONCE) {
    let piece = "";
    for (let row = first; row < Math.min(rows, first + ROWS_AT_ONCE); row++) {
      columns.forEach((column, k) => (piece += (k === 0 ? "" : ",") + cell(written(column, row))));
      piece += "\n";
    }
    yield piece;
  }
}

function written(column: ResponseColumn, row: number): string {
  const text = cellText(column, row);
  if (text === null) return "";
  const marked = column.states[row] === 0 && markOf(column) === "," ? text.replace(".", ",") : text;
  return guarded(marked);
}

const cell = (text: string) => (/[",\r\n]/.test(text) || text !== text.trim() ? `"${text.replaceAll('"', '""')}"` : text);

/**
 * A study as one file: each part with its checksum, all of them in open formats.
 * @param progress told how many rows of how many are written
 */
export function packStudyFile(of: StudyFileParts, progress: (done: number, rows: number) => void = () => {}): Uint8Array[] {
  const packed: Uint8Array[] = [];
  const zip = new Zip((error, piece) => {
    if (error) throw error;
    packed.push(piece);
  });
  const parts: Manifest["parts"] = {};
  const put = (name: string, pieces: Iterable<string>) => {
    const part = new ZipDeflate(name, { level: 6 });
    const sum = sha256.create();
    let bytes = 0;
    zip.add(part);
    for (const piece of pieces) {
      const raw = strToU8(piece);
      sum.update(raw);
      bytes += raw.length;
      part.push(raw);
    }
    part.push(new Uint8Array(0), true);
    parts[name] = { bytes, sha256: bytesToHex(sum.digest()) };
  };
  const json = (value: unknown) => [`${JSON.stringify(value, null, 1)}\n`];
  const rows = of.columns[0]?.values.length ?? 0;
  const decimal = of.columns.some((column) => markOf(column) === ",") ? "," : ".";
  if (of.columns.length > 0) {
    const descriptor = packageDescriptor(of.name, of.codebook) as { resources: { schema: { fields: object[] } }[] };
    if (decimal === ",") for (const field of descriptor.resources[0]!.schema.fields) Object.assign(field, { decimalChar: "," });
    put(PARTS.descriptor, json(descriptor));
    put(PARTS.responses, told(responsesCsv(of.columns), rows, progress));
  }
  put(PARTS.codebook, [codebookCsv(of.codebook)]);
  put(PARTS.study, json(of.study));
  put(PARTS.results, json(of.results));
  if (of.trail) put(PARTS.trail, json(of.trail));
  put(PARTS.text, [of.text]);
  put(PARTS.page, [of.page]);
  const manifest = newManifest({
    kind: of.kind,
    name: of.name,
    made: of.made,
    source: of.source,
    withdrawn: of.withdrawn,
    rows,
    decimal,
    parts,
  });
  put(PARTS.manifest, json(manifest));
  zip.end();
  return packed;
}

function* told(pieces: Iterable<string>, rows: number, progress: (done: number, rows: number) => void): Generator<string> {
  let done = -ROWS_AT_ONCE;
  for (const piece of pieces) {
    yield piece;
    done += ROWS_AT_ONCE;
    progress(Math.max(0, Math.min(done, rows)), rows);
  }
}

import { z } from "zod";
import { VariableName } from "@/study/model/names";

/** How text is written as bytes. Windows-1252 is Latin-1 with signs in places that Latin-1 leaves empty. */
export const TextEncodingName = z.enum(["utf-8", "utf-16le", "utf-16be", "windows-1252"]);
export type TextEncodingName = z.infer<typeof TextEncodingName>;

export const Delimiter = z.enum([",", ";", "\t", "|"]);
export type Delimiter = z.infer<typeof Delimiter>;

export const DecimalMark = z.enum([".", ","]);

/** How a file is to be read. Found from the file, shown before anything is kept, and open to correction. */
export const TableOptions = z.strictObject({
  format: z.enum(["delimited", "xlsx", "ods", "json", "package"]),
  encoding: TextEncodingName.default("utf-8"),
  delimiter: Delimiter.default(","),
  decimal: DecimalMark.default("."),
  /** Name of a sheet, or of a resource of a data package; null where there is only one table. */
  sheet: z.string().nullable().default(null),
  /** Row that holds the names, from 1, as a spreadsheet counts; null: no row does, and the columns get names of their own. */
  headerRow: z.int().min(1).max(1000).nullable().default(1),
  /** Row that holds the wordings of the questions; the row of the names where these are wordings themselves; null: none does. */
  wordingRow: z.int().min(1).max(1000).nullable().default(null),
  /** Rows about the header that hold neither names nor wordings nor answers. */
  leftOutRows: z.array(z.int().min(1).max(1000)).max(20).default([]),
  /** Lines of totals or means at the end: left out, or answers like others. */
  totals: z.enum(["leave-out", "keep"]).default("keep"),
  /** So many columns are read; what is beyond them is empty. Null: as many as the header has. */
  width: z.int().min(1).max(20_000).nullable().default(null),
  /** Names to be used instead of those of the header. */
  names: z.array(VariableName).max(5000).nullable().default(null),
  /** A row with fewer cells than there are names: refused, or its missing cells taken as empty. */
  shortRows: z.enum(["refuse", "fill"]).default("refuse"),
});
export type TableOptions = z.infer<typeof TableOptions>;

/** A cell: text as written, a number, or nothing. */
export type Cell = string | number | null;

/** Some rows of a table in order; `first` is the number of the first, from 1, as a spreadsheet counts. */
export interface RowBatch {
  first: number;
  rows: Cell[][];
}

/** What a description beside a table says of how it is written; null: nothing. */
export interface TableEncodingHint {
  delimiter: Delimiter | null;
  decimal: "." | "," | null;
  encoding: string | null;
  header: boolean;
}

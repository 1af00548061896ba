import { z } from "zod";
import { VariableKind } from "@/study/model/variable";
import { DecimalMark, Delimiter, TableOptions, TextEncodingName } from "./table-options";

/** What a person has said of how a file is to be read; the rest is found. Without defaults: what is left out was not said. */
export const GivenOptions = z
  .strictObject({
    encoding: TextEncodingName,
    delimiter: Delimiter,
    decimal: DecimalMark,
    sheet: TableOptions.shape.sheet.unwrap(),
    headerRow: TableOptions.shape.headerRow.unwrap(),
    wordingRow: TableOptions.shape.wordingRow.unwrap(),
    leftOutRows: TableOptions.shape.leftOutRows.unwrap(),
    totals: TableOptions.shape.totals.unwrap(),
    names: TableOptions.shape.names.unwrap(),
    shortRows: TableOptions.shape.shortRows.unwrap(),
  })
  .partial();
export type GivenOptions = z.infer<typeof GivenOptions>;

/** One thing that was understood, and why. */
export const Understood = z.strictObject({
  what: z.enum(["format", "encoding", "delimiter", "decimal", "sheet", "header"]),
  found: z.string(),
  why: z.string(),
});
export type Understood = z.infer<typeof Understood>;

/** A file as it would be read, before anything is kept. */
export const Understanding = z.strictObject({
  options: TableOptions,
  /** Tables there are to choose from. */
  sheets: z.array(z.string()),
  understood: z.array(Understood),
  columns: z.array(z.strictObject({ name: z.string(), kind: VariableKind, label: z.string(), question: z.string() })),
  /** The first rows of answers as they would be kept; null where a cell is empty. */
  rows: z.array(z.array(z.string().nullable())),
  /** What a person should know before going on. */
  notices: z.array(z.string()),
  /** Why it cannot be read like this, or null. The rest then shows how far it came. */
  fault: z.strictObject({ code: z.string(), message: z.string() }).nullable(),
  /** Names for the columns with every fault mended, when it is the names that are at fault. */
  mended: z.array(z.string()).nullable(),
});
export type Understanding = z.infer<typeof Understanding>;

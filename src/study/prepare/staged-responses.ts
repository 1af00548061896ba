import { z } from "zod";
import { EditSet } from "../model/edit";

const Count = z.int().min(0);
const Names = z.array(z.string());
const Listed = z.strictObject({ count: Count, rows: z.array(z.int()) });
const Cell = z.string().nullable();

/** What further respondents would add. */
export const AppendReport = z.strictObject({
  rowsBefore: Count,
  rowsAdded: Count,
  columnsOnlyBefore: Names,
  columnsOnlyNow: Names,
  /** Names of the new file that differ from known ones in capitals or blanks only. */
  nearNames: z.array(z.strictObject({ known: z.string(), found: z.string() })),
  /** Variables that hold words in the new file and numbers before. */
  wordsNow: Names,
  /** By respondent code: how many of the new respondents are there already. */
  alreadyThere: z.array(z.strictObject({ variable: z.string(), count: Count })),
});
export type AppendReport = z.infer<typeof AppendReport>;

/** What a corrected file changes. Rows count from 1. */
export const ResponseDifferences = z.strictObject({
  matchedBy: z.string().nullable(),
  rowsBefore: Count,
  rowsAfter: Count,
  /** Respondents only the new file has, and only the old one; the first fifty of each. */
  added: Listed,
  removed: Listed,
  columnsAdded: Names,
  columnsMissing: Names,
  /** Cells of respondents both files have that read differently, by variable, most first. */
  changedByVariable: z.array(z.strictObject({ variable: z.string(), count: Count })),
  changedCells: Count,
  /** The first of them. */
  cells: z.array(z.strictObject({ variable: z.string(), row: z.int(), from: Cell, to: Cell })),
});
export type ResponseDifferences = z.infer<typeof ResponseDifferences>;

/** Responses that wait to be taken: what they change, and the edits that take them. */
export const StagedResponses = z.discriminatedUnion("kind", [
  z.strictObject({ kind: z.literal("append"), dataset: z.string(), edits: EditSet, report: AppendReport }),
  z.strictObject({
    kind: z.literal("replace"),
    dataset: z.string(),
    edits: EditSet,
    differences: ResponseDifferences,
    correctionsIdle: Count,
  }),
]);
export type StagedResponses = z.infer<typeof StagedResponses>;

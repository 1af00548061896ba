import { z } from "zod";

/** Words as they were set: plain, or pieces with looks (src/study/report/words.ts). */
const Run = z.strictObject({ text: z.string().max(20_000), as: z.enum(["italic", "superscript"]) });
const Reference = z.strictObject({ text: z.string().max(400), as: z.literal("reference"), to: z.string().max(400) });
export const PrintedWords = z.union([z.string().max(20_000), z.array(z.union([z.string().max(20_000), Run, Reference]))]);
export type PrintedWords = z.infer<typeof PrintedWords>;

/** A table as it was printed (src/study/report/print-table.ts). */
export const PrintedCells = z.strictObject({
  title: PrintedWords,
  over: z.array(z.strictObject({ words: PrintedWords, columns: z.int().min(1) })).optional(),
  head: z.array(PrintedWords),
  sections: z.array(z.strictObject({ heading: PrintedWords, rows: z.array(z.array(PrintedWords)) })),
  note: PrintedWords,
});
export type PrintedCells = z.infer<typeof PrintedCells>;

/** A figure as it was printed: what it is called, and the numbers that could be read off it. */
export const PrintedFigure = z.strictObject({
  title: PrintedWords,
  note: PrintedWords,
  marks: z.array(z.string().max(400)).max(400),
});
export type PrintedFigure = z.infer<typeof PrintedFigure>;

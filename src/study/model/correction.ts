import { z } from "zod";
import { VariableName } from "./names";

const Cell = z.string().trim().min(1).max(10_000).nullable();

/** A cell mended by hand. It holds where the cell still reads `from`, so that a corrected file is not overruled. Null: empty. */
export const Correction = z
  .strictObject({
    variable: VariableName,
    /** Row of the responses, from 1. */
    row: z.int().min(1),
    from: Cell,
    to: Cell,
    note: z.string().trim().max(2000).default(""),
  })
  .refine((c) => c.from !== c.to, "The cell reads so already.");
export type Correction = z.infer<typeof Correction>;

/** What a correction goes by: there is one for a cell at most. */
export function correctionId({ row, variable }: Pick<Correction, "row" | "variable">): string {
  return `${row}:${variable}`;
}

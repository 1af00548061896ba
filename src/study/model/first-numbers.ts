import { z } from "zod";
import { ObjectId } from "./names";

/** Longer ones are not kept, as the page would grow by them: those of more than some twenty thousand respondents, whose rows they name. */
const MOST_LETTERS = 150_000;

/** What every result of a ladder says of itself. */
const Told = z.looseObject({ status: z.enum(["fitted", "refused"]) });

/** True for the text of a result: another would keep the page that it is drawn on from being drawn. */
function isResult(text: string): boolean {
  try {
    return Told.safeParse(JSON.parse(text)).success;
  } catch {
    return false;
  }
}

/** An object's result as a page has worked it out, to be drawn at once when it is next opened. */
export const FirstNumbers = z.strictObject({
  kind: z.literal("ladder"),
  id: ObjectId,
  /** A fingerprint of everything the result depends on, and of the program that worked it out: under another, nobody reads it. */
  key: z.string().max(64),
  result: z.string().max(MOST_LETTERS).refine(isResult, "This is no result of a ladder."),
});
export type FirstNumbers = z.infer<typeof FirstNumbers>;

/** What a map is written as. */
const MAP = "entries of a map";

/** A result as text; null where it is too long, or holds what no text brings back as it was. */
export function resultText(result: unknown): string | null {
  let whole = true;
  const text = JSON.stringify(result, (_, value: unknown) => {
    if (value instanceof Map) return { [MAP]: [...value] };
    if (ArrayBuffer.isView(value) || value instanceof Set || (typeof value === "number" && !Number.isFinite(value))) whole = false;
    return value;
  });
  return whole && text.length <= MOST_LETTERS ? text : null;
}

/** The result that resultText has written. */
export function resultOf(text: string): unknown {
  return JSON.parse(text, (_, value: unknown) =>
    typeof value === "object" && value !== null && MAP in value ? new Map(value[MAP] as [unknown, unknown][]) : value,
  );
}

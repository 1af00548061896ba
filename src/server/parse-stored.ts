import type { z } from "zod";
import { StoredShapeError } from "./errors";

/** Parses JSON from the database. @throws StoredShapeError naming the places that do not fit */
export function parseStored<T>(schema: z.ZodType<T>, json: string, where: { table: string; id: string }): T {
  let value: unknown;
  try {
    value = JSON.parse(json);
  } catch {
    throw new StoredShapeError({ ...where, places: ["not JSON"] });
  }
  const parsed = schema.safeParse(value);
  if (!parsed.success) throw new StoredShapeError({ ...where, places: parsed.error.issues.map((issue) => issue.path.join(".")) });
  return parsed.data;
}

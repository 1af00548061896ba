import { CoreError } from "@/core/errors";

/** Why something could not be computed, as data that crosses worker borders; worded in src/study/report/refusals.ts. */
export interface Refusal {
  code: string;
  details: Record<string, unknown>;
}

/** Turns the typed errors of the core and of study/prepare into data. Anything else is a fault of ours and passes on. */
export function refusalOf(error: unknown): Refusal {
  if (error instanceof CoreError) return { code: error.code, details: error.details };
  if (error instanceof Error && "code" in error && "details" in error) {
    return { code: String(error.code), details: error.details as Record<string, unknown> };
  }
  throw error;
}

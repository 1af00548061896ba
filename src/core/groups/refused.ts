import { CoreError } from "../errors";

/** What cannot be computed, as data; a fault of ours passes on. */
export function coreErrorOf(error: unknown): CoreError {
  if (error instanceof CoreError) return error;
  throw error;
}

/** A file that cannot be taken in. The message says what is wrong, where, and what to do; it never repeats an answer. */
export class ImportFaultError extends Error {
  constructor(
    readonly code: string,
    message: string,
    /** Line of the file, from 1, where that makes sense. */
    readonly line: number | null = null,
  ) {
    super(message);
  }
}

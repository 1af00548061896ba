/** The house's store cannot be read or written: what happened, what was kept, what to do. */
export class StorageError extends Error {
  constructor(
    readonly code: string,
    message: string,
    readonly status: 500 | 503 | 507 = 503,
  ) {
    super(message);
  }
}

const RESTORE = "Yesterday's state can be brought back: stop Beta Step and run `npm run restore`.";
const FULL = "The disk is full. What was saved before is safe, this was not saved. Free some room and try again.";
const CLOSED =
  "The data folder cannot be written. What was saved before is safe, this was not saved. Check who owns the folder and whether its disk is mounted read-only.";

/** By the code of SQLite or of the system; of SQLite's longer codes the beginning counts. */
const FAULTS: readonly [codes: RegExp, fault: () => StorageError][] = [
  [/^(SQLITE_FULL|ENOSPC|EDQUOT)/, () => new StorageError("disk-full", FULL, 507)],
  [/^(SQLITE_READONLY|SQLITE_PERM|EACCES|EPERM|EROFS)/, () => new StorageError("folder-closed", CLOSED)],
  [
    /^(SQLITE_CANTOPEN|ENOENT|ENOTDIR)/,
    () =>
      new StorageError(
        "folder-missing",
        "The data folder cannot be opened. Nothing was changed. Check that it is where BETA_STEP_DATA says.",
      ),
  ],
  [
    /^(SQLITE_CORRUPT|SQLITE_NOTADB|SQLITE_FORMAT)/,
    () => new StorageError("database-damaged", `The database file is damaged. It was left as it is. ${RESTORE}`, 500),
  ],
  [
    /^(SQLITE_BUSY|SQLITE_LOCKED)/,
    () => new StorageError("database-held", "Another program holds the database. Nothing was changed. Close it, or wait, and try again."),
  ],
  [
    /^(SQLITE_IOERR|EIO)/,
    () =>
      new StorageError(
        "disk-fault",
        "The disk could not be read or written. What was saved before is safe, this was not saved. Check the disk and try again.",
      ),
  ],
];

/** A fault of the disk or the database as a sentence. @returns null when the error is of another kind */
export function storageFault(error: unknown): StorageError | null {
  // not by its class: the database driver makes its errors in whichever context has loaded it first
  for (let at = error; typeof at === "object" && at !== null; at = (at as Error).cause) {
    if (at instanceof StorageError) return at;
    const code = (at as NodeJS.ErrnoException).code;
    const known = typeof code === "string" && FAULTS.find(([codes]) => codes.test(code));
    if (known) return known[1]();
  }
  return null;
}

export const faults = {
  inUse: (folder: string) =>
    new StorageError(
      "folder-in-use",
      `Another Beta Step is running on the data folder ${folder}. Stop it first, or give this one a folder of its own (BETA_STEP_DATA).`,
    ),
  moved: () =>
    new StorageError(
      "folder-moved",
      "The data folder was moved, replaced or removed while Beta Step was running. This was not saved. Put it back, or stop and start Beta Step again.",
    ),
  empty: (file: string) =>
    new StorageError(
      "database-empty",
      `The database file ${file} is empty. It was left as it is. ${RESTORE} To begin anew, remove the file.`,
      500,
    ),
  newer: () =>
    new StorageError(
      "database-newer",
      "The database was written by a newer Beta Step. It was left as it is. Start that one, or give this one a folder of its own (BETA_STEP_DATA).",
      500,
    ),
};

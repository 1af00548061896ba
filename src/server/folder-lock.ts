import path from "node:path";
import Sqlite from "better-sqlite3";
import { faults } from "./storage-faults";

const LOCK_FILE = "in-use";
const held = globalThis as { betaStepLock?: Sqlite.Database };

/**
 * Takes the data folder for this server alone until its process ends, however it ends: the lock is the system's, held through SQLite, so that none is left behind.
 * @throws StorageError when another server holds it
 */
export function claimFolder(folder: string): void {
  if (held.betaStepLock) return;
  const lock = new Sqlite(path.join(folder, LOCK_FILE), { timeout: 0 });
  try {
    lock.pragma("journal_mode = MEMORY");
    lock.exec("BEGIN EXCLUSIVE");
  } catch (error) {
    lock.close();
    if ((error as { code?: string }).code?.startsWith("SQLITE_BUSY")) throw faults.inUse(folder);
    throw error;
  }
  held.betaStepLock = lock;
}

/** Gives the folder free, as the end of the process does. */
export function leaveFolder(): void {
  held.betaStepLock?.close();
  delete held.betaStepLock;
}

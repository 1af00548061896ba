import { backUp } from "./backups";
import { connection, database, giveBack } from "./database";
import { dataFolder } from "./data-folder";
import { endWhenTold } from "./ending";
import { claimFolder } from "./folder-lock";
import { houseKey, makeKey } from "./house-key";
import { log } from "./log";
import { warmReader } from "./reader/reader";
import { responsesRepository } from "./repositories/responses-repository";
import { storageFault } from "./storage-faults";
import { sweepDeleted } from "./study-end";
import { sweepUploads } from "./uploads";

const HOUR_MS = 3600_000;

/** Starts, or says in the terminal why it cannot, and ends. */
export async function startOrSay(): Promise<void> {
  endWhenTold();
  try {
    await startServer();
  } catch (error) {
    const fault = storageFault(error);
    if (!fault) throw error;
    process.stderr.write(`\nBeta Step cannot start (${fault.code}). ${fault.message}\n`);
    process.exit(1);
  }
}

/**
 * Takes the data folder, opens the database and removes what was looked at and never taken; the same, and a backup a day, while the server runs.
 * @throws StorageError when the folder is in use or the database cannot be opened
 */
async function startServer(): Promise<void> {
  process.umask(0o077); // what is written here is the owner's alone
  makeKey();
  const key = houseKey();
  claimFolder(dataFolder());
  const db = database();
  responsesRepository(db).sweepReading();
  if (key === null) log.warn("BETA_STEP_KEY=off: whoever reaches this address may come in");
  warmReader();
  await keepHouse(0);
  setInterval(() => void keepHouse(24 * HOUR_MS), HOUR_MS).unref();
}

/** @param waits what was read and not taken goes after so many milliseconds */
async function keepHouse(waits: number): Promise<void> {
  try {
    const db = database();
    responsesRepository(db).sweep(new Date(Date.now() - waits));
    await sweepUploads();
    await sweepDeleted(db);
    await giveBack(db);
    await backUp(connection(), dataFolder());
  } catch (error) {
    const fault = storageFault(error);
    log.error({ code: fault?.code ?? "unexpected", kind: error instanceof Error ? error.name : typeof error }, "keeping house failed");
  }
}

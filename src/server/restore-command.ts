import { backupDays, restoreBackup } from "./backups";
import { dataFolder } from "./data-folder";
import { claimFolder } from "./folder-lock";
import { storageFault } from "./storage-faults";

/** `npm run restore` (newest backup) or `npm run restore 2026-11-27`: puts a backup in the place of the database. */
try {
  const folder = dataFolder();
  claimFolder(folder);
  const day = process.argv[2] ?? backupDays(folder)[0] ?? "today";
  const aside = restoreBackup(folder, day);
  process.stdout.write(`The database is as it was backed up on ${day}.${aside ? ` What stood there before is kept in ${aside}.` : ""}\n`);
} catch (error) {
  process.stderr.write(`${storageFault(error)?.message ?? (error as Error).message}\n`);
  process.exit(1);
}

import { chmodSync, copyFileSync, existsSync, mkdirSync, readdirSync, renameSync, rmSync } from "node:fs";
import path from "node:path";
import Sqlite from "better-sqlite3";
import { DATABASE_FILE } from "./database";

/** So many days are kept. */
const KEEP = 7;
const NAME = /^beta-step-(\d{4}-\d\d-\d\d)\.sqlite$/;

const folderOf = (folder: string) => path.join(folder, "backups");
const fileOf = (folder: string, day: string) => path.join(folderOf(folder), `beta-step-${day}.sqlite`);

/** The days of which a backup is there, newest first, as 2026-11-27. */
export function backupDays(folder: string): string[] {
  if (!existsSync(folderOf(folder))) return [];
  return readdirSync(folderOf(folder))
    .flatMap((name) => NAME.exec(name)?.[1] ?? [])
    .sort()
    .reverse();
}

/**
 * Copies the database beside it, once a day, while it is in use; the last seven are kept. A copy stands under its name only when it is whole.
 * @returns whether one was made
 */
export async function backUp(client: Sqlite.Database, folder: string, now = new Date()): Promise<boolean> {
  const day = now.toISOString().slice(0, 10);
  if (existsSync(fileOf(folder, day))) return false;
  mkdirSync(folderOf(folder), { recursive: true, mode: 0o700 });
  const part = `${fileOf(folder, day)}.part`;
  try {
    await client.backup(part, { progress: () => 500 }); // pages in one go: others are served in between
    const copy = new Sqlite(part);
    copy.pragma("journal_mode = DELETE"); // one file, without a log beside it
    copy.close();
    chmodSync(part, 0o600);
    renameSync(part, fileOf(folder, day));
  } finally {
    for (const end of ["", "-wal", "-shm", "-journal"]) rmSync(part + end, { force: true });
  }
  for (const old of backupDays(folder).slice(KEEP)) rmSync(fileOf(folder, old));
  return true;
}

/**
 * Puts a day's backup in the place of the database, which is kept under another name. Only while no server runs on the folder.
 * @returns where the database that stood there has gone; null when there was none
 * @throws Error in a sentence when there is no such backup or it is not whole
 */
export function restoreBackup(folder: string, day: string, now = new Date()): string | null {
  const backup = fileOf(folder, day);
  if (!NAME.test(path.basename(backup)) || !existsSync(backup)) {
    const days = backupDays(folder);
    throw new Error(
      days.length > 0
        ? `There is no backup of ${day}. There are those of ${days.join(", ")}.`
        : `There are no backups in ${folderOf(folder)}.`,
    );
  }
  checkWhole(backup);
  const file = path.join(folder, DATABASE_FILE);
  const next = `${file}.next`;
  copyFileSync(backup, next);
  chmodSync(next, 0o600);
  const aside = existsSync(file) ? `${file}.before-${now.toISOString().replace(/[:.]/g, "-")}` : null;
  // its log belongs to it: beside another database it would be taken for that one's
  if (aside)
    for (const end of ["", "-wal", "-shm"]) if (existsSync(/* turbopackIgnore: true */ file + end)) renameSync(file + end, aside + end);
  renameSync(next, file);
  return aside;
}

function checkWhole(backup: string): void {
  const copy = new Sqlite(backup, { readonly: true });
  try {
    if (copy.pragma("quick_check", { simple: true }) !== "ok") throw new Error("not whole");
  } catch {
    throw new Error(`The backup ${backup} is damaged. Nothing was changed; choose another day.`);
  } finally {
    copy.close();
  }
}

/** The files of all backups, for what must go from them too. */
export function backupFiles(folder: string): string[] {
  return backupDays(folder).map((day) => fileOf(folder, day));
}

import { chmodSync, existsSync, mkdirSync, readFileSync, statSync } from "node:fs";
import path from "node:path";
import Sqlite from "better-sqlite3";
import { drizzle } from "drizzle-orm/better-sqlite3";
import { migrate } from "drizzle-orm/better-sqlite3/migrator";
import type { BaseSQLiteDatabase } from "drizzle-orm/sqlite-core";
import { dataFolder } from "./data-folder";
import { faults } from "./storage-faults";

/** The database, or a transaction on it: repositories take either. */
export type Database = BaseSQLiteDatabase<"sync", Sqlite.RunResult>;

export const DATABASE_FILE = "beta-step.sqlite";
const MIGRATIONS = path.join(process.cwd(), "drizzle");

/**
 * Opens a database file (or ":memory:") and brings its tables up to date. Its folder and files are the owner's alone.
 * @param file path of the SQLite file; its folder is made when missing
 * @throws StorageError when the file is empty or of a newer program; SQLite's own errors
 */
export function openDatabase(file: string): Database {
  const saved = file !== ":memory:";
  if (saved) {
    mkdirSync(path.dirname(file), { recursive: true, mode: 0o700 });
    if (existsSync(file) && statSync(file).size === 0) throw faults.empty(file);
  }
  const client = new Sqlite(file);
  try {
    refuseNewer(client);
    client.pragma("auto_vacuum = INCREMENTAL"); // of a new file: what is freed can be given back
    client.pragma("secure_delete = ON"); // what is deleted is overwritten, not only let go
    client.pragma("journal_mode = WAL");
    client.pragma("synchronous = FULL"); // an acknowledged edit survives a power cut
    client.pragma("foreign_keys = ON");
    client.pragma("busy_timeout = 5000");
    const db = drizzle(client, { casing: "snake_case" });
    migrate(db, { migrationsFolder: MIGRATIONS });
    if (saved) for (const end of ["", "-wal", "-shm"]) if (existsSync(file + end)) chmodSync(file + end, 0o600);
    return db;
  } catch (error) {
    client.close();
    throw error;
  }
}

/** Closes a database that was opened here, but for the application's own; alone, without a log beside it. */
export function closeDatabase(db: Database, { alone = false } = {}): void {
  if (alone) clientOf(db).pragma("journal_mode = DELETE");
  clientOf(db).close();
}

/** Writes the whole database anew: of what was deleted, nothing stays in it or in its log. */
export function writeAnew(db: Database): void {
  clientOf(db).pragma("auto_vacuum = INCREMENTAL");
  clientOf(db).exec("vacuum");
  clientOf(db).pragma("wal_checkpoint(TRUNCATE)");
}

/** A database that went through more changes of its tables than this program knows of. */
function refuseNewer(client: Sqlite.Database): void {
  const table = client.prepare("select 1 from sqlite_master where name = '__drizzle_migrations'").get();
  if (!table) return;
  const { newest } = client.prepare("select max(created_at) as newest from __drizzle_migrations").get() as { newest: number | null };
  const known = (JSON.parse(readFileSync(path.join(MIGRATIONS, "meta", "_journal.json"), "utf8")) as { entries: { when: number }[] })
    .entries;
  if (newest !== null && newest > Math.max(...known.map((entry) => entry.when))) throw faults.newer();
}

/** The open database, and which file it is: a folder that was moved or replaced has another under the same name. */
interface Held {
  db: Database;
  inode: number;
}
const held = globalThis as { betaStepDatabase?: Held };

/**
 * The application's one connection; it outlives reloads of modules in development.
 * @throws StorageError when the file that was opened is no longer the one that stands there
 */
export function database(): Database {
  const file = path.join(dataFolder(), DATABASE_FILE);
  // of the process, not of the module: a second bundle of it must not open a new one in the place of one that was moved away
  held.betaStepDatabase ??= { db: openDatabase(file), inode: statSync(file).ino };
  const { db, inode } = held.betaStepDatabase;
  if (statSync(file, { throwIfNoEntry: false })?.ino !== inode) throw faults.moved();
  return db;
}

/** The application's connection itself, for what is not asked in SQL: backups. */
export function connection(): Sqlite.Database {
  return clientOf(database());
}

/** So many freed pages are given back in one go, so that others are served in between. */
const PAGES = 2000;

/** Gives the room of what was deleted back to the disk, and empties the log of changes. */
export async function giveBack(db: Database): Promise<void> {
  const client = clientOf(db);
  const free = () => client.pragma("freelist_count", { simple: true }) as number;
  for (let before = Infinity, left = free(); left > 0 && left < before; [before, left] = [left, free()]) {
    client.exec(`pragma incremental_vacuum(${PAGES})`);
    await new Promise(setImmediate);
  }
  client.pragma("wal_checkpoint(TRUNCATE)");
}

/** The connection itself, for what is not asked in SQL. */
function clientOf(db: Database): Sqlite.Database {
  return (db as Database & { $client: Sqlite.Database }).$client;
}

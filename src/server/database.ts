import { mkdirSync } from "node:fs";
import path from "node:path";
import Sqlite from "better-sqlite3";
import { eq } from "drizzle-orm";
import { drizzle } from "drizzle-orm/better-sqlite3";
import { migrate } from "drizzle-orm/better-sqlite3/migrator";
import type { BaseSQLiteDatabase } from "drizzle-orm/sqlite-core";
import { datasets } from "./schema";

/** The database, or a transaction on it: repositories take either. */
export type Database = BaseSQLiteDatabase<"sync", Sqlite.RunResult>;

/** The folder of the database and of uploads on their way in: BETA_STEP_DATA, or `data` where the application runs. */
export function dataFolder(): string {
  return path.resolve(/* turbopackIgnore: true */ process.env.BETA_STEP_DATA ?? "data");
}

/**
 * Opens a database file (or ":memory:"), brings its tables up to date and sweeps imports that a crash left half done.
 * @param file path of the SQLite file; its folder is made when missing
 */
export function openDatabase(file: string): Database {
  if (file !== ":memory:") mkdirSync(path.dirname(file), { recursive: true });
  const client = new Sqlite(file);
  client.pragma("journal_mode = WAL");
  client.pragma("synchronous = FULL"); // an acknowledged edit survives a power cut
  client.pragma("foreign_keys = ON");
  client.pragma("busy_timeout = 5000");
  const db = drizzle(client, { casing: "snake_case" });
  migrate(db, { migrationsFolder: path.join(process.cwd(), "drizzle") });
  db.delete(datasets).where(eq(datasets.state, "reading")).run();
  return db;
}

const held = globalThis as { betaStepDatabase?: Database };

/** The application's one connection; it outlives reloads of modules in development. */
export function database(): Database {
  held.betaStepDatabase ??= openDatabase(path.join(dataFolder(), "beta-step.sqlite"));
  return held.betaStepDatabase;
}

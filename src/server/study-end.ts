import { existsSync, readdirSync } from "node:fs";
import { readdir, readFile } from "node:fs/promises";
import path from "node:path";
import { inArray } from "drizzle-orm";
import { z } from "zod";
import { backupFiles } from "./backups";
import { dataFolder } from "./data-folder";
import { closeDatabase, type Database, DATABASE_FILE, openDatabase, writeAnew } from "./database";
import { responsesRepository } from "./repositories/responses-repository";
import { studiesRepository } from "./repositories/studies-repository";
import { datasets } from "./schema";
import { discardUpload } from "./uploads";

/** So long a deleted study can be taken back. */
export const TAKE_BACK_DAYS = 14;

/** Deletes a study: it is in no list any more, and can be taken back for two weeks. @throws NotFoundError */
export function deleteStudy(db: Database, id: string, now = new Date()): void {
  studiesRepository(db).setDeleted(id, now.toISOString());
}

/** @throws NotFoundError when it was not deleted, or is gone */
export function takeStudyBack(db: Database, id: string): void {
  studiesRepository(db).setDeleted(id, null);
}

/**
 * Erases a study for good: no answer of it stays in the database, its free pages, its log, its backups or among the uploads. What another study stands on too stays.
 * Takes as long as it takes to write what is left anew.
 */
export async function eraseStudy(db: Database, id: string, folder = dataFolder()): Promise<void> {
  const sums = eraseFrom(db, id);
  eraseBesides(id, folder);
  await eraseUploads(sums, folder);
}

/** Erases a study from the databases beside the one in use. */
export function eraseBesides(id: string, folder: string): void {
  for (const file of besides(folder)) {
    const copy = openDatabase(file);
    eraseFrom(copy, id);
    closeDatabase(copy, { alone: true });
  }
}

/** Databases beside the one in use: backups, and what a restored one has replaced. */
function besides(folder: string): string[] {
  if (!existsSync(folder)) return [];
  const replaced = readdirSync(folder).filter((name) => name.startsWith(`${DATABASE_FILE}.before-`) && !/-(wal|shm)$/.test(name));
  return [...backupFiles(folder), ...replaced.map((name) => path.join(folder, name))];
}

/** @returns the checksums of the files its responses came from */
function eraseFrom(db: Database, id: string): string[] {
  const sums = db.transaction((tx) => {
    const responses = responsesRepository(tx);
    const own = responses.held(id);
    const sums = sumsOf(tx, own);
    studiesRepository(tx).remove(id);
    const others = new Set(responses.held());
    for (const dataset of own) if (!others.has(dataset)) responses.abandon(dataset);
    return sums;
  });
  writeAnew(db);
  return sums;
}

/** The checksums of the files that datasets came from. */
export function sumsOf(db: Database, ids: readonly string[]): string[] {
  const found = db
    .select({ sum: datasets.sha256 })
    .from(datasets)
    .where(inArray(datasets.id, [...ids]))
    .all();
  return found.map((row) => row.sum);
}

const Kept = z.object({ sha256: z.string() });

/** Erases files that wait to be taken in and are the same as ones with these checksums. */
export async function eraseUploads(sums: readonly string[], folder: string): Promise<void> {
  const uploads = path.join(folder, "uploads");
  for (const name of await readdir(uploads).catch(() => [])) {
    if (!name.endsWith(".json")) continue;
    const kept = Kept.safeParse(JSON.parse(await readFile(path.join(uploads, name), "utf8").catch(() => "null")));
    if (kept.success && sums.includes(kept.data.sha256)) await discardUpload(name.slice(0, -".json".length), folder);
  }
}

/** Erases what was deleted and not taken back in time. */
export async function sweepDeleted(db: Database, now = new Date(), folder = dataFolder()): Promise<void> {
  const until = new Date(now.getTime() - TAKE_BACK_DAYS * 24 * 3600_000).toISOString();
  for (const { id, deletedAt } of studiesRepository(db).deleted()) if (deletedAt < until) await eraseStudy(db, id, folder);
}

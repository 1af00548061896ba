import { createReadStream, statSync } from "node:fs";
import path from "node:path";
import type { Database } from "@/server/database";
import { importAsStudy } from "@/server/import-responses";
import { studiesRepository } from "@/server/repositories/studies-repository";
import { editStudy } from "@/server/study-door";
import { canalStreetEdits, DEMO_NAME } from "./canal-street-study";

/** Loads the demo study through the same import and the same door as a person's own, unless it is there already. @returns its id */
export async function demoStudy(db: Database): Promise<string> {
  const there = studiesRepository(db)
    .list()
    .find((study) => study.name === DEMO_NAME);
  if (there) return there.id;
  const file = path.join(process.cwd(), "demo", "canal-street.csv");
  const saved = await importAsStudy(db, createReadStream(file), { name: "canal-street.csv", expected: statSync(file).size });
  editStudy(db, saved.id, saved.revision, canalStreetEdits());
  return saved.id;
}

import { createReadStream, statSync } from "node:fs";
import path from "node:path";
import { database } from "@/server/database";
import { makeKey } from "@/server/house-key";
import { importAsStudy } from "@/server/import-responses";
import { studiesRepository } from "@/server/repositories/studies-repository";
import { storageFault } from "@/server/storage-faults";
import { editStudy } from "@/server/study-door";
import { canalStreetEdits } from "./canal-street-study";

/** Loads the demo study through the same import and the same door as a person's own, unless it is there already. */
async function loadDemo(): Promise<string> {
  makeKey(); // loading is a start of the house: whoever tells its address has the key at hand
  const db = database();
  const there = studiesRepository(db)
    .list()
    .find((study) => study.name === "Canal Street evening classes");
  if (there) return there.id;
  const file = path.join(process.cwd(), "demo", "canal-street.csv");
  const saved = await importAsStudy(db, createReadStream(file), { name: "canal-street.csv", expected: statSync(file).size });
  editStudy(db, saved.id, saved.revision, canalStreetEdits());
  return saved.id;
}

/** `npm run demo` reads the study's id from the last line printed. */
try {
  process.stdout.write(`${await loadDemo()}\n`);
} catch (error) {
  const fault = storageFault(error);
  if (!fault) throw error;
  process.stderr.write(`\nThe demo study cannot be loaded (${fault.code}). ${fault.message}\n`);
  process.exit(1);
}

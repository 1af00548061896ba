import { createReadStream, mkdtempSync, rmSync, statSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import { openDatabase } from "@/server/database";
import { importAsStudy } from "@/server/import-responses";
import { responsesRepository } from "@/server/repositories/responses-repository";
import { writeWideAnswers } from "./wide-answers";

/**
 * Import of a CSV file with so many rows and 60 columns (answers, decimals, words, gaps): time from the first byte sent to the
 * study being there, the largest memory of the process above where it stood before, and the first rows after it.
 *   npx tsx bench/import.ts [rows] [times] [words]      `words`: answers in words below two header rows
 */
const rows = Number(process.argv[2] ?? 100_000);
const times = Number(process.argv[3] ?? 3);
const inWords = process.argv[4] === "words";
const folder = mkdtempSync(path.join(tmpdir(), "beta-step-bench-"));
const file = path.join(folder, "wide.csv");
await writeWideAnswers(file, rows, 60, inWords);
const megabytes = (bytes: number) => Math.round(bytes / 1e6);
process.stdout.write(`${rows} rows x 60 columns, ${megabytes(statSync(file).size)} MB\n`);

for (let time = 0; time < times; time++) {
  const db = openDatabase(path.join(folder, `db-${time}.sqlite`));
  const idle = process.memoryUsage().rss;
  let peak = idle;
  const watch = setInterval(() => (peak = Math.max(peak, process.memoryUsage().rss)), 20);
  const from = performance.now();
  const { study } = await importAsStudy(db, createReadStream(file), { name: "wide.csv", expected: statSync(file).size }, folder);
  const imported = performance.now();
  const responses = responsesRepository(db);
  const names = study.codebook.slice(0, 12).map((v) => v.name);
  responses.cells(
    study.responses!.dataset,
    names,
    Array.from({ length: 100 }, (_, i) => i),
  );
  const shown = performance.now();
  const scattered = Array.from({ length: 100 }, (_, i) => Math.floor((i * 7919 * rows) / 100_000) % rows);
  responses.cells(study.responses!.dataset, names, scattered);
  const sorted = performance.now();
  clearInterval(watch);
  const ms = (a: number, b: number) => `${Math.round(b - a)} ms`;
  process.stdout.write(
    `import ${ms(from, imported)}, first 100 x 12 cells ${ms(imported, shown)}, 100 x 12 scattered cells ${ms(shown, sorted)}, peak ${megabytes(peak - idle)} MB above ${megabytes(idle)} MB\n`,
  );
}
rmSync(folder, { recursive: true });

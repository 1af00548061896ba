import { mkdtempSync, readdirSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import { referenceSet } from "@/core/test-support/reference-set";
import { studyOf } from "@/study/test-support/reference-study";
import { computeFile } from "./compute-file";

/** Every reference set as a file, written as people's programs write them: read as it should be, its numbers are those of the plain file, to the last digit. */
const REFERENCE = path.join(process.cwd(), "reference");
const SETS = readdirSync(REFERENCE)
  .filter((file) => file.endsWith(".json"))
  .map((file) => file.replace(".json", ""))
  .filter((name) => !referenceSet(name).json.data.csv_jackknife);

const folder = mkdtempSync(path.join(tmpdir(), "beta-step-files-"));
afterAll(() => rmSync(folder, { recursive: true }));

type Cells = string[][];
const quoted = (cell: string) => `"${cell.replaceAll('"', '""')}"`;
const lines = (cells: Cells, delimiter: string, end: string, write = (cell: string) => cell) =>
  cells.map((row) => row.map(write).join(delimiter)).join(end) + end;
const comma = (cell: string) => (/^[-+]?\d*\.\d+(e[-+]?\d+)?$/i.test(cell) ? cell.replace(".", ",") : cell);
const utf16 = (text: string) => Buffer.concat([Buffer.from([0xff, 0xfe]), Buffer.from(text, "utf16le")]);

const VARIANTS: [string, (cells: Cells) => Buffer, ((study: string) => string)?][] = [
  ["tabs, UTF-16, Windows line ends", (cells) => utf16(lines(cells, "\t", "\r\n"))],
  ["every cell and name quoted, byte order mark", (cells) => Buffer.from(`\uFEFF${lines(cells, ",", "\n", quoted)}`)],
  [
    "semicolons and decimal commas, what the study names written so too",
    (cells) => Buffer.from(lines(cells, ";", "\r\n", comma)),
    withCommas,
  ],
  ["semicolons and decimal commas, the study as it was", (cells) => Buffer.from(lines(cells, ";", "\n", comma))],
];

/** The study with its missing codes, levels and filters as a file with decimal commas shows them. */
function withCommas(study: string): string {
  const values = (list: string[]) => list.map(comma);
  const document = JSON.parse(study);
  for (const variable of document.codebook) {
    variable.missing = values(variable.missing);
    for (const level of variable.levels) level.value = comma(level.value);
  }
  for (const ladder of document.ladders) if (ladder.filter) ladder.filter.equals = values(ladder.filter.equals);
  return JSON.stringify(document);
}

test.each(SETS)("%s", async (name) => {
  const set = referenceSet(name);
  // factor solutions and searches stand on the same columns, and would take most of the time
  const { scales, ...whole } = studyOf(set);
  const scored = scales.filter(({ rule }) => rule !== "regression" && rule !== "bartlett");
  const study = JSON.stringify({ ...whole, responses: null, structures: [], searches: [], importances: [], scales: scored });
  const names = [...set.cells.keys()];
  const cells = [names, ...Array.from(set.cells.get(names[0]!)!, (_, row) => names.map((column) => set.cells.get(column)![row]!))];
  const file = (of: string, bytes: string | Buffer) => {
    writeFileSync(path.join(folder, of), bytes);
    return path.join(folder, of);
  };
  const numbers = async (dataFile: string, document = study) => {
    const results = await computeFile(file("study.json", document), dataFile);
    return JSON.stringify({ ...results, data: null });
  };
  const plain = await numbers(path.join(REFERENCE, `${name}.csv`));
  for (const [, bytes, written] of VARIANTS) expect(await numbers(file("data.csv", bytes(cells)), written?.(study))).toBe(plain);
});

import { rename, writeFile } from "node:fs/promises";
import { parseArgs } from "node:util";
import { z } from "zod";
import { JobError } from "../worker-pool";
import { CallError, computeFile } from "./compute-file";
import { verifyFile } from "./verify-file";

const USAGE =
  "Usage: npm run --silent compute -- --study study.json --data responses.csv --out results.json\n   or: npm run --silent compute -- verify STUDY.zip";

/**
 * Runs everything of a study document on a data file, with the core the page uses, and writes the results
 * at full precision (docs/results.md). Exit code 0: written, or verified; 1: a fault of ours, or numbers that differ; 2: the call or a file is wrong.
 */
async function main(): Promise<void> {
  const [first, file, ...more] = process.argv.slice(2);
  if (first === "verify") return verify(file, more);
  const { study, data, out } = callOptions();
  const document = await computeFile(study, data);
  await writeFile(`${out}.part`, `${JSON.stringify(document, null, 1)}\n`);
  await rename(`${out}.part`, out); // a reader sees the old file or the whole new one
}

/** So many differences are told one by one. */
const TOLD = 200;

/** Works every stored number of a study file out again, lists those that differ, and ends with 1 where any does. */
async function verify(file: string | undefined, more: readonly string[]): Promise<void> {
  if (file === undefined || more.length > 0) throw new CallError(USAGE);
  const { compared, differ } = await verifyFile(file);
  for (const { path, stored, found } of differ.slice(0, TOLD)) process.stdout.write(`${path}: stored ${JSON.stringify(stored)}, found ${JSON.stringify(found)}\n`); // prettier-ignore
  if (differ.length > TOLD) process.stdout.write(`and ${differ.length - TOLD} more\n`);
  process.stdout.write(differ.length === 0 ? `${compared} numbers worked out again: all agree.\n` : `${differ.length} of ${compared} numbers differ.\n`); // prettier-ignore
  if (differ.length > 0) process.exitCode = 1;
}

function callOptions() {
  try {
    const { values } = parseArgs({ options: { study: { type: "string" }, data: { type: "string" }, out: { type: "string" } } });
    return z.object({ study: z.string(), data: z.string(), out: z.string() }).parse(values);
  } catch {
    throw new CallError(USAGE);
  }
}

main().catch((error: unknown) => {
  process.stderr.write(
    error instanceof CallError
      ? `${error.message}\n`
      : `Beta Step could not finish: ${error instanceof JobError ? `a computation broke off (${error.code})` : error instanceof Error ? error.name : "unknown fault"}.\n`,
  );
  process.exitCode = error instanceof CallError ? 2 : 1;
});

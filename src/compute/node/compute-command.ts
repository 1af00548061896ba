import { rename, writeFile } from "node:fs/promises";
import { parseArgs } from "node:util";
import { z } from "zod";
import { JobError } from "../worker-pool";
import { CallError, computeFile } from "./compute-file";

const USAGE = "Usage: npm run --silent compute -- --study study.json --data responses.csv --out results.json";

/**
 * Runs everything of a study document on a data file, with the core the page uses, and writes the results
 * at full precision (docs/results.md). Exit code 0: written; 1: a fault of ours; 2: the call or a file is wrong.
 */
async function main(): Promise<void> {
  const { study, data, out } = callOptions();
  const document = await computeFile(study, data);
  await writeFile(`${out}.part`, `${JSON.stringify(document, null, 1)}\n`);
  await rename(`${out}.part`, out); // a reader sees the old file or the whole new one
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

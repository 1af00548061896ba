/**
 * The compute command and its threads as plain JavaScript, put together once for the sources as they are: started from TypeScript, its several hundred files would be
 * translated and opened one by one, in the command and in each of its threads (1.9 s instead of 3.4 for the demo study). Made beside the packages; another version of the sources has another folder.
 */
import { existsSync, readdirSync, renameSync, rmSync, statSync } from "node:fs";
import path from "node:path";
import { sourcesHash } from "./make-ready.mjs";

const FOLDER = "node_modules/.cache/beta-step";

/** The folder that holds `compute.mjs` and `start-thread.mjs`. */
export async function bundle() {
  const made = path.resolve(FOLDER, `compute-${sourcesHash().slice(0, 16)}`);
  if (existsSync(made)) return made;
  forgetOld();
  const { build } = await import("esbuild");
  // two that come at once each make their own, and the first to be ready is kept
  const own = `${made}-${process.pid}`;
  await build({
    entryPoints: { compute: "src/compute/node/compute-command.ts", "start-thread": "src/compute/node/calc-thread.ts" },
    bundle: true,
    splitting: true,
    platform: "node",
    format: "esm",
    target: "node20",
    outdir: own,
    outExtension: { ".js": ".mjs" },
    // packages of the older kind ask for Node's own modules when they run
    banner: { js: 'import { createRequire as requireOf } from "node:module"; const require = requireOf(import.meta.url);' },
    logLevel: "warning",
  });
  try {
    renameSync(own, made);
  } catch {
    rmSync(own, { recursive: true, force: true });
  }
  return made;
}

const DAY_MS = 86_400_000;

/** Takes away what was made of other sources, unless it may still be running. */
function forgetOld() {
  if (!existsSync(FOLDER)) return;
  for (const name of readdirSync(FOLDER)) {
    const folder = path.join(FOLDER, name);
    if (name.startsWith("compute-") && Date.now() - statSync(folder).mtimeMs > DAY_MS) rmSync(folder, { recursive: true, force: true });
  }
}

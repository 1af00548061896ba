/**
 * Starts the house's tools through Node and their own JavaScript, so that nothing depends on a shell or on names that only one system finds.
 * Plain JavaScript: it runs before anything is installed.
 */
import { spawn, spawnSync } from "node:child_process";
import { existsSync } from "node:fs";
import path from "node:path";

const ENTRIES = {
  asc: "assemblyscript/bin/asc.js",
  depcruise: "dependency-cruiser/bin/dependency-cruise.mjs",
  eslint: "eslint/bin/eslint.js",
  jest: "jest/bin/jest.js",
  knip: "knip/bin/knip.js",
  next: "next/dist/bin/next",
  playwright: "@playwright/test/cli.js",
  prettier: "prettier/bin/prettier.cjs",
  tsc: "typescript/bin/tsc",
  tsx: "tsx/dist/cli.mjs",
};

/** npm's own JavaScript: the one that runs this script, or the one that came with Node. */
function npmEntry() {
  const beside = path.dirname(process.execPath);
  const places = [
    process.env.npm_execpath,
    path.join(beside, "node_modules/npm/bin/npm-cli.js"),
    path.join(beside, "../lib/node_modules/npm/bin/npm-cli.js"),
  ];
  const found = places.find((place) => place && /\.c?js$/.test(place) && existsSync(place));
  if (!found) throw new Error("npm was not found: run this with npm, as the README says.");
  return found;
}

/** What Node is to be started with for a tool and its arguments. */
export function toolArguments(name, args) {
  return [name === "npm" ? npmEntry() : path.join("node_modules", ENTRIES[name]), ...args];
}

/** Runs a tool with its output on show; ends this process with its code when it fails. */
export function run(name, args, env = {}) {
  const { status, error } = spawnSync(process.execPath, toolArguments(name, args), { stdio: "inherit", env: { ...process.env, ...env } });
  if (error || status !== 0) failed(`${[name, ...args].join(" ")} did not succeed${error ? `: ${error.message}` : ""}.`, status);
}

function failed(words, status) {
  process.stderr.write(`\n${words}\n`);
  process.exit(status || 1);
}

/**
 * Runs tools side by side, each with its output kept together and shown when it has ended; the first that fails ends this process.
 * @param jobs each a list of tools that follow one another: [name, ...arguments]
 */
export function together(jobs, env = {}) {
  const one = ([name, ...args]) =>
    new Promise((resolve) => {
      const child = spawn(process.execPath, toolArguments(name, args), {
        stdio: ["ignore", "pipe", "pipe"],
        env: { ...process.env, ...env },
      });
      const said = [];
      for (const stream of [child.stdout, child.stderr]) stream.on("data", (piece) => said.push(piece));
      child.on("close", (status) => {
        process.stdout.write(Buffer.concat(said));
        if (status !== 0) failed(`${[name, ...args].join(" ")} did not succeed.`, status);
        resolve();
      });
    });
  return Promise.all(
    jobs.map(async (tools) => {
      for (const tool of tools) await one(tool);
    }),
  );
}

/**
 * What demo and test need before they start: packages installed as the lock says, and the application built. Both are
 * skipped when nothing they depend on has changed since. Plain JavaScript: it runs before anything is installed.
 */
import { spawnSync } from "node:child_process";
import { createHash } from "node:crypto";
import { copyFileSync, existsSync, mkdirSync, readdirSync, readFileSync, statSync, writeFileSync } from "node:fs";
import os from "node:os";
import path from "node:path";
import buildKernel from "./build-kernel.mjs";
import { run } from "./tools.mjs";

process.env.NEXT_TELEMETRY_DISABLED = "1";

function hashOf(files) {
  const hash = createHash("sha256");
  for (const file of files) hash.update(file).update("\0").update(readFileSync(file));
  return hash.digest("hex");
}

function filesBelow(folder) {
  return readdirSync(folder, { withFileTypes: true })
    .sort((a, b) => (a.name < b.name ? -1 : 1))
    .flatMap((entry) => {
      const file = path.join(folder, entry.name);
      if (entry.isDirectory()) return filesBelow(file);
      return /\.test\.tsx?$/.test(entry.name) ? [] : [file];
    });
}

const stamped = (file, hash) => existsSync(file) && readFileSync(file, "utf8") === hash;

/** The compiled database driver, kept between checkouts: building it takes two minutes. */
function driverCache() {
  const { version } = JSON.parse(readFileSync("node_modules/better-sqlite3/package.json", "utf8"));
  const key = `better-sqlite3-${version}-node-${process.versions.modules}-${process.platform}-${process.arch}.node`;
  const base = process.env.XDG_CACHE_HOME ?? path.join(os.homedir(), ".cache");
  return { cached: path.join(base, "beta-step", key), built: "node_modules/better-sqlite3/build/Release/better_sqlite3.node" };
}

function driverWorks() {
  return spawnSync(process.execPath, ["-e", "new (require('better-sqlite3'))(':memory:').close()"], { stdio: "ignore" }).status === 0;
}

/** Installs the packages when package-lock.json has changed since they were, and compiles the kernel. */
export function install() {
  installPackages();
  buildKernel();
}

function installPackages() {
  const stamp = "node_modules/.beta-step-lock";
  const hash = hashOf(["package-lock.json"]);
  if (stamped(stamp, hash)) return;
  process.stdout.write("Installing packages …\n");
  run("npm", ["ci", "--ignore-scripts", "--no-audit", "--no-fund", "--loglevel=error"]);
  const { cached, built } = driverCache();
  if (existsSync(cached)) {
    mkdirSync(path.dirname(built), { recursive: true });
    copyFileSync(cached, built);
  }
  if (!existsSync(built) || !driverWorks()) {
    process.stdout.write("Compiling the database driver …\n");
    run("npm", ["rebuild", "better-sqlite3", "--foreground-scripts", "--loglevel=error"], { JOBS: String(os.cpus().length) });
    try {
      mkdirSync(path.dirname(cached), { recursive: true });
      copyFileSync(built, cached);
    } catch {
      // a home that cannot be written to only costs the next checkout its two minutes
    }
  }
  writeFileSync(stamp, hash);
}

const BUILD_STAMP = ".next/beta-step-sources";

/** Of everything that what is built is made of. */
export function sourcesHash() {
  const sources = [...filesBelow("src"), "package-lock.json", "next.config.ts", "tsconfig.json"];
  return hashOf(sources.filter((file) => statSync(file).isFile()));
}

/** True when the sources have changed since the last build. */
export const needsBuild = () => !stamped(BUILD_STAMP, sourcesHash());

/** Says that what stands in .next was built from the sources as they are. */
export const markBuilt = () => writeFileSync(BUILD_STAMP, sourcesHash());

/** Builds the application when its sources have changed since the last build. */
export function build() {
  if (!needsBuild()) return;
  process.stdout.write("Building Beta Step …\n");
  run("next", ["build"]);
  markBuilt();
}

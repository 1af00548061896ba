/**
 * `npm test`: everything that must hold, from a fresh clone: types, lint, format, boundaries, unused code, unit and
 * reference tests, the build, and the journeys in Chromium. Stops at the first part that fails.
 */
import { install, build, run } from "./make-ready.mjs";
import { requireChromium } from "./find-chromium.mjs";

const started = Date.now();
const times = [];
function part(name, work) {
  const from = Date.now();
  process.stdout.write(`\n== ${name}\n`);
  work();
  times.push(`${name} ${Math.round((Date.now() - from) / 1000)} s`);
}

part("packages", install);
const chromium = requireChromium();
part("types", () => run("npx", ["next", "typegen"]) ?? run("npx", ["tsc", "--noEmit"]));
part("lint", () => run("npx", ["eslint", ".", "--max-warnings=0"]));
part("format", () => run("npx", ["prettier", "--check", "--log-level=warn", "."]));
part("boundaries", () => run("npx", ["depcruise", "src", "demo", "scripts", "e2e", "--config", ".dependency-cruiser.cjs"]));
part("unused code", () => run("npx", ["knip"]));
part("unit and reference tests", () => run("npx", ["jest"]));
part("build", build);
part("journeys in Chromium", () => run("npx", ["playwright", "test"], { CHROMIUM: chromium }));
process.stdout.write(`\nEverything holds (${times.join(", ")}; ${Math.round((Date.now() - started) / 1000)} s in all).\n`);

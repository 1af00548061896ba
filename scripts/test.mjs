/**
 * `npm test`: everything that must hold, from a fresh clone: types, lint, format, boundaries, unused code, unit and
 * reference tests, the build, and the journeys in Chromium. What does not wait for another runs beside it. Stops at the first part that fails.
 */
import { requireChromium } from "./find-chromium.mjs";
import { install, markBuilt, needsBuild } from "./make-ready.mjs";
import { run, together } from "./tools.mjs";

const started = Date.now();
const times = [];
async function part(name, work) {
  const from = Date.now();
  process.stdout.write(`\n== ${name}\n`);
  await work();
  times.push(`${name} ${Math.round((Date.now() - from) / 1000)} s`);
}

await part("packages", install);
const chromium = requireChromium();
const building = needsBuild();
await part("types, lint, format, boundaries, unused code", () =>
  together([
    [
      ["next", "typegen"],
      ["tsc", "--noEmit"],
      ["depcruise", "src", "demo", "scripts", "e2e", "--config", ".dependency-cruiser.cjs"],
      ["knip"],
    ],
    [
      ["eslint", ".", "--max-warnings=0"],
      ["prettier", "--check", "--log-level=warn", "."],
    ],
  ]),
);
await part("the build", async () => {
  if (!building) return;
  run("next", ["build"]);
  markBuilt();
});
await part("unit and reference tests", () => run("jest", []));
await part("journeys in Chromium", () => run("playwright", ["test"], { CHROMIUM: chromium }));
process.stdout.write(`\nEverything holds (${times.join(", ")}; ${Math.round((Date.now() - started) / 1000)} s in all).\n`);

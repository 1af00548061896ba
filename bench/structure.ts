import { writeFileSync } from "node:fs";
import path from "node:path";
import { EigenvalueDecomposition, Matrix } from "ml-matrix";
import { correlationMatrix } from "@/core/factors/correlation-matrix";
import { type ExtractionMethod, factorSolution, type RotationMethod } from "@/core/factors/factor-solution";
import { randomCorrelations, randomEigenvalues } from "@/core/factors/parallel-analysis";
import { symmetricEigen, symmetricEigenvalues } from "@/core/linear-algebra/symmetric-eigen";
import { randomStream } from "@/core/random/random-stream";
import { BetaStep } from "../e2e/beta-step";
import { studyBegun } from "./study-page";

/**
 * `npm run bench:structure [items] [respondents]`, after a build: factor exploration of made-up answers (60 × 5,000 unless said). The core's parts in
 * turns with the library's eigenvalues and with random data sets made number by number; then the real page in Chromium: from the click to the
 * numbers, and from a changed setting to the new ones. Prints JSON, milliseconds.
 */
const [k, n] = [Number(process.argv[2] ?? 60), Number(process.argv[3] ?? 5000)];
const FACTORS = 6;
const ROUNDS = 5;
const random = randomStream(5);
const behind = Array.from({ length: FACTORS }, () => Float64Array.from({ length: n }, () => random.normal()));
const answer = (i: number, row: number) => Math.max(1, Math.min(7, Math.round(4 + 0.9 * behind[i % FACTORS]![row]! + 0.3 * behind[0]![row]! + random.normal()))); // prettier-ignore
const items = Array.from({ length: k }, (_, i) => Float64Array.from({ length: n }, (__, row) => answer(i, row)));
const names = items.map((_, i) => `q${i + 1}`);

const times = new Map<string, number[]>();
function time(what: string, work: () => unknown): void {
  const from = performance.now();
  work();
  times.set(what, [...(times.get(what) ?? []), performance.now() - from]);
}
const correlations = correlationMatrix(items, names);
const some = Array.from({ length: 40 }, (_, s) => randomCorrelations(k, n, randomStream(1, s)));
const each = (work: (r: Float64Array) => unknown) => () => some.forEach(work);
const eigen = { assumeSymmetric: true };
for (let round = 0; round < ROUNDS; round++) {
  time("40 decompositions: eigenvalues alone", each((r) => symmetricEigenvalues(r, k))); // prettier-ignore
  time("40 decompositions: with vectors", each((r) => symmetricEigen(r, k))); // prettier-ignore
  time(
    "40 decompositions: the library, always with vectors",
    each((r) => new EigenvalueDecomposition(Matrix.from1DArray(k, k, r), eigen)),
  );
  time("1 random data set from its exact distribution", () => randomCorrelations(k, n, randomStream(2, round)));
  time("1 random data set, number by number", () => {
    const stream = randomStream(3, round);
    correlationMatrix(Array.from({ length: k }, () => Float64Array.from({ length: n }, () => stream.normal())), names); // prettier-ignore
  });
  time("correlations", () => correlationMatrix(items, names));
  time("parallel analysis, 500 sets", () => randomEigenvalues(k, n, { sets: 500, seed: 1, share: 0.95 }));
  for (const extraction of ["principal-axis", "maximum-likelihood", "minimum-residual"] satisfies ExtractionMethod[])
    for (const rotation of ["varimax", "promax", "oblimin"] satisfies RotationMethod[])
      time(`${extraction}, ${rotation}`, () => factorSolution(correlations, { extraction, rotation, factors: FACTORS }, names));
}
const middle = (values: number[]) => Math.round(10 * [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)]!) / 10;

process.env.E2E_PORT ??= "4893";
const app = new BetaStep();
const file = path.join(app.data, "answers.csv");
writeFileSync(file, [names.join(","), ...Array.from({ length: n }, (_, row) => items.map((item) => item[row]).join(","))].join("\n"));
await app.start();
const { browser, page } = await studyBegun(app, file);
await page.getByRole("link", { name: /^Scales/ }).click();
const numbers = page.locator('[data-testid="structure-numbers"][data-outdated="false"]');
const clicked = performance.now();
await page.getByRole("button", { name: "look at the structure of all items" }).click();
await numbers.waitFor({ timeout: 60_000 });
const first = Math.round(performance.now() - clicked);

// in the page itself: from Enter on a choice to the frame that shows the new numbers, after the old ones were marked
await page.evaluate(() => {
  const state = window as unknown as { took: number[] };
  state.took = [];
  let started = 0;
  let marked = false;
  window.addEventListener("keydown", (event) => event.key === "Enter" && ((started = performance.now()), (marked = false)), true);
  new MutationObserver(() => {
    const outdated = document.querySelector('[data-testid="structure-numbers"]')?.getAttribute("data-outdated");
    if (outdated === "true") marked = true;
    if (started === 0 || !marked || outdated !== "false") return;
    const from = started;
    started = 0;
    requestAnimationFrame(() => setTimeout(() => state.took.push(Math.round(performance.now() - from))));
  }).observe(document.body, { subtree: true, attributes: true, childList: true });
});
const changes: Record<string, number> = {};
for (const [word, typed] of [
  [/^Rotation/, "oblimin"],
  [/^Extraction/, "maximum"],
  [/^Extraction/, "minimum"],
  [/^Rotation/, "promax"],
  [/^Extraction/, "principal axis"],
  [/^Random data sets/, "5000"],
] as const) {
  const seen = await page.evaluate(() => (window as unknown as { took: number[] }).took.length);
  await page.getByRole("button", { name: word }).click();
  await page.keyboard.type(typed);
  await page.keyboard.press("Enter");
  await page.waitForFunction((before) => (window as unknown as { took: number[] }).took.length > before, seen, { timeout: 60_000 });
  changes[`${word.source.slice(1)} ${typed}`] = await page.evaluate(() => (window as unknown as { took: number[] }).took.at(-1)!);
}
const core = Object.fromEntries([...times].map(([what, values]) => [what, middle(values)]));
process.stdout.write(`${JSON.stringify({ items: k, respondents: n, core, page: { clickToNumbers: first, changes } }, null, 1)}\n`);
await browser.close();
await app.stop();

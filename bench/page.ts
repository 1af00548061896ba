import { chromium } from "@playwright/test";
import { BetaStep } from "../e2e/beta-step";

/**
 * `npm run bench:page`, after a build: what a person waits for on the Ladders page of the demo study, in Chromium.
 * Prints JSON: first-load JavaScript as transferred (gzip), time to first contentful paint and to numbers, and the
 * times from choosing a term (Enter) to the frame that shows the new numbers, each a state not seen before.
 */
process.env.E2E_PORT ??= "4890";
const app = new BetaStep();
app.loadDemo();
await app.start();
const browser = await chromium.launch({
  executablePath: process.env.CHROMIUM ?? "/usr/bin/chromium",
  args: ["--no-sandbox", "--disable-gpu"],
});
const fresh = await browser.newPage({ viewport: { width: 1280, height: 800 } }); // a context of its own: nothing is cached
await fresh.addInitScript("globalThis.__name = (f) => f"); // the bundler of this script names functions with it
await fetch(`${app.address}/studies/${app.demo}/ladders`); // the server has drawn the page before
await fresh.goto(`${app.address}/studies/${app.demo}/ladders`);
await fresh.getByTestId("over-steps").waitFor();
const load = await fresh.evaluate(() => {
  const resources = performance.getEntriesByType("resource") as PerformanceResourceTiming[];
  const scripts = resources.filter((r) => r.name.endsWith(".js"));
  return {
    scripts: scripts.length,
    scriptKilobytes: Math.round(scripts.reduce((sum, r) => sum + r.encodedBodySize, 0) / 1024),
    firstContentfulPaint: Math.round(performance.getEntriesByName("first-contentful-paint")[0]!.startTime),
    numbersShown: Math.round(performance.now()),
  };
});

await fresh.evaluate(() => {
  const state = window as unknown as { times: number[] };
  state.times = [];
  let started = 0;
  window.addEventListener("keydown", (event) => event.key === "Enter" && (started = performance.now()), true);
  const shown = () => document.querySelector('[data-testid="over-steps"] tbody')!.textContent;
  let before = shown();
  new MutationObserver(() => {
    const outdated = document.querySelector('[data-testid="coefficients"]')?.getAttribute("data-outdated");
    if (started === 0 || outdated !== "false" || shown() === before) return;
    before = shown();
    const from = started;
    started = 0;
    requestAnimationFrame(() => setTimeout(() => state.times.push(performance.now() - from)));
  }).observe(document.body, { subtree: true, childList: true, characterData: true, attributes: true });
});
await fresh.getByRole("button", { name: "Add a term to step 1" }).click();
for (const term of ["CA1", "CA2", "CA3", "CA4", "CA5", "PB1", "PB3", "PB4", "practice", "correcting", "TS1", "SC1"]) {
  const seen = await fresh.evaluate(() => (window as unknown as { times: number[] }).times.length);
  await fresh.keyboard.type(term);
  await fresh.keyboard.press("Enter");
  await fresh.waitForFunction((n) => (window as unknown as { times: number[] }).times.length > n, seen);
}
const times = (await fresh.evaluate(() => (window as unknown as { times: number[] }).times)).sort((a, b) => a - b);
const at = (share: number) => Math.round(times[Math.min(times.length - 1, Math.floor(share * times.length))]!);
process.stdout.write(`${JSON.stringify({ load, termToNumbers: { changes: times.length, median: at(0.5), slowest: at(1) } }, null, 1)}\n`);
await browser.close();
await app.stop();

import { chromium } from "@playwright/test";
import { BetaStep } from "../e2e/beta-step";

/**
 * `npm run bench:page`, after a build: what a person waits for on the Ladders page of the demo study, in Chromium.
 * Prints JSON: medians of five loads by a new browser (JavaScript as transferred, gzip; time to first contentful paint, until the page hears what is done on it, and until
 * its numbers are painted), and the times from choosing a term (Enter) to the frame that shows the new numbers, each a state not seen before.
 */
process.env.E2E_PORT ??= "4890";
const app = new BetaStep();
app.loadDemo();
await app.start();
const launch = () =>
  chromium.launch({ executablePath: process.env.CHROMIUM ?? "/usr/bin/chromium", args: ["--no-sandbox", "--disable-gpu"] });
const middle = (values: number[]) => values.sort((a, b) => a - b)[Math.floor(values.length / 2)]!;
await fetch(`${app.address}/studies/${app.demo}/ladders`); // the server has drawn the page before

/** A browser that knows nothing of the page yet, until its numbers are painted. */
async function coldLoad() {
  const browser = await launch();
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  await page.addInitScript("globalThis.__name = (f) => f"); // the bundler of this script names functions with it
  await page.addInitScript(() => {
    const state = window as unknown as { painted?: number; awake?: number };
    const watch = new MutationObserver(() => {
      if (!document.querySelector('[data-testid="over-steps"]')) return;
      watch.disconnect();
      requestAnimationFrame(() => setTimeout(() => (state.painted = performance.now())));
    });
    watch.observe(document, { subtree: true, childList: true });
    document.addEventListener("beta-step-awake", () => (state.awake = performance.now()));
  });
  await page.goto(`${app.address}/studies/${app.demo}/ladders`);
  await page.waitForFunction(() => {
    const { painted, awake } = window as unknown as { painted?: number; awake?: number };
    return painted !== undefined && awake !== undefined;
  });
  const load = await page.evaluate(() => {
    const state = window as unknown as { painted: number; awake: number };
    const scripts = (performance.getEntriesByType("resource") as PerformanceResourceTiming[]).filter((r) => r.name.endsWith(".js"));
    return {
      scripts: scripts.length,
      scriptKilobytes: Math.round(scripts.reduce((sum, r) => sum + r.encodedBodySize, 0) / 1024),
      firstContentfulPaint: Math.round(performance.getEntriesByName("first-contentful-paint")[0]!.startTime),
      awake: Math.round(state.awake),
      numbersPainted: Math.round(state.painted),
    };
  });
  return { browser, page, load };
}

const loads: Awaited<ReturnType<typeof coldLoad>>["load"][] = [];
for (let k = 0; k < 5; k++) {
  const { browser, load } = await coldLoad();
  loads.push(load);
  await browser.close();
}
const of = (what: keyof (typeof loads)[number]) => middle(loads.map((one) => one[what]));
const load = {
  scripts: of("scripts"),
  scriptKilobytes: of("scriptKilobytes"),
  firstContentfulPaint: of("firstContentfulPaint"),
  awake: of("awake"),
  numbersPainted: of("numbersPainted"),
};

const { browser, page: fresh } = await coldLoad();
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

import { chromium } from "@playwright/test";
import { BetaStep } from "../e2e/beta-step";

/**
 * `npm run bench:derived-page`, after a build: the Responses page of the demo study with 1,000 variables worked out from others, from the click on its tread to
 * the first drawn frame of the codebook with all of them, and the longest task on the way. Prints JSON.
 */
const MANY = Number(process.argv[2] ?? 1000);
const app = new BetaStep(4894);
app.loadDemo();
await app.start();
const { study, revision } = await (await fetch(`${app.address}/api/studies/${app.demo}`)).json();
const edits = Array.from({ length: MANY }, (_, i) => {
  const name = `made_${i}`;
  const from = i % 10 === 0 ? "age" : `made_${i - 1}`;
  return [
    { subject: "variable", id: name, to: { name }, at: study.codebook.length + i },
    { subject: "derived", id: name, to: { name, recipe: { kind: "formula", formula: `${from} + ${i}` } } },
  ];
}).flat();
const saved = await fetch(`${app.address}/api/studies/${app.demo}/edits`, {
  method: "POST",
  headers: { "content-type": "application/json" },
  body: JSON.stringify({ revision, edits }),
});
if (!saved.ok) throw new Error(await saved.text());
const browser = await chromium.launch({
  executablePath: process.env.CHROMIUM ?? "/usr/bin/chromium",
  args: ["--no-sandbox", "--disable-gpu"],
});
const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
await page.addInitScript("globalThis.__name = (f) => f");
await page.goto(`${app.address}/studies/${app.demo}/ladders`);
await page.getByTestId("over-steps").waitFor();
await page.waitForTimeout(6000); // awake, and at rest: the numbers may have come with the page
await page.evaluate(() => {
  const state = window as unknown as { longest: number; clicked: number };
  state.longest = 0;
  new PerformanceObserver((list) => {
    for (const task of list.getEntries()) state.longest = Math.max(state.longest, task.duration);
  }).observe({ type: "longtask" });
  document.addEventListener("click", () => (state.clicked = performance.now()), { capture: true, once: true });
});
await page.getByRole("link", { name: /^Responses/ }).click();
await page.getByText("L001").waitFor();
const shown = await page.evaluate(
  () =>
    new Promise<number>((done) =>
      requestAnimationFrame(() => setTimeout(() => done(performance.now() - (window as unknown as { clicked: number }).clicked))),
    ),
);
await page.waitForTimeout(4000);
const longest = await page.evaluate(() => (window as unknown as { longest: number }).longest);
process.stdout.write(`${JSON.stringify({ variables: MANY, clickToAnswers: Math.round(shown), longestTask: Math.round(longest) })}\n`);
await browser.close();
await app.stop();

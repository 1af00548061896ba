import { createWriteStream } from "node:fs";
import { once } from "node:events";
import path from "node:path";
import { chromium } from "@playwright/test";
import { randomStream } from "@/core/random/random-stream";
import { BetaStep } from "../e2e/beta-step";

/**
 * `npm run bench:live [respondents …]`, after a build: a ladder of 5 steps and 12 columns, a product of two scales among them, on
 * made-up answers. From the key press that changes it to the frame with the new numbers, in Chromium, each state not seen before.
 * One line of JSON a size, milliseconds. `chip` is the frame in which the change itself shows.
 */
const sizes = process.argv.slice(2).map(Number);
process.env.E2E_PORT ??= "4894";

const NUMBERS = Array.from({ length: 18 }, (_, i) => `x${i + 1}`);
const ITEMS = ["a", "b", "y"].flatMap((scale) => [1, 2, 3, 4, 5].map((i) => `${scale}${i}`));

async function writeAnswers(file: string, rows: number): Promise<void> {
  const random = randomStream(11);
  const out = createWriteStream(file);
  out.write(`${[...ITEMS, ...NUMBERS].join(",")}\n`);
  for (let row = 0; row < rows; row++) {
    const [a, b] = [random.normal(), random.normal()];
    const y = 0.4 * a + 0.2 * b + 0.15 * a * b + random.normal();
    const answer = (of: number) => Math.max(1, Math.min(7, Math.round(4 + of + random.normal())));
    const cells = [a, b, y].flatMap((of) => [1, 2, 3, 4, 5].map(() => (random.below(100) === 0 ? "" : answer(of))));
    const numbers = NUMBERS.map(() => (random.normal() * 10 + 0.5 * y).toFixed(1));
    if (!out.write(`${[...cells, ...numbers].join(",")}\n`)) await once(out, "drain");
  }
  out.end();
  await once(out, "finish");
}

const scale = (id: string) => ({ id: `scale_${id}`, name: `Scale ${id}`, items: [1, 2, 3, 4, 5].map((i) => ({ variable: `${id}${i}` })) });
const step = (id: string, ...terms: string[]) => ({ id, terms: terms.map((t) => ({ components: t.split("*") })) });
const ladder = {
  id: "live",
  name: "Live",
  outcome: "scale_y",
  steps: [
    step("one", "x1", "x2", "x3"),
    step("two", "x4", "x5", "x6"),
    step("three", "x7", "x8", "x9"),
    step("four", "scale_a", "scale_b"),
    step("five", "scale_a*scale_b"),
  ],
};

for (const n of sizes.length > 0 ? sizes : [430, 5_000, 100_000]) {
  const app = new BetaStep();
  const file = path.join(app.data, "answers.csv");
  await writeAnswers(file, n);
  await app.start();
  const browser = await chromium.launch({
    executablePath: process.env.CHROMIUM ?? "/usr/bin/chromium",
    args: ["--no-sandbox", "--disable-gpu"],
  });
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  await page.addInitScript("globalThis.__name = (f) => f"); // the bundler of this script names functions with it
  await page.goto(app.address);
  await page.getByLabel("File of answers").setInputFiles(file);
  await page.getByRole("button", { name: "Begin the study" }).click();
  await page.waitForURL(/responses/, { timeout: 120_000 });
  const id = page.url().split("/").at(-2)!;
  const { revision } = await (await fetch(`${app.address}/api/studies/${id}`)).json();
  const edits = [
    ...["a", "b", "y"].map((s) => ({ subject: "scale", id: `scale_${s}`, to: scale(s) })),
    { subject: "ladder", id: "live", to: ladder },
  ];
  const saved = await page.request.post(`${app.address}/api/studies/${id}/edits`, { data: { edits, revision, how: "edit", of: null } });
  if (!saved.ok()) throw new Error(await saved.text());
  await page.goto(`${app.address}/studies/${id}/ladders`);
  await page.locator('[data-testid="coefficients"][data-outdated="false"]').waitFor({ timeout: 60_000 });
  await page.evaluate(() => {
    const state = window as unknown as { times: { chip: number; numbers: number }[] };
    state.times = [];
    let started = 0;
    let chip = 0;
    window.addEventListener("keydown", (event) => event.key === "Enter" && ((started = performance.now()), (chip = 0)), true);
    const shown = () => document.querySelector('[data-testid="over-steps"] tbody')!.textContent;
    let before = shown();
    new MutationObserver(() => {
      if (started > 0 && chip === 0) chip = performance.now();
      const outdated = document.querySelector('[data-testid="coefficients"]')?.getAttribute("data-outdated");
      if (started === 0 || outdated !== "false" || shown() === before) return;
      before = shown();
      const [from, first] = [started, chip];
      started = 0;
      requestAnimationFrame(() => setTimeout(() => state.times.push({ chip: first - from, numbers: performance.now() - from })));
    }).observe(document.body, { subtree: true, childList: true, characterData: true, attributes: true });
  });
  await page.getByRole("button", { name: "Add a term to step 1" }).click();
  for (const term of NUMBERS.slice(9)) {
    const seen = await page.evaluate(() => (window as unknown as { times: unknown[] }).times.length);
    await page.keyboard.type(term);
    await page.keyboard.press("Enter");
    await page.waitForFunction((k) => (window as unknown as { times: unknown[] }).times.length > k, seen, { timeout: 60_000 });
    await page.keyboard.press("Escape");
    await page.getByRole("button", { name: `Remove ${term} from step 1` }).click(); // back to 12 columns: seen before
    await page.locator('[data-testid="coefficients"][data-outdated="false"]').waitFor();
    await page.waitForTimeout(150);
    await page.getByRole("button", { name: "Add a term to step 1" }).click();
  }
  const times = await page.evaluate(() => (window as unknown as { times: { chip: number; numbers: number }[] }).times);
  const told = (of: "chip" | "numbers") => {
    const sorted = times.map((t) => Math.round(t[of])).sort((a, b) => a - b);
    return { median: sorted[Math.floor(sorted.length / 2)], slowest: sorted.at(-1), first: Math.round(times[0]![of]) };
  };
  process.stdout.write(
    `${JSON.stringify({ respondents: n, changes: times.length, chip: told("chip"), numbers: told("numbers"), each: times.map((t) => Math.round(t.numbers)) })}\n`,
  );
  await browser.close();
  await app.stop();
}

import { createWriteStream } from "node:fs";
import { once } from "node:events";
import path from "node:path";
import { randomStream } from "@/core/random/random-stream";
import { BetaStep } from "../e2e/beta-step";
import { studyBegun } from "./study-page";

/**
 * `npm run bench:live [respondents …]`, after a build: a ladder of 5 steps and 12 columns, a product of two scales among them, on
 * made-up answers. From the key press that changes it to the frame with the new numbers, in Chromium, each state not seen before.
 * One line of JSON a size, milliseconds. `chip` is the frame in which the change itself shows.
 */
const sizes = process.argv.slice(2).map(Number);
process.env.E2E_PORT ??= "4894";

const NUMBERS = Array.from({ length: 20 }, (_, i) => `x${i + 1}`);
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
  const { browser, page } = await studyBegun(app, file);
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
    const start = () => {
      started = performance.now();
      chip = 0;
    };
    window.addEventListener("keydown", (event) => event.key === "Enter" && start(), true);
    window.addEventListener("click", start, true);
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
  type Times = { chip: number; numbers: number }[];
  const taken = () => page.evaluate(() => (window as unknown as { times: Times }).times);
  const numbers = page.locator('[data-testid="coefficients"][data-outdated="false"]');
  /** Does something that leads to a state not seen before, waits for its numbers, and goes back to the 12 columns. */
  const measure = async (change: (term: string) => Promise<void>, back: (term: string) => Promise<void>, terms: readonly string[]) => {
    const of: Times = [];
    for (const term of terms) {
      const seen = (await taken()).length;
      await change(term);
      await page.waitForFunction((k) => (window as unknown as { times: unknown[] }).times.length > k, seen, { timeout: 60_000 });
      of.push((await taken()).at(-1)!);
      await back(term);
      await numbers.waitFor();
      await page.waitForTimeout(700); // a person looks at the numbers; work behind them comes to rest
    }
    return of;
  };
  const remove = (term: string) => page.getByRole("button", { name: `Remove ${term} from step 1` }).click();
  const chosen = (word: string) =>
    page.getByRole("group", { name: "What to do with the chosen terms" }).getByRole("button", { name: word }).click();
  await page.getByRole("button", { name: "Step 1", exact: true }).click();
  const clicked = await measure(
    (term) => page.getByRole("button", { name: `${term}: add to step 1` }).click(),
    remove,
    NUMBERS.slice(9, 14),
  );
  const typed = await measure(
    async (term) => {
      await page.getByRole("button", { name: "Add a term to step 1" }).click();
      await page.keyboard.type(term);
      await page.keyboard.press("Enter");
    },
    async (term) => {
      await page.keyboard.press("Escape");
      await remove(term);
    },
    NUMBERS.slice(14),
  );
  const switched = await measure(
    async (term) => {
      await page.getByRole("button", { name: term, exact: true }).click();
      await chosen("Switch off");
    },
    async (term) => {
      await page.getByRole("button", { name: term }).and(page.locator("[aria-pressed]")).click();
      await chosen("Switch on");
    },
    NUMBERS.slice(0, 9),
  );
  const told = (times: Times) => {
    const of = (what: "chip" | "numbers") => times.map((t) => Math.round(t[what])).sort((x, y) => x - y);
    const middle = (sorted: number[]) => sorted[Math.floor(sorted.length / 2)]!;
    return { changes: times.length, shows: middle(of("chip")), numbers: middle(of("numbers")), slowest: of("numbers").at(-1)! };
  };
  process.stdout.write(
    `${JSON.stringify({ respondents: n, addedByClick: told(clicked), addedByTyping: told(typed), switchedOff: told(switched) })}\n`,
  );
  await browser.close();
  await app.stop();
}

import { readFileSync, statSync } from "node:fs";
import path from "node:path";
import { BetaStep } from "../e2e/beta-step";
import { fileChosen } from "./study-page";
import { writeWideAnswers } from "./wide-answers";

/**
 * `npm run bench:sheet [rows] [columns]`, after a build: a large file through the real page in Chromium. From the click that takes it
 * to the study, from there to the first rows, the server's memory above where it stood; then the sheet scrolled by wheel and by
 * leaps: how long a row in view stands without its cells, in milliseconds.
 */
process.env.E2E_PORT ??= "4891";
const rows = Number(process.argv[2] ?? 100_000);
const columns = Number(process.argv[3] ?? 200);
const app = new BetaStep();
const file = path.join(app.data, "wide.csv");
await writeWideAnswers(file, rows, columns);
await app.start();
const memory = () => Number(/VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${app.processId}/status`, "utf8"))![1]) / 1024;
const { browser, page } = await fileChosen(app, file);
const take = page.getByRole("button", { name: "Begin the study" });
await take.waitFor({ timeout: 120_000 });
const idle = memory();
let peak = idle;
const watch = setInterval(() => (peak = Math.max(peak, memory())), 50);
const from = performance.now();
await take.click();
await page.waitForURL(/responses/, { timeout: 300_000 });
const committed = performance.now();
await page.getByText("R1", { exact: true }).first().waitFor();
const shown = performance.now();
clearInterval(watch);

await page.evaluate(() => {
  const state = window as unknown as { blanks: number[] };
  state.blanks = [];
  let since: number | null = null;
  const grid = document.querySelector('[role="grid"]')!;
  const look = () => {
    const box = grid.getBoundingClientRect();
    const waiting = [...grid.querySelectorAll('[aria-label="on its way"]')].some((cell) => {
      const r = cell.getBoundingClientRect();
      return r.bottom > box.top + 28 && r.top < box.bottom && r.right > box.left + 56 && r.left < box.right;
    });
    const drawn = grid.querySelectorAll('[role="row"]').length > 1;
    if ((waiting || !drawn) && since === null) since = performance.now();
    if (!waiting && drawn && since !== null) {
      state.blanks.push(performance.now() - since);
      since = null;
    }
    requestAnimationFrame(look);
  };
  look();
});
const blanks = async () => {
  await page.waitForTimeout(1500);
  return page.evaluate(() => {
    const state = window as unknown as { blanks: number[] };
    const list = state.blanks.map(Math.round);
    state.blanks = [];
    return { times: list.length, longest: Math.max(0, ...list) };
  });
};
await page.getByRole("grid", { name: "Answers" }).hover();
for (let k = 0; k < 60; k++) await page.mouse.wheel(0, 120);
const wheel = await blanks();
for (let k = 0; k < 40; k++) {
  await page.mouse.wheel(0, 700);
  await page.waitForTimeout(30);
}
const fast = await blanks();
for (const share of [0.3, 0.9, 0.5, 0.1, 0.75]) {
  await page.evaluate((s) => {
    const grid = document.querySelector('[role="grid"]')!;
    grid.scrollTop = grid.scrollHeight * s;
    grid.scrollLeft = grid.scrollWidth * s;
  }, share);
  await page.waitForTimeout(700);
}
const leaps = await blanks();
process.stdout.write(
  `${JSON.stringify({
    file: `${rows} x ${columns}, ${Math.round(statSync(file).size / 1e6)} MB`,
    importMs: Math.round(committed - from),
    firstRowsMs: Math.round(shown - committed),
    serverMegabytesAboveIdle: Math.round(peak - idle),
    blankMs: { wheel, fast, leaps },
  })}\n`,
);
await browser.close();
await app.stop();

import { readdirSync, readFileSync, statSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import { chromium, type Page } from "@playwright/test";
import { BetaStep } from "../e2e/beta-step";

/**
 * `npm run bench:write-up`, after a build: a text of 100 blocks with 30 tables, from the address to a page that answers, and saved as DOCX; and the study file of
 * 100,000 respondents and 60 variables written by the page and opened again, with the memory that the page and the server took for it. Prints JSON.
 */
const ROWS = Number(process.argv[2] ?? 100_000);
const COLUMNS = 60;
const app = new BetaStep(4896);
app.loadDemo();
await app.start();
const browser = await chromium.launch({
  executablePath: process.env.CHROMIUM ?? "/usr/bin/chromium",
  args: ["--no-sandbox", "--disable-gpu"],
});
const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
await page.addInitScript("globalThis.__name = (f) => f");

/** Memory that processes hold, in MB: those of the browser, or the server with its readers. */
function heldBy(belongs: (command: string, pid: number) => boolean): number {
  let sum = 0;
  for (const pid of readdirSync("/proc").filter((name) => /^\d+$/.test(name))) {
    try {
      const command = readFileSync(`/proc/${pid}/cmdline`, "utf8");
      const pages = Number(readFileSync(`/proc/${pid}/statm`, "utf8").split(" ")[1]);
      if (belongs(command, Number(pid))) sum += (pages * 4096) / 1e6;
    } catch {
      // ended meanwhile
    }
  }
  return sum;
}
const inBrowser = (command: string) => command.includes("--type=renderer");
const inServer = (command: string, pid: number) => pid === app.processId || command.includes("reader-process");

/** What some work takes: time, and the most memory above what was held before. */
async function measured(work: () => Promise<void>) {
  const idle = { page: heldBy(inBrowser), server: heldBy(inServer) };
  const most = { ...idle };
  const watch = setInterval(() => {
    most.page = Math.max(most.page, heldBy(inBrowser));
    most.server = Math.max(most.server, heldBy(inServer));
  }, 100);
  const began = performance.now();
  await work();
  clearInterval(watch);
  const seconds = (performance.now() - began) / 1000;
  return {
    seconds: Number(seconds.toFixed(2)),
    pageMB: Math.round(most.page - idle.page),
    serverMB: Math.round(most.server - idle.server),
  };
}

const saved = (name: string) => async (at: Page) => {
  const [file] = await Promise.all([
    at.waitForEvent("download", { timeout: 120_000 }),
    at.getByRole("button", { name, exact: true }).click(),
  ]);
  return (await file.path())!;
};

// 100 blocks, 30 of them tables
await page.goto(`${app.address}/studies/${app.demo}/write-up`);
await page.getByRole("button", { name: "Move Table 1" }).waitFor({ state: "attached" });
await page.getByText("All changes saved").waitFor();
const { study, revision } = await (await app.ask(`/api/studies/${app.demo}`)).json();
const tables = study.blocks.filter((b: { what: { kind: string } }) => b.what.kind === "table");
const texts = study.blocks.filter((b: { what: { kind: string } }) => b.what.kind === "paragraph");
const more = Array.from({ length: 100 - study.blocks.length }, (_, i) => {
  const from = i < 30 - tables.length ? tables[i % tables.length] : texts[i % texts.length];
  return { subject: "block", id: `more_${i}`, to: { ...from, id: `more_${i}` } };
});
await app.ask(`/api/studies/${app.demo}/edits`, { method: "POST", headers: { "content-type": "application/json" }, body: JSON.stringify({ revision, edits: more }) }); // prettier-ignore
const opened = [];
for (let k = 0; k < 5; k++) {
  const began = performance.now();
  await page.goto(`${app.address}/studies/${app.demo}/write-up`, { waitUntil: "commit" });
  // usable: the last table is there, and a click is answered
  await page.getByTestId("table-30").waitFor();
  await page.getByTestId("table-1").click();
  await page.getByRole("button", { name: "Copy Table 1", exact: true }).waitFor();
  opened.push(Math.round(performance.now() - began));
}
await page.getByTestId("write-up-state").filter({ hasText: "as it stands now" }).waitFor();
const docx = await measured(async () => void (await saved("Save as DOCX")(page)));

// 100,000 × 60
const file = path.join(tmpdir(), `beta-step-bench-${process.pid}.csv`);
const names = Array.from({ length: COLUMNS }, (_, k) => `v${k}`);
const lines = [names.join(",")];
let state = 7;
const next = () => (state = (state * 48271) % 2147483647) / 2147483647;
for (let row = 0; row < ROWS; row++) lines.push(names.map((_, k) => (k < 40 ? 1 + Math.floor(5 * next()) : (10 * next()).toFixed(4))).join(",")); // prettier-ignore
writeFileSync(file, lines.join("\n"));
await page.goto(app.address);
await page.getByLabel("File of answers").setInputFiles(file);
await page.getByRole("button", { name: "Begin the study" }).click({ timeout: 60_000 });
await page.waitForURL(/\/responses$/, { timeout: 120_000 });
const id = page.url().split("/").at(-2)!;
const large = await (await app.ask(`/api/studies/${id}`)).json();
const ladder = { id: "l", name: "Large", outcome: "v59", steps: [{ id: "a", terms: [{ components: ["v50"] }, { components: ["v51"] }] }, { id: "b", terms: [{ components: ["v52"] }, { components: ["v50", "v52"] }] }] }; // prettier-ignore
await app.ask(`/api/studies/${id}/edits`, { method: "POST", headers: { "content-type": "application/json" }, body: JSON.stringify({ revision: large.revision, edits: [{ subject: "ladder", id: "l", to: ladder }] }) }); // prettier-ignore
await page.goto(`${app.address}/studies/${id}/write-up`);
await page.getByTestId("write-up-state").filter({ hasText: "as it stands now" }).waitFor({ timeout: 60_000 });
await page.waitForTimeout(5000);
let zip = "";
const written = await measured(async () => void (zip = await saved("Save the study file")(page)));
const size = statSync(zip).size / 1e6;
await page.goto(app.address);
await page.getByLabel("File of answers").setInputFiles(zip);
const read = await measured(async () => {
  await page.getByRole("button", { name: "Open the study" }).click({ timeout: 60_000 });
  await page.waitForURL(/\/write-up$/, { timeout: 120_000 });
});
process.stdout.write(`${JSON.stringify({ blocks: 100, tables: 30, openedMs: opened, docx, rows: ROWS, columns: COLUMNS, zipMB: Number(size.toFixed(1)), written, read }, null, 1)}\n`); // prettier-ignore
await browser.close();
await app.stop();

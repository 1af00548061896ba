import { readFileSync } from "node:fs";
import { expect, type Page, printed, test, withDemo } from "./house";

const app = withDemo();
const place = (where: string) => `${app.address}/studies/${app.demo}/${where}`;
const ready = (page: Page) => expect(page.getByTestId("write-up-state")).toHaveText("Every number is as it stands now.");
const saved = (page: Page, name: string) =>
  Promise.all([page.waitForEvent("download"), page.getByRole("button", { name }).click()]).then(async ([file]) =>
    readFileSync((await file.path())!, "utf8"),
  );

test("method and results are composed from the study, by the compute command's numbers, and saved as they stand", async ({ page }) => {
  await page.goto(place("write-up"));
  await ready(page);
  const paper = page.getByRole("article", { name: "Manuscript" });
  const results = await app.compute(app.demo, "demo/canal-street.csv");
  const alpha = results.scales.tutor_support.reliability.alpha;
  await expect(paper).toContainText(`Cronbach's α = ${printed(alpha, 2)}`);
  await expect(paper).toContainText(`There were ${results.data.rows} respondents.`);
  const step = results.ladders.willingness.steps["3"];
  const own = paper.getByRole("region", { name: "Table 2" });
  await expect(own).toContainText("Hierarchical regression of Willingness to speak");
  await expect(own).toContainText(`ΔR² = ${printed(step.change.dR2, 3)}`);
  const { h1, h5 } = results.theories.theory.hypotheses;
  await expect(paper).toContainText(
    `H1 (Speaking confidence goes with more Willingness to speak) is supported: ${printed(h1.estimate, 2)} [`,
  );
  await expect(paper).toContainText(`goes in the opposite direction: ${printed(h5.estimate, 2)} [`);
  const html = await saved(page, "Save as HTML");
  const markdown = await saved(page, "Save as Markdown");
  for (const text of [html, markdown]) {
    expect(text).toContain(printed(h1.estimate, 2));
    expect(text).toContain(printed(alpha, 2));
    // numbers with a minus, never with a hyphen
    expect(text).not.toMatch(/[\s[(>]-\.?\d/);
  }
  expect(html.match(/<caption>/g)).toHaveLength(5);
  expect(markdown.match(/^\*\*Table \d\*\*/gm)).toHaveLength(5);
});

test("a table is copied as a table, and saved as CSV with the cells that are read", async ({ page, context }) => {
  await context.grantPermissions(["clipboard-read", "clipboard-write"]);
  await page.goto(place("write-up"));
  await ready(page);
  await page.getByRole("button", { name: "Copy Table 2" }).click();
  await expect(page.getByText("Table 2 is in the clipboard.")).toBeVisible();
  const pasted = await page.evaluate(async () => {
    const [item] = await navigator.clipboard.read();
    return { html: await (await item!.getType("text/html")).text(), text: await (await item!.getType("text/plain")).text() };
  });
  const shown = await page
    .getByTestId("table-2")
    .getByRole("row")
    .evaluateAll((rows) => rows.map((row) => [...row.children].map((cell) => cell.textContent!.trim()).join("\t")));
  const even = (text: string) => text.replace(/[\u00a0\u202f\u2009]/g, " ");
  expect(even(pasted.text).split("\n")).toEqual(shown.map(even));
  expect(pasted.html).toContain("<table");
  const csv = await saved(page, "Save Table 2 as CSV");
  expect(even(csv)).toContain("Speaking confidence × Tutor support");
  expect(csv.trim().split("\r\n")).toHaveLength(shown.length);
});

test("what changes in the study reads otherwise here at once: another level, and intervals by bootstrap", async ({ page }) => {
  await page.goto(place("ladders"));
  await page.getByRole("button", { name: /^Intervals by:/ }).click();
  await page.keyboard.type("BCa");
  await page.keyboard.press("Enter");
  await page.goto(place("write-up"));
  await ready(page);
  const table = page.getByRole("region", { name: "Table 2" });
  await expect(table).toContainText("Intervals by BCa bootstrap, 5\u202f000 replicates");
  await expect(page.getByRole("article")).toContainText("bias-corrected and accelerated");
  const { ladders } = await app.compute(app.demo, "demo/canal-street.csv");
  const drawn = JSON.stringify(ladders.willingness.bootstrap);
  const row = table.getByRole("row", { name: /^Speaking confidence/ }).first();
  const limits = /\[(−?[\d.]+), (−?[\d.]+)\]/
    .exec((await row.textContent())!)!
    .slice(1)
    .map((text) => Number(text.replace("−", "-")));
  // both limits stand among those of the compute command
  const numbers = [...drawn.matchAll(/-?\d+\.\d+(?:e-?\d+)?/g)].map(Number);
  for (const limit of limits) expect(numbers.some((value) => Math.abs(value - limit) < 0.0051)).toBe(true);
});

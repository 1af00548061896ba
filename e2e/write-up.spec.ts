import { readFileSync } from "node:fs";
import { strFromU8, strToU8, unzipSync, zipSync } from "fflate";
import mammoth from "mammoth";
import { carryByKeys, expect, heldBack, type Page, printed, restingPlace, test, withDemo } from "./house";

const app = withDemo();
const place = (where: string) => `${app.address}/studies/${app.demo}/${where}`;
const state = (page: Page) => page.getByTestId("write-up-state");
const paper = (page: Page) => page.getByRole("article", { name: "Manuscript" });
/** Composed, kept, and saved. */
const open = async (page: Page) => {
  await page.goto(place("write-up"));
  await expect(state(page)).toHaveText("Every number is as it stands now.");
  await expect(page.getByRole("button", { name: "Move Table 1" })).toBeAttached();
  await expect(page.getByText("All changes saved")).toBeVisible();
};
const saved = (page: Page, name: string) =>
  Promise.all([page.waitForEvent("download"), page.getByRole("button", { name, exact: true }).click()]).then(async ([file]) =>
    readFileSync((await file.path())!),
  );
const even = (text: string) => text.replace(/[\u00a0\u202f\u2009]/g, " ");
const choose = async (page: Page, label: RegExp, typed: string) => {
  await page.getByRole("button", { name: label }).click();
  await page.keyboard.type(typed);
  await page.keyboard.press("Enter");
};
/** Where two results differ by more than rounding. */
function apart(a: unknown, b: unknown, path = ""): string[] {
  if (typeof a === "number" && typeof b === "number") return Math.abs(a - b) <= 1e-9 * Math.max(1, Math.abs(a)) ? [] : [path];
  if (a === null || b === null || typeof a !== "object" || typeof b !== "object") return a === b ? [] : [path];
  const [one, other] = [a, b] as Record<string, unknown>[];
  return [...new Set([...Object.keys(one!), ...Object.keys(other!)])].flatMap((key) =>
    apart(one![key] ?? null, other![key] ?? null, `${path}.${key}`),
  );
}

test("method and results are composed from the study, by the compute command's numbers, and saved as they stand", async ({ page }) => {
  await open(page);
  const results = await app.compute(app.demo, "demo/canal-street.csv");
  const alpha = results.scales.tutor_support.reliability.alpha;
  await expect(paper(page)).toContainText(`Cronbach's α = ${printed(alpha, 2)}`);
  await expect(paper(page)).toContainText(`There were ${results.data.rows} respondents.`);
  const step = results.ladders.willingness.steps["3"];
  const own = paper(page).getByRole("region", { name: "Table 2", exact: true });
  await expect(own).toContainText("Hierarchical regression of Willingness to speak");
  await expect(own).toContainText(`ΔR² = ${printed(step.change.dR2, 3)}`);
  const { h1, h5 } = results.theories.theory.hypotheses;
  await expect(paper(page)).toContainText(
    `H1 (Speaking confidence goes with more Willingness to speak) is supported: β = ${printed(h1.estimate, 2)} [`,
  );
  await expect(paper(page)).toContainText(`goes in the opposite direction: β = ${printed(h5.estimate, 2)} [`);
  const html = (await saved(page, "Save as HTML")).toString();
  const markdown = (await saved(page, "Save as Markdown")).toString();
  for (const text of [html, markdown]) {
    expect(text).toContain(printed(h1.estimate, 2));
    expect(text).toContain(printed(alpha, 2));
  }
  const tables = await paper(page).getByRole("region", { name: /^Table \d+$/ }).count(); // prettier-ignore
  expect(html.match(/<caption>/g)).toHaveLength(tables);
  expect(markdown.match(/^\*\*Table \d+\*\*/gm)).toHaveLength(tables);
  expect(html.match(/<figure id=[^>]*>[\s\S]*?<svg/g)!.length).toBeGreaterThan(0);
  // and as a document with the same words
  await choose(page, /^Paper:/, "Letter");
  const docx = await saved(page, "Save as DOCX");
  const files = unzipSync(docx);
  const xml = strFromU8(files["word/document.xml"]!);
  const letters = even(xml.replace(/<\/w:p>/g, "\n").replace(/<w:instrText[^>]*>[^<]*<\/w:instrText>|<[^>]+>/g, ""));
  expect(letters).toContain(printed(h1.estimate, 2));
  expect(letters).toContain(`ΔR² = ${printed(step.change.dR2, 3)}`);
  expect(xml.match(/<w:tbl>/g)).toHaveLength(tables);
  expect(xml).toContain('w:w="12240"');
  // a minus is never a hyphen, and no symbol stands upright beside its number
  expect(letters).not.toMatch(/[\s([]-\.?\d/);
  const runs = [...xml.matchAll(/<w:r>(.*?)<\/w:r>/gs)].map(([, run]) => ({ italic: run!.includes("<w:i/>"), text: even(run!.replace(/<w:instrText.*?<\/w:instrText>|<[^>]+>/gs, "")) })); // prettier-ignore
  expect(runs.filter(({ italic, text }) => !italic && /(^|[\s(,;])(p|F|t|r|M|SD|SE) ?[=<(]/.test(text))).toEqual([]);
  expect(runs.filter(({ italic, text }) => italic && /^(p|F|b|SE|R|M|SD)$/.test(text)).length).toBeGreaterThan(40);
  // every cell of the coefficients, as another program reads it, is the compute command's number
  const { value: read } = await mammoth.convertToHtml({ buffer: docx });
  const table = [...read.matchAll(/<table>.*?<\/table>/gs)][1]![0];
  const rows = [...table.matchAll(/<tr>.*?<\/tr>/gs)].map(([row]) => [...row.matchAll(/<t[dh][^>]*>(.*?)<\/t[dh]>/gs)].map(([, cell]) => even(cell!.replace(/<[^>]+>/g, "").replace("&lt;", "<")))); // prettier-ignore
  const names: Record<string, string> = { Age: "age", "Months enrolled": "months_enrolled", "Speaking confidence": "speaking_confidence", "Tutor support": "tutor_support", "Speaking confidence × Tutor support": "speaking_confidence*tutor_support" }; // prettier-ignore
  let [k, compared] = [0, 0];
  const held = (cell: string, value: number) => {
    compared++;
    const decimals = cell.split(".")[1]?.replace(/\D/g, "").length ?? 0;
    if (cell === "< .001") expect(value).toBeLessThan(0.001);
    else expect(Math.abs(Number(cell.replace("−", "-")) - value)).toBeLessThanOrEqual(0.5000001 * 10 ** -decimals);
  };
  for (const [name, b, se, interval, beta, p] of rows) {
    if (/^Step \d/.test(name!)) k++;
    const column = names[name!];
    if (column === undefined) continue;
    const { coef } = results.ladders.willingness.steps[k];
    const [lower, upper] = interval!.slice(1, -1).split(", ");
    held(b!, coef[column].b);
    held(se!, coef[column].se);
    held(lower!, coef[column].lower);
    held(upper!, coef[column].upper);
    held(beta!, results.ladders.willingness.standardized[k][column].beta);
    held(p!, coef[column].p);
  }
  expect(compared).toBe(6 * (2 + 4 + 5));
  const pictures = Object.keys(files).filter((name) => /^word\/media\/.*\.png$/.test(name));
  expect(pictures.length).toBe(Object.keys(files).filter((name) => /^word\/media\/.*\.svg$/.test(name)).length);
  // 300 dots an inch over 6.5 inches
  for (const name of pictures) expect(Buffer.from(files[name]!).readUInt32BE(16)).toBeGreaterThanOrEqual(1950);
});

test("a table is told otherwise by words of its sentence, copied as a table, and saved as CSV with the cells that are read", async ({
  page,
  context,
}) => {
  await context.grantPermissions(["clipboard-read", "clipboard-write"]);
  await open(page);
  await page.getByRole("region", { name: "Table 2", exact: true }).first().click();
  await choose(page, /^Coefficients:/, "β alone");
  await choose(page, /^Tests:/, "stars");
  await choose(page, /^Form:/, "side by side");
  await choose(page, /^How sure they are:/, "neither");
  const rows = page.getByTestId("table-2").getByRole("row");
  const shown = () => rows.evaluateAll((all) => all.map((row) => [...row.children].map((cell) => cell.textContent!.trim())));
  await expect.poll(async () => (await shown())[1]).toEqual(["Term", "β", "β", "β"]);
  const { ladders } = await app.compute(app.demo, "demo/canal-street.csv");
  const beta = ladders.willingness.standardized["3"].speaking_confidence.beta as number;
  expect((await shown()).find((row) => row[0] === "Speaking confidence")!.at(-1)).toBe(`${printed(beta, 2)}***`);
  await expect(page.getByRole("region", { name: "Table 2", exact: true }).first()).toContainText("* p < .05");
  await page.getByRole("button", { name: "Copy Table 2" }).click();
  await expect(page.getByText("Table 2 is in the clipboard.")).toBeVisible();
  const pasted = await page.evaluate(async () => {
    const [item] = await navigator.clipboard.read();
    return { html: await (await item!.getType("text/html")).text(), text: await (await item!.getType("text/plain")).text() };
  });
  expect(pasted.html).toContain("<table");
  expect(pasted.html).toContain('colspan="1" class="over"');
  const cells = (await shown()).slice(1).map((row) => even(row.join("\t")));
  expect(even(pasted.text).split("\n").slice(1)).toEqual(cells);
  const csv = even((await saved(page, "Save as CSV")).toString());
  expect(csv.trim().split("\r\n")).toHaveLength(cells.length + 1);
  // it is a change like any other
  await page.getByRole("button", { name: "Take the last change back" }).click();
  await expect.poll(async () => (await shown())[1]!.length).toBeGreaterThan(4);
  // beside another ladder a step of each is told, and what led to the table still does
  await choose(page, /^Beside another:/, "Oral exam");
  await choose(page, /^Step:/, "step 2");
  await expect(page.getByRole("region", { name: "Table 2", exact: true }).first()).toContainText("Step 2 of Willingness to speak; Step 2 of Oral exam."); // prettier-ignore
  const both = (await shown()).find((row) => row[0] === "Tutor support")!;
  const second = (ladder: string) => printed(ladders[ladder].standardized["2"].tutor_support.beta, 2);
  expect(both.filter((cell) => cell.startsWith(second("willingness")))).not.toEqual([]);
  expect(both.filter((cell) => cell.startsWith(second("exam")))).not.toEqual([]);
  await expect(paper(page).getByRole("region", { name: /^the paragraph on Willingness to speak/ })).toContainText("Table 2 holds all coefficients"); // prettier-ignore
});

test("what changes in the study is told at the block, and brought up to date one by one or all", async ({ page }) => {
  await open(page);
  await page.goto(place("ladders"));
  await choose(page, /^Intervals by:/, "BCa");
  await page.goto(place("write-up"));
  await expect(state(page)).toContainText(/\d+ blocks are out of date\./, { timeout: 60_000 });
  const table = paper(page).getByRole("region", { name: /^Table 2(,|$)/ });
  await expect(table).not.toContainText("bootstrap"); // it shows what it showed
  await table.click();
  const margin = page.getByRole("complementary", { name: "Margin" });
  await expect(margin.getByTestId("changes")).toContainText("Speaking confidence, 95 % CI");
  await margin.getByRole("button", { name: "Bring up to date" }).click();
  await expect(table).toContainText("Intervals by BCa bootstrap, 5\u202f000 replicates");
  await page.getByRole("button", { name: "Bring all up to date" }).click();
  await expect(state(page)).toHaveText("Every number is as it stands now.");
  await expect(paper(page)).toContainText("bias-corrected and accelerated");
  const { ladders } = await app.compute(app.demo, "demo/canal-street.csv");
  const row = table.getByRole("row", { name: /^Speaking confidence/ }).first();
  const limits = /\[(−?[\d.]+), (−?[\d.]+)\]/.exec((await row.textContent())!)!.slice(1).map((text) => Number(text.replace("−", "-"))); // prettier-ignore
  // both limits stand among those of the compute command
  const numbers = [...JSON.stringify(ladders.willingness.bootstrap).matchAll(/-?\d+\.\d+(?:e-?\d+)?/g)].map(Number);
  for (const limit of limits) expect(numbers.some((value) => Math.abs(value - limit) < 0.0051)).toBe(true);
});

test("text of one's own holds numbers of the study, blocks move by the keyboard, and all of it can be taken back", async ({ page }) => {
  await open(page);
  await page.getByRole("button", { name: "Add at place 3", exact: true }).click();
  await page.keyboard.type("text of your own");
  await page.keyboard.press("Enter");
  const writing = page.getByRole("textbox", { name: "Text of your own" });
  await expect(writing).toBeFocused();
  await page.keyboard.type("The last step reached #R² of step 3, Will");
  await expect(page.getByRole("option").first()).toContainText("R² of step 3, Willingness to speak");
  await page.keyboard.press("Enter");
  await page.keyboard.type(" of the variance.");
  await page.keyboard.press("Escape");
  const { ladders } = await app.compute(app.demo, "demo/canal-street.csv");
  const text = `The last step reached ${printed(ladders.willingness.steps["3"].model.R2, 3)} of the variance.`;
  await expect(paper(page).getByText(text)).toBeVisible();
  const own = page.getByRole("region", { name: "a text of your own" });
  const order = () => paper(page).locator("section[id]").evaluateAll((all) => all.map((one) => one.id)); // prettier-ignore
  const before = await order();
  const at = before.findIndex((id) => id.startsWith("prose"));
  expect(at).toBe(2);
  await own.getByRole("button", { name: "Move a text of your own" }).focus();
  const stands = (at: number) => `A text of your own at place ${at} of ${before.length}`;
  await carryByKeys(page, ["Space", stands(at + 1)], ["ArrowDown", stands(at + 2)], ["Space", "A text of your own put down"]);
  await expect.poll(async () => (await order()).indexOf(before[at]!)).toBe(at + 1);
  await own.focus();
  await page.getByRole("button", { name: "Move up" }).click();
  await expect.poll(order).toEqual(before);
  await page.getByRole("button", { name: "Take out" }).click();
  await expect(paper(page).getByText(text)).toHaveCount(0);
  await page.getByRole("button", { name: "Take the last change back" }).click();
  await expect(paper(page).getByText(text)).toBeVisible();
  // by the pointer too: a heading goes above the one before it
  const [first, second] = [page.getByRole("region", { name: "the heading Participants" }), page.getByRole("region", { name: "the heading Method" })]; // prettier-ignore
  await first.hover();
  const grip = await restingPlace(first.getByRole("button", { name: /^Move/ }));
  const over = await restingPlace(second);
  await page.mouse.move(grip.x + 6, grip.y + 6);
  await page.mouse.down();
  await page.mouse.move(grip.x + 6, grip.y - 20, { steps: 4 });
  await page.mouse.move(grip.x + 6, over.y + 6, { steps: 6 });
  await page.mouse.up();
  await expect.poll(async () => (await order())[0]).toBe("h_participants");
  await page.getByRole("button", { name: "Take the last change back" }).click();
  await expect.poll(order).toEqual(before);
  // and it is there when the page comes again
  await expect(page.getByText("All changes saved")).toBeVisible();
  await page.reload();
  await expect(paper(page).getByText(text)).toBeVisible();
});

test("what is written before the editor has come stands in the text, whether it comes meanwhile or is not waited for", async ({ page }) => {
  const come = await heldBack(page, "ProseMirror");
  await open(page);
  await page.getByRole("button", { name: "Add at place 3", exact: true }).click();
  await page.keyboard.type("text of your own");
  await page.keyboard.press("Enter");
  await page.keyboard.type("A first paragraph.\nA second.");
  await page.keyboard.press("Escape");
  const own = page.getByRole("region", { name: "a text of your own" });
  await expect(own.locator("p")).toHaveText(["A first paragraph.", "A second."]);
  // a composed paragraph too, and its numbers stay those of the study
  const composed = paper(page).getByRole("region", { name: /^the paragraph on Willingness to speak/ });
  await composed.press("Enter");
  await expect(composed.locator("textarea")).toHaveValue(/^Step 1 \(Background\) explained R² = /);
  await page.keyboard.press("Control+a");
  await page.keyboard.press("ArrowLeft");
  await page.keyboard.type("As we expected: ");
  await page.keyboard.press("Escape");
  await expect(composed).toContainText("As we expected: Step 1 (Background) explained R² = ");
  expect(await composed.locator("[data-live]").count()).toBeGreaterThan(10);
  // the editor goes on where the caret stands
  await own.press("Enter");
  await page.keyboard.press("ArrowUp");
  await page.keyboard.press("Home");
  await page.keyboard.type("And ");
  await expect(own.locator("textarea")).toHaveValue("And A first paragraph.\nA second.");
  come();
  await expect(own.locator("[contenteditable]")).toBeFocused();
  await page.keyboard.type("then ");
  await page.keyboard.press("Escape");
  await expect(own.locator("p")).toHaveText(["And then A first paragraph.", "A second."]);
});

test("a person's words around the numbers stay; where what they stand around turned, it is said, and it can be composed anew", async ({
  page,
}) => {
  await open(page);
  const own = paper(page).getByRole("region", { name: /^the paragraph on Willingness to speak/ });
  await own.focus();
  await page.keyboard.press("Enter");
  const writing = page.getByRole("textbox", { name: "Paragraph" });
  await expect(writing).toBeFocused();
  await page.keyboard.press("Control+a");
  await page.keyboard.press("ArrowLeft");
  await page.keyboard.type("As we expected: ");
  await page.keyboard.press("Escape");
  await expect(own).toContainText("As we expected: Step 1 (Background) explained");
  await page.goto(place("ladders"));
  // without confidence and its product the paragraph would read otherwise
  const term = page.getByTestId("step-2").getByRole("button", { name: "Speaking confidence" }).and(page.locator("[aria-pressed]"));
  await term.click();
  await page.getByRole("group", { name: "What to do with the chosen terms" }).getByRole("button", { name: "Switch off" }).click();
  await expect(page.getByText(/Switched off: Speaking confidence/)).toBeVisible();
  await expect(page.getByText("All changes saved")).toBeVisible();
  await page.goto(place("write-up"));
  await expect(state(page)).toContainText("out of date", { timeout: 60_000 });
  await own.focus();
  const margin = page.getByRole("complementary", { name: "Margin" });
  await expect(margin).toContainText("Its words may be wrong now.");
  await expect(margin.getByTestId("wording")).toContainText("was “In step 3 Willingness to speak was higher with Speaking confidence");
  await margin.getByRole("button", { name: "Compose it anew" }).click();
  await expect(own).not.toContainText("As we expected");
  await expect(own).not.toContainText("higher with Speaking confidence");
});

test("quoted from a ladder, a number stands in the write-up and follows it", async ({ page }) => {
  await open(page);
  await page.goto(place("ladders"));
  await page.getByRole("button", { name: "Quote this step" }).click();
  await expect(page.getByText("It stands at the end of the write-up.")).toBeVisible();
  await expect(page.getByText("All changes saved")).toBeVisible();
  const { ladders } = await app.compute(app.demo, "demo/canal-street.csv");
  await page.goto(place("write-up"));
  await expect(paper(page)).toContainText(
    `ΔR² with its test, step 3, Willingness to speak: ΔR² = ${printed(ladders.willingness.steps["3"].change.dR2, 3)}, F(`,
  );
});

test("a study file holds everything: opened again it is the same page with the same numbers, and verified from the command line", async ({
  page,
}) => {
  await open(page);
  await page.getByRole("button", { name: "Add at place 3", exact: true }).click();
  await page.keyboard.type("text of your own");
  await page.keyboard.press("Enter");
  await page.keyboard.type("A sentence of mine.");
  await page.keyboard.press("Escape");
  await expect(page.getByText("All changes saved")).toBeVisible();
  await expect(paper(page).getByText("A sentence of mine.")).toBeVisible();
  const text = await paper(page).textContent(); // of tables too that are too far off to be laid out
  const [file] = await Promise.all([page.waitForEvent("download"), page.getByRole("button", { name: "Save the study file" }).click()]);
  const path = (await file.path())!;
  expect(file.suggestedFilename()).toBe("canal-street-evening-classes-study.zip");
  const parts = unzipSync(readFileSync(path));
  expect(Object.keys(parts).sort()).toEqual(
    ["codebook.csv", "datapackage.json", "responses.csv", "results.json", "study-file.json", "study.json", "trail.json", "write-up.html", "write-up.md"].sort(), // prettier-ignore
  );
  // the browser's results are those of the compute command: two engines may differ in the last digits
  const stored = JSON.parse(strFromU8(parts["results.json"]!));
  const { data, ...computed } = await app.compute(app.demo, "demo/canal-street.csv");
  expect(data.rows).toBe(440);
  expect(apart(stored, computed)).toEqual([]);
  expect(await app.verify(path)).toEqual({ code: 0, said: expect.stringMatching(/^\d+ numbers worked out again: all agree\.$/) });
  // on this machine once more, as on any other
  await page.goto(app.address);
  await page.getByLabel("File of answers").setInputFiles(path);
  await expect(page.getByText(/It holds 440 respondents with all answers, and the trail \(\d+ changes?\)\./)).toBeVisible();
  await page.getByRole("button", { name: "Open the study" }).click();
  await expect(page).toHaveURL(/\/write-up$/);
  await expect(state(page)).toHaveText("Every number is as it stands now.", { timeout: 60_000 });
  await expect(paper(page)).toHaveText(text!);
  // its trail came along: what was done there can be taken back here
  await page.getByRole("button", { name: "Take the last change back" }).click();
  await expect(paper(page).getByText("A sentence of mine.")).toHaveCount(0);
});

test("a copy without respondents holds no row, refits its ladders, and opens as a text; with shuffled codes only what was chosen", async ({
  page,
}) => {
  await open(page);
  await choose(page, /^What the study file holds:/, "without");
  const [file] = await Promise.all([page.waitForEvent("download"), page.getByRole("button", { name: "Save the study file" }).click()]);
  const path = (await file.path())!;
  const parts = unzipSync(readFileSync(path));
  expect(Object.keys(parts)).not.toContain("responses.csv");
  expect(await app.verify(path)).toEqual({ code: 0, said: expect.stringMatching(/all agree\.$/) });
  await page.goto(app.address);
  await page.getByLabel("File of answers").setInputFiles(path);
  await expect(page.getByText(/\d+ numbers \(b, SE, β, R², ΔR²\) of 3 ladders were worked out again .* and agree\./)).toBeVisible();
  await page.getByRole("button", { name: "Open the study" }).click();
  await expect(page).toHaveURL(/\/write-up$/);
  await expect(paper(page)).toContainText("Hierarchical regression of Willingness to speak");
  await expect(state(page)).toHaveText("Without respondents: every block shows what it was shared with.");
  // and one with the answers of some variables
  await open(page);
  await choose(page, /^What the study file holds:/, "shuffled");
  await page.getByText(/variables? of \d+ go along/).click();
  await page.getByRole("checkbox", { name: "oral_exam" }).uncheck();
  const [copy] = await Promise.all([page.waitForEvent("download"), page.getByRole("button", { name: "Save the study file" }).click()]);
  await expect(page.getByText(/Saved\. Not in it, since what they need was not chosen: .*Oral exam/)).toBeVisible();
  const shuffled = unzipSync(readFileSync((await copy.path())!));
  const [head, ...rows] = strFromU8(shuffled["responses.csv"]!).trim().split("\n");
  expect(head).not.toContain("oral_exam");
  expect(rows).toHaveLength(440);
  expect(strFromU8(shuffled["study.json"]!)).not.toContain("oral_exam");
  expect(Object.keys(shuffled)).not.toContain("trail.json");
  expect(await app.verify((await copy.path())!)).toEqual({ code: 0, said: expect.stringMatching(/all agree\.$/) });
});

test("a study file that is damaged, foreign or newer is refused with what is wrong, and nothing is kept", async ({ page }) => {
  await open(page);
  const [file] = await Promise.all([page.waitForEvent("download"), page.getByRole("button", { name: "Save the study file" }).click()]);
  const whole = unzipSync(readFileSync((await file.path())!));
  const manifest = JSON.parse(strFromU8(whole["study-file.json"]!));
  const made = (own: object) => Buffer.from(zipSync({ ...whole, ...own }));
  const named = (to: object) => ({ "study-file.json": strToU8(JSON.stringify({ ...manifest, ...to })) });
  await page.goto(app.address);
  const count = await page.getByRole("row").count();
  const drop = (name: string, buffer: Buffer) =>
    page.getByLabel("File of answers").setInputFiles({ name, mimeType: "application/zip", buffer });
  const alert = page.getByRole("alert").filter({ hasText: "was not taken in" });
  await drop("changed.zip", made({ "results.json": strToU8("{}") }));
  await expect(alert).toContainText('The part "results.json" is not as it was when the file was made (its checksum differs).');
  await drop("newer.zip", made(named({ version: 99 })));
  await expect(alert).toContainText("was written by a newer version of Beta Step (file 99; this one reads up to 1)");
  await drop("foreign.zip", made(named({ format: "something-else" })));
  await expect(alert).toContainText("is not one of a study file of Beta Step");
  await drop("cut.zip", made({}).subarray(0, 4000));
  await expect(alert).toContainText("damaged or was cut short");
  await page.reload();
  expect(await page.getByRole("row").count()).toBe(count);
});

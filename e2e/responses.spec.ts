import { readFileSync } from "node:fs";
import { strFromU8, unzipSync } from "fflate";
import { expect, type Page, printed, restingPlace, test, withDemo } from "./house";

const app = withDemo();
const place = (name: string) => `${app.address}/studies/${app.demo}/${name}`;
const grid = (page: Page) => page.getByRole("grid", { name: "Answers" });
const cell = (page: Page, row: number, column: number) => grid(page).locator(`#cell-${row}-${column}`);
const load = async (page: Page) => (await (await page.request.get(`${app.address}/api/studies/${app.demo}`)).json()).study;
const saved = (page: Page) => expect(page.getByRole("status").filter({ hasText: "All changes saved" })).toBeVisible();
/** Alerts of ours: the framework keeps one of its own on every page. */
const alert = (page: Page) => page.locator('[role="alert"]:not(#__next-route-announcer__)');
const COLUMNS = readFileSync("demo/canal-street.csv", "utf8").split("\n")[0]!.split(",");
const open = async (page: Page) => {
  await page.goto(place("responses"));
  await expect(page.getByText("L001")).toBeVisible();
};

test("from a ladder to who left what open: that part of the page stays in sight while those above it grow, and lets go", async ({
  page,
}) => {
  await page.goto(place("ladders"));
  await page.getByRole("button", { name: "See who left what open" }).click();
  await expect(page.getByText("Respondents with the same code")).toBeVisible();
  const heading = (name: string | RegExp) => page.getByRole("heading", { name });
  const below = async () => (await page.getByRole("banner").boundingBox())!.height;
  /** Where a heading begins below what stays at the top of the window. */
  const from = async (name: string | RegExp) => (await heading(name).boundingBox())!.y - (await below());
  const led = async (name: string | RegExp) => {
    await expect.poll(() => from(name)).toBeLessThan(60);
    await page.waitForLoadState("networkidle");
    expect(await from(name)).toBeLessThan(60);
    expect(await from(name)).toBeGreaterThanOrEqual(0);
  };
  await led("Missing answers");
  await page.mouse.wheel(0, -300);
  await expect.poll(() => from("Missing answers")).toBeGreaterThan(200);
  // what grows now leaves a person where they are
  await page.locator("main").evaluate((main) => new Promise((grown) => { main.style.paddingBottom = "200px"; requestAnimationFrame(() => setTimeout(grown)); })); // prettier-ignore
  expect(await from("Missing answers")).toBeGreaterThan(200);
  await page.getByRole("link", { name: /^To check/ }).click();
  await led(/^To check/);
});

test("a file is shown as it is understood; what is wrong is corrected there; only then is it taken", async ({ page }) => {
  await page.goto(app.address);
  const latin = Buffer.concat([
    Buffer.from("Kennung;Alter;alter;Gr"),
    Buffer.from([0xf6, 0xdf]),
    Buffer.from("e\nA1;23;1;1,75\nA2;31;2;1,62\n"),
  ]);
  await page.getByLabel("File of answers").setInputFiles({ name: "umlaute.csv", mimeType: "text/csv", buffer: latin });
  await expect(page.getByText("line 1 is not valid UTF-8, so the letters are taken as Windows-1252")).toBeVisible();
  await expect(page.getByText("2 of 2 numbers with decimals are written so")).toBeVisible();
  await expect(page.getByText("and became alter_2.")).toBeVisible();
  await expect(alert(page)).toBeHidden();
  await expect(page.getByRole("cell", { name: "1.75" })).toBeVisible();
  const name = page.getByLabel("Name of column 3");
  await name.fill("siblings");
  await name.press("Enter");
  await expect(page.getByLabel("Name of column 3")).toHaveValue("siblings");
  await page.getByRole("button", { name: "Begin the study" }).click();
  await expect(page.getByRole("heading", { level: 1 })).toContainText("2 respondents, 4 variables, from umlaute.csv");
  await expect(page.getByRole("button", { name: "Größe", exact: true })).toBeVisible();
  await expect(page.getByRole("button", { name: "siblings", exact: true })).toBeVisible();
});

test("a spreadsheet is read from the sheet and header that hold the table", async ({ page }) => {
  await page.goto(app.address);
  await page.getByLabel("File of answers").setInputFiles("src/files/reading/fixtures/answers.xlsx");
  await expect(page.getByText("it is the first of 2 that holds a table")).toBeVisible();
  await expect(page.getByLabel("Row with the names")).toHaveValue("3");
  await expect(page.getByText("Percentages are kept as the number before the sign in attendance: 45 % is 45.")).toBeVisible();
  await page.getByRole("button", { name: "Begin the study" }).click();
  await page.getByRole("button", { name: "attendance", exact: true }).click();
  await expect(page.getByLabel("Unit")).toHaveValue("%");
});

test("a respondent is reached from anywhere; a cell is corrected by keyboard, shown as corrected, and taken back with Ctrl+Z", async ({
  page,
}) => {
  await page.goto(place("ladders"));
  await page.getByLabel("Go to respondent").fill("l123");
  await page.keyboard.press("Enter");
  await expect(grid(page)).toHaveAttribute("aria-activedescendant", "cell-122-0");
  await expect(cell(page, 122, 0)).toHaveText("L123");
  const age = COLUMNS.indexOf("age");
  await grid(page).focus();
  for (let k = 0; k < age; k++) await page.keyboard.press("ArrowRight");
  await expect(cell(page, 122, age)).toHaveText(/\d/);
  const before = await cell(page, 122, age).textContent();
  await page.keyboard.press("Enter");
  await page.keyboard.type("77");
  await page.keyboard.press("Enter");
  await expect(cell(page, 122, age)).toHaveText("77");
  await expect(cell(page, 122, age)).toHaveAttribute("title", `corrected; the file says ${before}`);
  await expect(page.getByText(`Corrected by hand: the file says ${before}, it counts as 77.`)).toBeVisible();
  await saved(page);
  expect((await load(page)).corrections).toEqual([{ variable: "age", row: 123, from: before, to: "77", note: "" }]);
  const results = await app.compute(app.demo, "demo/canal-street.csv");
  expect(results.variables.age.max).toBe(77); // the command counts it too; the file's own highest age is below
  await grid(page).focus();
  await page.keyboard.press("Control+z");
  await expect(cell(page, 122, age)).toHaveText(before!);
  await page.keyboard.press("Control+Shift+z");
  await expect(cell(page, 122, age)).toHaveText("77");
  await page.keyboard.press("Delete");
  await expect(cell(page, 122, age)).toHaveText(before!);
  await saved(page);
  expect((await load(page)).corrections).toEqual([]);
});

test("the sheet is ordered and filtered by its sentence, shows labels, and is copied as text", async ({ page, context }) => {
  await context.grantPermissions(["clipboard-read", "clipboard-write"]);
  await open(page);
  await page.getByRole("button", { name: "Order: the file" }).click();
  await page.keyboard.type("oral exam, highest");
  await page.keyboard.press("Enter");
  const oral = COLUMNS.indexOf("oral_exam");
  await page.getByRole("columnheader", { name: "learner" }).waitFor();
  await page.getByRole("button", { name: "oral_exam", exact: true }).click();
  await page.getByRole("button", { name: "Leave as it was" }).click();
  const scores = readFileSync("demo/canal-street.csv", "utf8").trim().split("\n").slice(1).map((line) => line.split(",")[oral]!); // prettier-ignore
  scores.sort((a, b) => Number(b) - Number(a));
  for (const row of [0, 1, 2, 3]) await expect(cell(page, row, oral)).toHaveText(String(Number(scores[row])));

  await page.getByRole("button", { name: "returning", exact: true }).click();
  await page.getByLabel("Label of yes").fill("has been here before");
  await page.getByRole("button", { name: "Keep", exact: true }).click();
  await page.getByRole("button", { name: "Cells: values" }).click();
  await page.keyboard.type("labels");
  await page.keyboard.press("Enter");
  await expect(grid(page).getByText("has been here before").first()).toBeVisible();

  await cell(page, 0, COLUMNS.indexOf("format")).click();
  await cell(page, 1, COLUMNS.indexOf("returning")).click({ modifiers: ["Shift"] });
  await page.keyboard.press("Control+c");
  await expect(page.getByText("2 × 2 cells copied, with their names.")).toBeVisible();
  const copied = (await page.evaluate(() => navigator.clipboard.readText())).split("\n").map((line) => line.split("\t"));
  expect(copied[0]).toEqual(["format", "returning"]);
  expect(
    copied
      .slice(1)
      .flat()
      .every((text) => ["online", "in person", "blended", "no", "has been here before"].includes(text)),
  ).toBe(true);
});

test("several rows of the codebook are described at once, and a block is pasted from a spreadsheet", async ({ page }) => {
  await open(page);
  await page.getByLabel("Mark CA1", { exact: true }).check();
  await page.getByLabel("Mark CA5", { exact: true }).click({ modifiers: ["Shift"] });
  await expect(page.getByText("5 variables at once: CA1, CA2, CA3, CA4 …")).toBeVisible();
  await page.getByLabel("Missing codes of all").fill("-8");
  await page.keyboard.press("Enter");
  await page.getByLabel("Value labels").last().fill("1 = never; 7 = always");
  await page.getByRole("button", { name: "Keep for all 5" }).click();
  await saved(page);
  const { codebook } = await load(page);
  for (const name of ["CA1", "CA5"])
    expect(codebook.find((v: { name: string }) => v.name === name)).toMatchObject({
      missing: expect.arrayContaining(["-8"]),
      levels: [
        { value: "1", label: "never" },
        { value: "7", label: "always" },
      ],
    });

  await page.getByRole("button", { name: "Paste a block" }).click();
  await page.getByLabel(/^Paste rows from a spreadsheet/).fill("name\tlabel\tunit\nage\tAge in full years\tyears of age\nnobody\tx\ty\n");
  await expect(page.getByText("It changes 1 variable: age (label, unit).")).toBeVisible();
  await expect(page.getByText("Not in this study, and left out: nobody.")).toBeVisible();
  await page.getByRole("button", { name: "Take this change" }).click();
  await expect(page.getByRole("row").filter({ hasText: "Age in full years (years of age)" })).toBeVisible();
});

test("the codebook is saved as DDI and taken back in; the data package holds answers and codebook", async ({ page }) => {
  await open(page);
  const [file] = await Promise.all([page.waitForEvent("download"), page.getByRole("button", { name: "DDI Codebook 2.5 (XML)" }).click()]);
  const xml = readFileSync(await file.path(), "utf8");
  expect(xml).toContain('<var ID="V6" name="age" nature="ratio"');
  await page
    .getByLabel("Codebook file")
    .setInputFiles({ name: "c.xml", mimeType: "text/xml", buffer: Buffer.from(xml.replace("Oral exam", "Oral examination, 0 to 100")) });
  await expect(page.getByText("It changes 1 variable: oral_exam (label).")).toBeVisible();
  await page.getByRole("button", { name: "Take this change" }).click();
  await saved(page);
  const zip = await (await page.request.get(`${app.address}/api/studies/${app.demo}/package`)).body();
  await page.goto(app.address);
  await page.getByLabel("File of answers").setInputFiles({ name: "study.zip", mimeType: "application/zip", buffer: zip });
  await page.getByRole("button", { name: "Begin the study" }).click();
  await expect(page.getByRole("heading", { level: 1 })).toContainText("440 respondents, 36 variables, from study.zip");
  await expect(page.getByRole("cell", { name: "Oral examination, 0 to 100" })).toBeVisible();
});

test("a data package is saved though one variable cannot be worked out: it is there without values, and says why", async ({ page }) => {
  const studies = `${app.address}/api/studies/${app.demo}`;
  const { study, revision } = await (await page.request.get(studies)).json();
  const row = (name: string) => ({ ...study.codebook[0], name, label: "", kind: "number", missing: [], levels: [], range: null });
  const edits = [
    { subject: "variable", id: "five", to: row("five"), at: study.codebook.length },
    { subject: "derived", id: "five", to: { name: "five", recipe: { kind: "formula", formula: "2 + 3" } } },
    { subject: "variable", id: "odd", to: row("odd"), at: study.codebook.length + 1 },
    { subject: "derived", id: "odd", to: { name: "odd", recipe: { kind: "z", from: "five" } } },
  ];
  const saved = await page.request.post(`${studies}/edits`, { data: { revision, id: crypto.randomUUID(), edits } });
  expect(await saved.text()).not.toContain("message");
  const answer = await page.request.get(`${studies}/package`);
  expect(answer.status()).toBe(200);
  const files = unzipSync(await answer.body());
  const { fields } = JSON.parse(strFromU8(files["datapackage.json"]!)).resources[0].schema;
  expect(JSON.stringify(fields.find((field: { name: string }) => field.name === "odd"))).toContain(
    "Not worked out: The answers to five do not vary, so there is nothing to divide by.",
  );
  const [head, first] = strFromU8(files["responses.csv"]!).split("\n");
  expect([head!.split(",").slice(-2), first!.split(",").slice(-2)]).toEqual([
    ["five", "odd"],
    ["5", ""],
  ]);
});

test("an age is cut into ranges on its distribution, a formula is mended where it points, and both are predictors the command computes alike", async ({
  page,
}) => {
  await open(page);
  await page.getByRole("button", { name: "age", exact: true }).click();
  await page.getByRole("button", { name: "Leave as it was" }).click();
  await page.getByRole("button", { name: "cut into ranges" }).click();
  await page.getByRole("button", { name: "Three" }).click();
  const first = page.getByRole("slider", { name: "Edge between low and middle" });
  const edge = async () => Number(await first.getAttribute("aria-valuenow"));
  const start = await edge();
  await first.focus();
  await page.keyboard.press("ArrowLeft");
  await expect.poll(edge).toBe(start - 1);
  await first.scrollIntoViewIfNeeded();
  const box = await restingPlace(first);
  await page.mouse.move(box.x + box.width / 2, box.y + 20);
  await page.mouse.down();
  await page.mouse.move(box.x + box.width / 2 - 25, box.y + 22, { steps: 4 });
  await page.mouse.up();
  await expect.poll(edge).toBeLessThan(start - 1);
  const cut = await edge();
  await page.getByLabel("Name of range 1").fill("young");
  await expect(page.getByTestId("recipe-outcome")).toContainText("438 of 440 respondents have a value");
  await page.getByRole("button", { name: "Keep", exact: true }).click();
  await expect(page.getByText(new RegExp(`cut at ${cut} and \\d+ into young, middle and high`))).toBeVisible();

  await page.getByLabel("Make a variable").click();
  await page.getByText("formula", { exact: true }).last().click();
  await page.getByLabel("Name of the variable").fill("age_group");
  await page.getByRole("textbox", { name: "Formula" }).fill("ln(months_enrolled");
  await expect(page.getByRole("alert").filter({ hasText: "A bracket is opened and not closed. (place 19)" })).toBeVisible();
  await page.getByRole("textbox", { name: "Formula" }).fill("ln(months_enrolled)");
  await page.getByRole("button", { name: "Keep", exact: true }).click();
  await expect(page.getByText("The name “age_group” is taken. Nothing is overwritten: choose another name.")).toBeVisible();
  await page.getByLabel("Name of the variable").fill("log_months");
  await page.getByRole("button", { name: "Keep", exact: true }).click();
  await expect(page.getByText("ln(months_enrolled).", { exact: false })).toBeVisible();
  await saved(page);

  await page.goto(place("ladders"));
  await page.getByRole("button", { name: "Add a term to step 1" }).click();
  for (const term of ["age_group", "log_months"]) {
    await page.keyboard.type(term);
    await page.keyboard.press("Enter");
  }
  await page.keyboard.press("Escape");
  await expect(page.getByText("against young", { exact: true })).toBeVisible();
  await expect(page.getByTestId("log_months@1")).toBeVisible();
  await saved(page);
  const { ladders } = await app.compute(app.demo, "demo/canal-street.csv");
  await expect(page.getByTestId("log_months@1")).toHaveText(printed(ladders.willingness.standardized["1"].log_months.beta, 2));
  await expect(page.getByTestId("step-1").getByTestId("r2")).toHaveText(printed(ladders.willingness.steps["1"].model.R2, 3));
  for (let k = 0; k < 4; k++) {
    await page.getByRole("button", { name: "Take the last change back" }).click();
    await saved(page);
  }
});

test("a check's fix leaves respondents out with a reason; results say they are out of date, then what changed", async ({ page }) => {
  const looked = page.waitForResponse((response) => response.url().endsWith("/seen"));
  await page.goto(place("ladders"));
  await expect(page.getByTestId("over-steps")).toBeVisible();
  await looked;
  await page.goto(place("responses"));
  await expect(page.getByText("learner: 2 codes stand more than once; 2 respondents too many.")).toBeVisible();
  await page.getByRole("button", { name: "Leave the later ones out" }).click();
  await expect(page.getByText("learner: 2 codes stand more than once")).toBeHidden();
  await page.getByRole("button", { name: "Leave them out" }).first().click();
  await expect(page.getByText(/One answer throughout \(holds for the whole study\)/)).toBeVisible();
  await expect(page.getByRole("link", { name: /^Ladders 3 ladders, \d out of date$/ })).toBeVisible();
  await page.getByRole("button", { name: "Show whom Duplicates leaves out" }).click();
  await expect(page.getByRole("heading", { level: 1 })).toContainText("left out by “Duplicates” (2)");
  await expect(cell(page, 1, 0)).toHaveText(/^L\d+$/);
  await saved(page);
  await page.goto(place("ladders"));
  await expect(page.getByText(/N was 430 and is 42\d, R² of step 1 was/)).toBeVisible();
  await expect(page.getByText("2 left out by “Duplicates”, 5 left out by “One answer throughout”")).toBeVisible();
  const { ladders } = await app.compute(app.demo, "demo/canal-street.csv");
  await expect(page.getByTestId("step-3").getByTestId("r2")).toHaveText(printed(ladders.willingness.steps["3"].model.R2, 3));
});

test("a named filter is written, counted while it is written, and chosen in a ladder and a scale", async ({ page }) => {
  await open(page);
  await page.getByRole("button", { name: "New filter" }).click();
  await page.getByLabel("Name of the filter").fill("Grown up");
  await page.getByLabel("Reason").fill("Only adults were to be asked.");
  await page.getByLabel("Condition 1").click();
  await page.getByText("for whom a formula is true").click();
  await page.getByRole("textbox", { name: "Formula" }).fill('age >= 30 and format = "online"');
  const rows = readFileSync("demo/canal-street.csv", "utf8")
    .trim()
    .split("\n")
    .slice(1)
    .map((line) => line.split(","));
  const kept = rows.filter((row) => Number(row[COLUMNS.indexOf("age")]) >= 30 && row[COLUMNS.indexOf("format")] === "online").length;
  await expect(page.getByTestId("filter-outcome")).toContainText(`It keeps ${kept} respondents`);
  await page.getByRole("button", { name: "Keep", exact: true }).click();
  await saved(page);
  await page.goto(place("ladders"));
  await page.getByRole("button", { name: /^Respondents:/ }).click();
  await page.getByText("Grown up").click();
  await expect(page.getByRole("button", { name: "Respondents: respondents in “Grown up”" })).toBeVisible();
  await saved(page);
  const { ladders } = await app.compute(app.demo, "demo/canal-street.csv");
  await expect(page.getByRole("heading", { level: 1 })).toContainText(`(${ladders.willingness.sample.used} of 440)`);
  await page.goto(place("scales"));
  await page.getByRole("button", { name: "Respondents: all respondents" }).click();
  await page.getByText("Grown up").click();
  await expect(page.getByTestId("scale-numbers")).toHaveAttribute("data-outdated", "false");
  await page.goto(place("responses"));
  await page.getByRole("button", { name: "Take Grown up away" }).click();
  await expect(alert(page)).toContainText('names a filter "grown_up" that is not there'); // what is still used is not taken away
});

test("a corrected file is compared before it is taken; further respondents follow; the trail leads back to before both", async ({
  page,
}) => {
  await open(page);
  const text = readFileSync("demo/canal-street.csv", "utf8");
  const age = COLUMNS.indexOf("age");
  const lines = text.trim().split("\n");
  const first = lines[1]!.split(",");
  const [was, now] = [first[age]!, "71"];
  first[age] = now;
  const unique = lines.filter((line, i) => lines.findIndex((other) => other.split(",")[0] === line.split(",")[0]) === i);
  const corrected = [unique[0], first.join(","), ...unique.slice(2)].join("\n");
  await page.getByLabel("File of answers").setInputFiles({ name: "corrected.csv", mimeType: "text/csv", buffer: Buffer.from(corrected) });
  await page.getByLabel("What the file is").click();
  await page.getByText("is a corrected file").click();
  await page.getByLabel("How respondents are matched").click();
  await page.getByText("row by row").click();
  await page.getByRole("button", { name: "Read it and show what would change" }).click();
  await expect(page.getByTestId("differences")).toHaveText("1 cell differs; 0 respondents more, 2 fewer (matched row by row).");
  await expect(page.getByRole("region", { name: "Cells that differ" }).getByRole("row").nth(1)).toHaveText(`1age${was}${now}`);
  await page.getByRole("button", { name: "Take the corrected file" }).click();
  await expect(page.getByRole("heading", { level: 1 })).toContainText("438 respondents");
  await expect(cell(page, 0, age)).toHaveText(now);
  await saved(page);

  await page.getByLabel("File of answers").setInputFiles({
    name: "wave 2.csv",
    mimeType: "text/csv",
    buffer: Buffer.from(`${lines[0]}\n${lines[1]!.replace("L001", "M001")}\n${lines[2]}\n`),
  });
  await page.getByRole("button", { name: "Read it and show what would change" }).click();
  await expect(page.getByText("1 of them has a learner that is there already.")).toBeVisible();
  await page.getByRole("button", { name: "Add these 2 respondents" }).click();
  await expect(page.getByRole("heading", { level: 1 })).toContainText("440 respondents, 36 variables, from corrected.csv + wave 2.csv");
  await saved(page);
  expect((await load(page)).scales).toHaveLength(5);

  await page.getByRole("button", { name: "Trail", exact: true }).click();
  const trail = page.getByRole("list", { name: "Changes, newest first" });
  await expect(trail).toContainText("Responses: from canal-street.csv (440 respondents) to corrected.csv (438 respondents).");
  const step = trail.locator("> li").filter({ hasText: "corrected.csv (438 respondents)." }).last();
  const number = Number(/^(\d+)\./.exec((await step.locator("time").textContent())!)![1]);
  await page.getByRole("button", { name: `Go back to how it stood after change ${number - 1}`, exact: true }).click();
  await expect(trail.locator("> li").first()).toContainText(`Gone back to how the study stood after ${number - 1}`);
  await page.keyboard.press("Escape");
  await expect(cell(page, 0, age)).toHaveText(was);
  await expect(page.getByRole("heading", { level: 1 })).toContainText("from canal-street.csv");
});

import { expect, type Locator, type Page, printed, restingPlace, test, withDemo } from "./house";

const app = withDemo();

const place = (query = "") => `${app.address}/studies/${app.demo}/ladders${query}`;
const full = (value: number, decimals: number) => printed(value, decimals).replace(/^(−?)\./, "$10.");
const button = (page: Page, name: string | RegExp) => page.getByRole("button", { name, exact: typeof name === "string" });
const chip = (page: Page, step: number, name: string) =>
  page.getByTestId(`step-${step}`).getByRole("button", { name }).and(page.locator("[aria-pressed]"));
const chosenBar = (page: Page) => page.getByRole("group", { name: "What to do with the chosen terms" });
const stepBar = (page: Page) => page.getByRole("group", { name: "What to do with the step" });

/** Numbers are those of the ladder as it stands, and it is saved. */
async function settled(page: Page) {
  await expect(page.getByTestId("coefficients")).toHaveAttribute("data-outdated", "false");
  await expect(page.getByRole("status").filter({ hasText: "All changes saved" })).toBeVisible();
}

async function add(page: Page, step: number, ...words: string[]) {
  await button(page, `Add a term to step ${step}`).click();
  for (const word of words) {
    await page.keyboard.type(word);
    await page.keyboard.press("Enter");
  }
  await page.keyboard.press("Escape");
}

async function carry(page: Page, what: Locator, to: Locator) {
  const [from, there] = [await restingPlace(what), await restingPlace(to)];
  await page.mouse.move(from.x + 8, from.y + from.height / 2);
  await page.mouse.down();
  await page.mouse.move(from.x + 20, from.y + 20, { steps: 3 });
  await page.mouse.move(there.x + there.width - 12, there.y + there.height / 2, { steps: 8 });
  await page.mouse.up();
}

/** What the steps show, in order: the names of the chips. */
const chips = (page: Page) =>
  page
    .locator('[data-testid^="step-"]')
    .evaluateAll((rows) =>
      rows.map((row) => [...row.querySelectorAll('[id^="chip "]')].map((c) => c.textContent!.replace(", switched off", " (off)"))),
    );

test("a four-step ladder with a category and a product: every number is the compute command's, and all is there after a restart", async ({
  page,
}) => {
  test.setTimeout(120_000);
  await page.goto(place());
  await button(page, "+ New ladder").click();
  const outcome = button(page, "Outcome: choose an outcome");
  await outcome.click();
  await page.keyboard.type("willing");
  await page.keyboard.press("Enter");
  await add(page, 1, "age", "months");
  await add(page, 2, "class format");
  await button(page, "+ Step").click();
  await button(page, "+ Step").click();
  await button(page, "Step 3").click();
  // a click in the list adds to the step that is selected; carried from the list a variable goes where it is let go
  await button(page, "Speaking confidence: add to step 3").click();
  await carry(page, button(page, "Tutor support: add to step 3"), page.getByTestId("step-3"));
  await chip(page, 3, "Speaking confidence").click();
  await chip(page, 3, "Tutor support").click();
  await button(page, "Multiply Speaking confidence × Tutor support").click();
  await expect
    .poll(() => chips(page))
    .toEqual([
      ["Age", "Months enrolled"],
      ["Class format"],
      ["Speaking confidence", "Tutor support"],
      ["Speaking confidence × Tutor support"],
    ]);
  await button(page, "Coding of Class format: against in person").click();
  await page.keyboard.type("blended");
  await page.keyboard.press("Enter");
  await expect(button(page, "Coding of Class format: against blended")).toBeVisible();
  await settled(page);

  const results = await app.compute(app.demo, "demo/canal-street.csv");
  const ladder = results.ladders.ladder_4;
  expect(ladder.categories.format.reference).toBe("blended");
  const readRise = () =>
    Promise.all(
      [1, 2, 3, 4].map(async (k) => {
        const row = page.getByTestId(`step-${k}`);
        const { model, change } = ladder.steps[k];
        await expect(row).toContainText(`F(${change.df1}, ${change.df2}) = ${full(change.F, 2)}`);
        return [await row.getByTestId("r2").textContent(), printed(model.R2, 3), await row.getByTestId("delta-r2").textContent()];
      }),
    );
  const rise = await readRise();
  rise.forEach(([shown, expected, delta], k) => {
    expect(shown).toBe(expected);
    expect(delta).toBe(printed(ladder.steps[k + 1].change.dR2, 3));
  });
  await button(page, "Adjusted R²").click();
  await expect(page.getByTestId("step-4").getByTestId("adjusted-r2")).toHaveText(printed(ladder.steps[4].model.adjR2, 3));

  // each figure of the coefficients, then the step in full
  const columns = Object.keys(ladder.standardized[4]);
  for (const column of columns) await expect(page.getByTestId(`${column}@4`)).toHaveText(printed(ladder.standardized[4][column].beta, 2));
  await page.getByText("part²", { exact: true }).click();
  for (const column of columns)
    await expect(page.getByTestId(`${column}@4`)).toHaveText(printed(ladder.steps[4].correlations[column].sr2, 3));
  await button(page, "Step 4").click();
  await expect(page.getByTestId("speaks-of")).toHaveText("of step 4");
  await page.getByText("Step 4 in full").click();
  const inFull = page.getByTestId("full speaking_confidence*tutor_support");
  const own = ladder.steps[4];
  const of = "speaking_confidence*tutor_support";
  await expect(inFull.locator('[data-column="r"]')).toHaveText(printed(own.correlations[of].r, 2));
  await expect(inFull.locator('[data-column="partial"]')).toHaveText(printed(own.correlations[of].partial, 2));
  await expect(inFull.locator('[data-column="tolerance"]')).toHaveText(printed(own.collinearity.columns[of].tolerance, 2));
  const joint = own.terms.format;
  await expect(page.getByTestId("joint format")).toContainText(`F(${joint.df1}, ${joint.df2}) = ${full(joint.F, 2)}`);
  await expect(page.getByTestId("anova")).toContainText(full(own.model.ss_residual, 2));
  await expect(page.getByTestId("equation")).toContainText(`Predicted Willingness to speak = ${full(own.coef["(Intercept)"].b, 2)}`);

  // columns that are taken away stay away; the address brings back what was open
  await page.getByRole("group", { name: "Columns" }).getByRole("button", { name: "VIF" }).click();
  await page.reload();
  await expect(button(page, "Step 4")).toHaveAttribute("aria-pressed", "true");
  await page.getByText("Step 4 in full").click();
  await expect(page.getByRole("columnheader", { name: "VIF" })).toHaveCount(0);
  await expect(page.getByRole("columnheader", { name: "tol." })).toHaveCount(1);

  // one action copies it to the second outcome
  await button(page, "Copy to another outcome: Copy to another outcome").click();
  await page.keyboard.type("oral");
  await page.keyboard.press("Enter");
  await expect(button(page, "Outcome: Oral exam")).toBeVisible();
  await expect(button(page, "Coding of Class format: against blended")).toBeVisible();
  await settled(page);
  const copy = (await app.compute(app.demo, "demo/canal-street.csv")).ladders.oral_exam;
  await expect(page.getByTestId("step-4").getByTestId("r2")).toHaveText(printed(copy.steps[4].model.R2, 3));

  await app.stop();
  await app.start();
  await page.goto(place("?ladder=ladder_4"));
  await settled(page);
  expect(await readRise()).toEqual(rise);
  await expect(button(page, "Coding of Class format: against blended")).toBeVisible();
});

test("opened again, a ladder's numbers are in the page before any of its scripts run; where something has changed, none of before are", async ({
  page,
  context,
  browser,
}) => {
  const complaints: string[] = [];
  page.on("console", (message) => message.type() === "error" && complaints.push(message.text()));
  const scriptless = await browser.newContext({ javaScriptEnabled: false, storageState: await context.storageState() });
  const bare = await scriptless.newPage();
  /** How many tables of numbers the server has drawn. */
  const drawn = async (query = "") => {
    await bare.goto(place(query));
    await expect(button(bare, /^Outcome: /)).toBeVisible();
    return bare.getByTestId("over-steps").count();
  };
  expect(await drawn()).toBe(0); // nobody has looked at this study yet
  await page.goto(place());
  await settled(page);
  await expect.poll(() => drawn()).toBe(1);
  const numbers = async (of: Page, [ladder]: any[]) => {
    for (const [column, { beta }] of Object.entries<any>(ladder.standardized[3]))
      await expect(of.getByTestId(`${column}@3`)).toHaveText(printed(beta, 2));
    for (const step of [1, 2, 3]) {
      await expect(of.getByTestId(`step-${step}`).getByTestId("r2")).toHaveText(printed(ladder.steps[step].model.R2, 3));
      await expect(of.getByTestId(`step-${step}`).getByTestId("delta-r2")).toHaveText(printed(ladder.steps[step].change.dR2, 3));
    }
  };
  const computed = async () => Object.values((await app.compute(app.demo, "demo/canal-street.csv")).ladders);
  await numbers(bare, await computed());
  expect(await drawn("?ladder=exam")).toBe(0);

  // they are the same once the scripts run, and followed by those of what is changed
  await page.reload();
  await button(page, "Remove Age from step 1").click();
  await expect(page.getByTestId("age@1")).toBeHidden();
  await settled(page);
  expect(complaints).toEqual([]);
  await page.goto("about:blank"); // nobody keeps anything now

  const { study, revision } = (await (await app.ask(`/api/studies/${app.demo}`)).json()) as any;
  const to = { ...study.ladders[0], outcome: "oral_exam" };
  const body = JSON.stringify({ revision, edits: [{ subject: "ladder", id: to.id, to }] });
  await app.ask(`/api/studies/${app.demo}/edits`, { method: "POST", headers: { "content-type": "application/json" }, body });
  expect(await drawn()).toBe(0);
  await page.goto(place());
  await settled(page);
  await expect.poll(() => drawn()).toBe(1);
  await numbers(bare, await computed());
  await scriptless.close();
});

test("a main effect dropped from beside its product is watched and brought back; switching off keeps the respondents", async ({ page }) => {
  await page.goto(place("?ladder=willingness"));
  await settled(page);
  const before = await page.getByTestId("step-3").getByTestId("r2").textContent();
  await button(page, "Remove Tutor support from step 2").click();
  await expect(page.getByText("Step 3 holds Speaking confidence × Tutor support without Tutor support.")).toBeVisible();
  await button(page, "Add Tutor support to step 3").click();
  await expect(page.getByText("Step 3 holds Speaking confidence × Tutor support without Tutor support.")).toBeHidden();
  await expect(page.getByTestId("step-3").getByTestId("r2")).toHaveText(before!);
  await button(page, "Take the last change back").click();
  await button(page, "Take the last change back").click();
  await expect
    .poll(() => chips(page))
    .toEqual([["Age", "Months enrolled"], ["Speaking confidence", "Tutor support"], ["Speaking confidence × Tutor support"]]);

  await chip(page, 1, "Months enrolled").click();
  await chosenBar(page).getByRole("button", { name: "Switch off" }).click();
  await expect(page.getByTestId("months_enrolled@1")).toHaveCount(0);
  await expect(page.getByRole("heading", { level: 1 })).toContainText("(430 of 440)");
  await expect(page.getByText("Switched off: Months enrolled.")).toBeVisible();
  const off = (await (await settled(page), app.compute(app.demo, "demo/canal-street.csv"))).ladders.willingness;
  expect([off.settings.steps[0], off.sample.used]).toEqual([["age"], 430]);
  await expect(page.getByTestId("step-1").getByTestId("r2")).toHaveText(printed(off.steps[1].model.R2, 3));
  // a step copied is another version of it, and switched on it takes the place of the first
  await button(page, "Step 2").click();
  await stepBar(page).getByRole("button", { name: "Copy" }).click();
  await expect(page.getByTestId("step-3")).toContainText("switched off");
  await button(page, "Remove Tutor support from step 3").click();
  await button(page, "Switch step 3 on").click();
  await expect
    .poll(() => chips(page))
    .toEqual([
      ["Age", "Months enrolled (off)"],
      ["Speaking confidence (off)", "Tutor support"],
      ["Speaking confidence"],
      ["Speaking confidence × Tutor support"],
    ]);
  for (let k = 0; k < 4; k++) await button(page, "Take the last change back").click();
  await expect(page.getByTestId("step-3").getByTestId("r2")).toHaveText(before!);
});

test("terms and steps are moved with the pointer and with keys alone; what moved keeps the focus", async ({ page }) => {
  await page.goto(place("?ladder=exam"));
  await settled(page);
  await carry(page, chip(page, 1, "Age"), page.getByTestId("step-2"));
  await expect
    .poll(() => chips(page))
    .toEqual([["Months enrolled"], ["Speaking confidence", "Tutor support", "Age"], ["Speaking confidence × Tutor support"]]);
  await chip(page, 2, "Age").focus();
  await page.keyboard.press("Shift+ArrowLeft");
  await expect.poll(async () => (await chips(page))[1]).toEqual(["Speaking confidence", "Age", "Tutor support"]);
  await page.keyboard.press("Shift+ArrowUp");
  await expect(chip(page, 1, "Age")).toBeFocused();
  await expect.poll(async () => (await chips(page))[0]).toEqual(["Months enrolled", "Age"]);
  await carry(page, button(page, "Step 3"), page.getByTestId("step-1"));
  await expect.poll(async () => (await chips(page)).map((names) => names.length)).toEqual([1, 2, 2]);
  await button(page, "Step 1").focus();
  await page.keyboard.press("Shift+ArrowDown");
  await page.keyboard.press("Shift+ArrowDown");
  await expect(button(page, "Step 3")).toBeFocused();
  await expect
    .poll(() => chips(page))
    .toEqual([["Months enrolled", "Age"], ["Speaking confidence", "Tutor support"], ["Speaking confidence × Tutor support"]]);
  // arrow keys go through the numbers, and each is read as a sentence
  await settled(page);
  await page.getByTestId("age@1").getByRole("button").focus();
  await page.keyboard.press("ArrowRight");
  await expect(page.getByTestId("age@2").getByRole("button")).toBeFocused();
  await expect(page.getByTestId("reading")).toHaveText(/^One SD more of Age goes with .* Oral exam, the others held constant\.$/);
  await button(page, "Metric: z-scores (β)").click();
  await page.keyboard.type("raw");
  await page.keyboard.press("Enter");
  await page.getByTestId("months_enrolled@1").hover();
  await expect(page.getByTestId("reading")).toHaveText(
    /^One more month of Months enrolled goes with .* points higher Oral exam, the others held constant\.$/,
  );
});

test("ladders side by side are refused on different respondents, and compared on the common ones", async ({ page }) => {
  await page.goto(place("?ladder=willingness"));
  await settled(page);
  await button(page, "Set side by side").click();
  await page.getByRole("checkbox", { name: "Set Does correcting others add? beside others" }).click();
  await button(page, "Set 2 side by side").click();
  await expect(page.getByTestId("refusal")).toContainText("are fitted on different respondents (430 and 435)");
  await button(page, "Fit all on the common sample").click();
  await expect(page.getByTestId("side-by-side")).toHaveAttribute("data-outdated", "false");
  await expect(page.getByRole("status").filter({ hasText: "All changes saved" })).toBeVisible();
  const results = await app.compute(app.demo, "demo/canal-street.csv");
  const { models, sample } = results.comparisons.side_by_side;
  const [first, second] = ["Willingness to speak", "Does correcting others add?"].map((name) => models[name]);
  await expect(page.getByTestId("N willingness")).toHaveText(String(sample.used));
  await expect(page.getByTestId("AIC willingness")).toHaveText(full(first.AIC, 2));
  await expect(page.getByTestId("dAIC correcting")).toHaveText(full(second.AIC - Math.min(first.AIC, second.AIC), 2));
  await expect(page.getByTestId("adjusted correcting")).toHaveText(printed(second.adjR2, 3));
  // a smaller model inside a larger one: what it adds has a test
  await button(page, "Step of Does correcting others add?: step 2").click();
  await page.keyboard.type("step 1");
  await page.keyboard.press("Enter");
  await expect(page.getByText(/^Willingness to speak holds all of Does correcting others add\? and adds/)).toBeVisible();
  await button(page, "Put this side-by-side away").click();
  await expect(page.getByTestId("coefficients")).toBeVisible();
});

test("predicted values are saved back and go into another analysis", async ({ page }) => {
  await page.goto(place("?ladder=willingness"));
  await settled(page);
  await button(page, "predicted value").click();
  await expect(page.getByText("Saved as willingness_to_speak_predicted")).toBeVisible();
  await settled(page);
  const saved = (await app.compute(app.demo, "demo/canal-street.csv")).variables.willingness_to_speak_predicted;
  expect(saved.n).toBe(430);
  await page.getByRole("link", { name: "See it in Responses" }).click();
  await expect(page.getByText("predicted value of Willingness to speak, step 3, as the ladder stood then.")).toBeVisible();
  await page.goto(place());
  await button(page, "+ New ladder").click();
  await button(page, "Outcome: choose an outcome").click();
  await page.keyboard.type("willing");
  await page.keyboard.press("Enter");
  await add(page, 1, "predicted value");
  await expect(page.getByTestId("step-1").getByTestId("r2")).toHaveText(
    printed((await app.compute(app.demo, "demo/canal-street.csv")).ladders.willingness.steps[3].model.R2, 3),
  );
});

test("intervals by bootstrap: the compute command's for the same seed, of this ladder only; two β are compared on their difference", async ({
  page,
}) => {
  const kept: string[] = [];
  page.on("response", (r) => r.url().includes("/kept") && kept.push(`${r.request().method()} ${r.status()}`));
  await page.goto(place("?ladder=willingness"));
  await settled(page);
  const cell = (column: string) => page.getByTestId(`${column}@3`).locator("xpath=following-sibling::td[2]");
  const normal = await cell("speaking_confidence*tutor_support").textContent();
  await button(page, "Intervals by: normal theory").click();
  await page.keyboard.type("BCa");
  await page.keyboard.press("Enter");
  await expect(page.getByTestId("replicates")).toHaveAttribute("data-done", "true");
  await expect(page.getByTestId("replicates")).toHaveText("Intervals from 5 000 replicates.");
  await settled(page);
  const { bootstrap } = (await app.compute(app.demo, "demo/canal-street.csv")).ladders.willingness;
  expect([bootstrap.by, bootstrap.replicates, bootstrap.units]).toEqual(["bca", 5000, 430]);
  const between = (d: { lower: number; upper: number }, decimals: number) =>
    `[${printed(d.lower, decimals)}, ${printed(d.upper, decimals)}]`;
  for (const column of ["age", "speaking_confidence", "tutor_support", "speaking_confidence*tutor_support"])
    await expect(cell(column)).toHaveText(between(bootstrap.intervals[`step3.beta.${column}`], 2));
  await expect(page.getByTestId("step-3").getByRole("img")).toHaveAccessibleName(
    new RegExp(between(bootstrap.intervals["step3.dR2"], 3).replace(/[[\].]/g, "\\$&")),
  );
  await page.getByText("part", { exact: true }).last().click();
  await expect(cell("tutor_support")).toHaveText(between(bootstrap.intervals["step3.part.tutor_support"], 2));

  // is one β larger than another?
  const difference = bootstrap.beta_differences["speaking_confidence - tutor_support"];
  await page.getByRole("button", { name: /^One β: / }).click();
  await page.keyboard.type("Speaking confidence");
  await page.keyboard.press("Enter");
  await page.getByRole("button", { name: /^The other β: / }).click();
  await page.keyboard.type("Tutor support");
  await page.keyboard.press("Enter");
  await expect(page.getByTestId("beta-difference").getByRole("row").last()).toContainText(printed(difference.estimate, 2));
  await expect(page.getByTestId("beta-difference").getByRole("row").last()).toContainText(between(difference, 2));
  const picture = page.getByRole("figure", { name: "Replicates of β of Speaking confidence × Tutor support, step 3" });
  await expect(picture.getByRole("img")).toHaveAccessibleName(/limits at \.12 and \.26$/);
  await page.getByRole("button", { name: "All 10 pairs" }).click();
  await expect(page.getByTestId("all-differences").getByRole("row")).toHaveCount(11);

  // another seed gives other replicates; another ladder knows nothing of it
  await button(page, "Seed: 1").click();
  await page.getByRole("textbox", { name: "Seed" }).fill("2");
  await page.keyboard.press("Enter");
  await expect(page.getByTestId("replicates")).toHaveAttribute("data-done", "true");
  await expect(page.getByText(/resamples of 430 respondents, seed 2;/)).toBeVisible();
  await expect(cell("tutor_support")).toHaveText(/^\[.*\]$/); // the old ones are gone before the new ones come
  await expect(page.getByTestId("replicates")).toHaveAttribute("data-done", "true");
  const shown = await cell("tutor_support").textContent();

  // opened again they are there at once: kept with the study, nothing is drawn anew
  await settled(page);
  await expect.poll(() => kept.filter((what) => what === "PUT 204").length).toBe(2); // those of the first seed, and of the second
  kept.length = 0;
  await page.reload();
  await expect(page.getByTestId("replicates")).toHaveText("Intervals from 5 000 replicates.");
  await page.getByText("part", { exact: true }).last().click();
  await expect(cell("tutor_support")).toHaveText(shown!);
  expect(kept).toEqual(["GET 200"]);
  await button(page, /^Oral exam.*3 steps/).click();
  await expect(button(page, "Intervals by: normal theory")).toBeVisible();
  await button(page, /^Willingness to speak.*3 steps/).click();
  await button(page, "Intervals by: BCa bootstrap").click();
  await page.keyboard.type("normal");
  await page.keyboard.press("Enter");
  await expect(page.getByTestId("replicates")).toHaveCount(0);
  await page.getByText("β", { exact: true }).first().click();
  await expect(cell("speaking_confidence*tutor_support")).toHaveText(normal!);
});

test("replicates that take long tell how far they are, and can be stopped and gone on with; the ladder stays as it is", async ({
  page,
}) => {
  await page.goto(place("?ladder=exam"));
  await settled(page);
  // a product without one of its parts is another model once it is centred anew: each resample is fitted by itself
  await button(page, "Remove Speaking confidence from step 2").click();
  await settled(page);
  const table = page.getByTestId("coefficients").getByRole("table").first();
  const before = await table.textContent();
  await button(page, "Intervals by: normal theory").click();
  await page.keyboard.type("percentile");
  await page.keyboard.press("Enter");
  const line = page.getByTestId("replicates");
  await expect(line).toContainText(/of 5.000 replicates/);
  await expect(line.getByRole("progressbar")).toBeVisible();
  await expect(line).toContainText(/about \d+ s left/, { timeout: 30_000 });
  // the page answers meanwhile: a first look at every interval, and a word of the sentence opens
  await expect(page.getByTestId("tutor_support@2").locator("xpath=following-sibling::td[2]")).toHaveText(/^\[/, { timeout: 30_000 });
  await line.getByRole("button", { name: "Stop" }).click();
  await expect(line).toContainText("Stopped: intervals from 500 of 5 000 replicates.");
  await line.getByRole("button", { name: "Draw all" }).click();
  await expect(line.getByRole("button", { name: "Stop" })).toBeVisible();
  await button(page, "Intervals by: percentile bootstrap").click();
  await page.keyboard.type("normal");
  await page.keyboard.press("Enter");
  await expect(line).toHaveCount(0);
  await settled(page);
  await expect(table).toHaveText(before!);
});

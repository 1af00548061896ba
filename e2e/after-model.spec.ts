import { expect, printed, restingPlace, test, withDemo } from "./house";

const app = withDemo();
const computed = () => app.compute(app.demo, "demo/canal-street.csv");

test("how much each term explains, in whatever order: shares are the compute command's, beyond controls, undone", async ({ page }) => {
  await page.goto(`${app.address}/studies/${app.demo}/ladders`);
  await page.getByRole("button", { name: "How much does each term explain?" }).click();
  const probe = page.getByRole("article", { name: /^Probe: importance in step 3/ });
  await expect(probe.getByRole("list", { name: "What it says" })).toContainText("a product only after its parts");
  await probe.getByRole("button", { name: "Controls: nothing" }).click();
  await page.keyboard.type("step 1");
  await page.keyboard.press("Enter");
  await expect(probe.getByRole("list", { name: "What it says" })).toContainText("beyond the controls");
  await probe.getByRole("button", { name: "As a table" }).click();
  await expect(page.getByRole("status").filter({ hasText: "All changes saved" })).toBeVisible();
  const { importances } = await computed();
  const [told] = Object.values<any>(importances);
  const row = (name: string) => probe.getByRole("row").filter({ has: page.getByRole("rowheader", { name, exact: true }) });
  await expect(row("Speaking confidence").getByRole("cell").first()).toHaveText(printed(told.share.speaking_confidence, 3));
  await expect(row("Speaking confidence × Tutor support").getByRole("cell").first()).toHaveText(
    printed(told.share["speaking_confidence*tutor_support"], 3),
  );
  expect(told.sum).toBeCloseTo(
    Object.values<number>(told.share).reduce((a, b) => a + b, 0),
    12,
  );
  await page.keyboard.press("Control+z");
  await page.keyboard.press("Control+z");
  await expect(probe).toBeHidden();
});

test("a search is marked exploratory, so is the ladder made from it, its copy and its saved table; sizes are the compute command's", async ({
  page,
}) => {
  await page.goto(`${app.address}/studies/${app.demo}/ladders`);
  await page.getByRole("button", { name: "Step 1", exact: true }).click();
  await page.getByRole("button", { name: "Which further predictors would a search choose?" }).click();
  const probe = page.getByRole("article", { name: /^Probe: search for predictors/ });
  await expect(probe.getByRole("list", { name: "What it says" })).toContainText("Confirm it with other respondents");
  await probe.getByRole("button", { name: "Method: lasso" }).click();
  await page.keyboard.type("stepwise by aic");
  await page.keyboard.press("Enter");
  await expect(probe.getByRole("list", { name: "What it says" })).toContainText("By stepwise by AIC");
  await probe.getByRole("button", { name: "As a table" }).click();
  await expect(page.getByRole("status").filter({ hasText: "All changes saved" })).toBeVisible();
  const { searches } = await computed();
  const [told] = Object.values<any>(searches);
  const row = (method: string, size: number) =>
    probe.getByTestId("search").locator("tbody").filter({ has: page.getByRole("rowheader", { name: method, exact: true }) }).getByRole("row").filter({ has: page.getByRole("rowheader", { name: String(size), exact: true }) }); // prettier-ignore
  for (const [method, key] of [
    ["stepwise by AIC", "stepwise_aic"],
    ["lasso", "lasso"],
    ["least angle", "least_angle"],
  ] as const) {
    // prettier-ignore
    const one = told.by_size[key]["1"];
    for (const [k, value] of [one.R2, one.refit_R2, one.refit_adjR2, one.held_out_R2].entries())
      await expect(row(method, 1).getByRole("cell").nth(k)).toHaveText(printed(value, 3).replace("-", "−"));
  }
  await expect(probe.getByRole("list", { name: "What it says" })).toContainText(printed(told.stepwise_aic.moves[String(Object.keys(told.stepwise_aic.moves).length)].R2, 3)); // prettier-ignore
  await probe.getByRole("button", { name: /as a ladder, exploratory$/ }).click();
  await expect(page.getByTestId("exploratory")).toContainText(/chosen by a search among \d+ candidates \(stepwise by AIC\)/);
  await expect(page.getByTestId("step-2").getByTestId("r2")).toHaveText(printed(told.chosen.refit_R2, 3));
  const [file] = await Promise.all([
    page.waitForEvent("download"),
    page.getByRole("button", { name: "HTML", exact: true }).first().click(),
  ]);
  const { readFileSync } = await import("node:fs");
  expect(readFileSync(await file.path(), "utf8")).toContain("Exploratory: chosen by a search among");
  // a probe of it says so as well, in what it saves; on respondents of whom none chose it, it is no more
  await page.getByRole("button", { name: "How much does each term explain?" }).click();
  const importance = page.getByRole("article", { name: /^Probe: importance/ });
  const [saved] = await Promise.all([page.waitForEvent("download"), importance.getByRole("button", { name: "CSV", exact: true }).click()]);
  expect(readFileSync(await saved.path(), "utf8").split("\r\n")[1]).toMatch(/chosen by a search among \d+ candidates/);
});

test("the rule of a search is moved by keys and pointer, recorded and taken back; how often each comes out is drawn, stopped or not, as the compute command has it", async ({
  page,
}) => {
  await page.goto(`${app.address}/studies/${app.demo}/ladders`);
  await page.getByRole("button", { name: "Step 1", exact: true }).click();
  await page.getByRole("button", { name: "Which further predictors would a search choose?" }).click();
  const probe = page.getByRole("article", { name: /^Probe: search for predictors/ });
  const rule = probe.getByRole("slider", { name: "Columns that are taken" });
  const own = Number(await rule.getAttribute("aria-valuenow"));
  await rule.focus();
  await page.keyboard.press("ArrowRight");
  await expect(probe.getByRole("button", { name: /^Size:/ })).toHaveText(`at most ${own + 1} columns`);
  await rule.focus();
  const box = await restingPlace(rule);
  await page.mouse.move(box.x + box.width / 2, box.y + 60);
  await page.mouse.down();
  await page.mouse.move(box.x - 200, box.y + 60, { steps: 4 });
  await page.mouse.up();
  await expect(probe.getByRole("button", { name: /^Size:/ })).not.toHaveText(`at most ${own + 1} columns`);
  await page.keyboard.press("Control+z");
  await page.keyboard.press("Control+z");
  await expect(rule).toHaveAttribute("aria-valuenow", String(own));
  await probe.getByRole("button", { name: /Draw 200 samples/ }).click();
  await expect(probe.getByTestId("stability-state")).toContainText("200 samples drawn");
  await expect(page.getByRole("status").filter({ hasText: "All changes saved" })).toBeVisible();
  const { searches } = await computed();
  const [told] = Object.values<any>(searches);
  const rows = probe.getByTestId("stability").getByRole("row");
  const counts = Object.values<number>(told.stability.times).sort((a, b) => b - a);
  await expect(rows).toHaveCount(counts.length + 1);
  for (const [k, count] of counts.entries())
    await expect(
      rows
        .nth(k + 1)
        .getByRole("cell")
        .first(),
    ).toHaveText(String(count));
});

test("why a coefficient changed: what newcomers take is the compute command's, the predictor is a word of its sentence, undone", async ({
  page,
}) => {
  await page.goto(`${app.address}/studies/${app.demo}/ladders`);
  await page.getByRole("button", { name: "Step 2", exact: true }).click();
  await page.getByRole("button", { name: "Coefficient that changed: a predictor" }).click();
  await page.keyboard.type("Months");
  await page.keyboard.press("Enter");
  const probe = page.getByRole("article", { name: /^Probe: why/ });
  await expect(probe.getByRole("list", { name: "What it says" })).toContainText("no more than its standard error");
  await probe.getByRole("button", { name: "As a table" }).click();
  await expect(page.getByRole("status").filter({ hasText: "All changes saved" })).toBeVisible();
  const { shifts } = await computed();
  const [told] = Object.values<any>(shifts);
  const row = (name: string) =>
    probe
      .getByTestId("shift")
      .getByRole("row")
      .filter({ has: page.getByRole("rowheader", { name, exact: true }) });
  await expect(row("Speaking confidence").getByRole("cell").first()).toHaveText(
    printed(told.taken_beta.speaking_confidence, 2).replace("-", "−"),
  );
  await expect(row("Change").getByRole("cell").first()).toHaveText(printed(told.before.beta - told.after.beta, 2).replace("-", "−"));
  await probe.getByRole("button", { name: "Predictor: Months enrolled" }).click();
  await page.keyboard.type("Age");
  await page.keyboard.press("Enter");
  await expect(page.getByRole("article", { name: /^Probe: why Age/ })).toBeVisible();
  await page.keyboard.press("Control+z");
  await page.keyboard.press("Control+z");
  await expect(page.getByRole("article", { name: /^Probe: why/ })).toBeHidden();
});

test("what each term adds: clouds on equal axes, two rivals with the compute command's slopes, a bend taken up as a recorded square", async ({
  page,
}) => {
  await page.goto(`${app.address}/studies/${app.demo}/ladders`);
  await page.getByRole("button", { name: "Step 2", exact: true }).click();
  await page.getByRole("button", { name: "What does each term add beside all others?" }).click();
  const probe = page.getByRole("article", { name: /^Probe: what each term/ });
  await expect(probe.getByRole("img")).toHaveCount(4);
  await probe.getByRole("button", { name: "Which terms: every term" }).click();
  await page.keyboard.type("Speaking");
  await page.keyboard.press("Enter");
  await probe.getByRole("button", { name: /^Its rival/ }).click();
  await page.keyboard.type("Tutor");
  await page.keyboard.press("Enter");
  await expect(probe.getByRole("img")).toHaveCount(2);
  await probe.getByRole("button", { name: "As a table" }).click();
  await expect(page.getByRole("status").filter({ hasText: "All changes saved" })).toBeVisible();
  const { added } = await computed();
  const [told] = Object.values<any>(added);
  const row = (name: string) =>
    probe
      .getByTestId("added")
      .getByRole("row")
      .filter({ has: page.getByRole("rowheader", { name, exact: true }) });
  for (const [name, key] of [
    ["Speaking confidence", "speaking_confidence"],
    ["Tutor support", "tutor_support"],
  ] as const) {
    // prettier-ignore
    await expect(row(name).getByRole("cell").nth(1)).toHaveText(printed(told.columns[key].slope_in_sd, 2));
    await expect(row(name).getByRole("cell").nth(2)).toHaveText(printed(told.columns[key].partial, 2));
  }
  await probe.getByRole("button", { name: "Add Speaking confidence squared as a further step" }).click();
  await expect(page.getByTestId("step-4")).toContainText("Speaking confidence");
  await page.keyboard.press("Control+z");
  await expect(page.getByTestId("step-4")).toBeHidden();
});

test("intervals of importance are drawn and are the compute command's; a whole step may enter as one", async ({ page }) => {
  await page.goto(`${app.address}/studies/${app.demo}/ladders`);
  await page.getByRole("button", { name: "How much does each term explain?" }).click();
  const probe = page.getByRole("article", { name: /^Probe: importance/ });
  await probe.getByRole("button", { name: "What enters as one: term" }).click();
  await page.keyboard.type("step");
  await page.keyboard.press("Enter");
  await probe.getByRole("button", { name: /Intervals from 1.000 samples/ }).click();
  await expect(probe.getByTestId("importance-state")).toContainText(/1.000 samples, seed 1/);
  await probe.getByRole("button", { name: "As a table" }).click();
  await expect(page.getByRole("status").filter({ hasText: "All changes saved" })).toBeVisible();
  const { importances } = await computed();
  const [told] = Object.values<any>(importances);
  const { lower, upper } = told.bootstrap.intervals["step 2"];
  const row = probe
    .getByTestId("importance")
    .getByRole("row")
    .filter({ has: page.getByRole("rowheader", { name: /^Step 2/ }) });
  await expect(row.getByRole("cell").first()).toHaveText(printed(told.share["step 2"], 3));
  await expect(row.getByRole("cell").nth(1)).toHaveText(`[${printed(lower, 3)}, ${printed(upper, 3)}]`);
});

test("steps of a ladder side by side: respondents held out, what predictions differ by, as the compute command has them", async ({
  page,
}) => {
  await page.goto(`${app.address}/studies/${app.demo}/ladders`);
  await page.getByRole("button", { name: "How does it compare with the steps before?" }).click();
  await expect(page.getByTestId("side-by-side")).toHaveAttribute("data-outdated", "false");
  await expect(page.getByRole("status").filter({ hasText: "All changes saved" })).toBeVisible();
  const { comparisons } = await computed();
  const told = Object.values<any>(comparisons).at(-1);
  const names = told.settings.models.map((m: { name: string }) => m.name);
  const held = page.getByTestId("fit-beside").getByRole("row").filter({ has: page.getByRole("rowheader", { name: "Error of respondents held out" }) }); // prettier-ignore
  for (const [k, name] of names.entries()) await expect(held.getByRole("cell").nth(k)).toHaveText(told.cross_validation[name].toFixed(2));
  const pair = told.pairs[`${names[0]} over ${names[1]}`];
  const first = page.getByRole("figure", { name: `${names[0]} less ${names[1]}` });
  await first.getByRole("button", { name: "As a table" }).click();
  await expect(first.getByRole("row", { name: /^size/ }).getByRole("cell").nth(3)).toHaveText(pair.prediction_difference_absolute.mean.toFixed(2)); // prettier-ignore
  await expect(page.getByRole("link", { name: `row ${pair.differ_most[0].row}`, exact: true }).first()).toBeVisible();
});

test("residuals: pictures, tests equal to the compute command's, along another variable, and the respondents who stand out", async ({
  page,
}) => {
  await page.goto(`${app.address}/studies/${app.demo}/ladders`);
  await page.getByRole("button", { name: "Can the residuals be trusted?" }).click();
  const probe = page.getByRole("article", { name: /^Probe: residuals of step 3/ });
  const said = probe.getByRole("list", { name: "What it says" });
  await expect(said.getByRole("listitem").first()).toHaveText(
    /Nothing here changes what you may conclude\.|What you may conclude is touched by/,
  );
  await expect(probe.getByRole("img")).toHaveCount(5);
  await expect(page.getByRole("status").filter({ hasText: "All changes saved" })).toBeVisible();
  const document = await computed();
  const [told] = Object.values<any>(document.residuals);
  expect(told.tests.breusch_pagan_koenker).toEqual(document.ladders.willingness.tests.breusch_pagan_koenker);
  expect(told.tests.reset).toEqual(document.ladders.willingness.tests.reset);
  await expect(said).toContainText(`the largest Cook’s distance is ${told.cooks_d.largest.toFixed(2)}`);
  // the pictures share their respondents: one lit by its row in the table is lit in all
  await probe.getByRole("button", { name: "As a table" }).click();
  const first = probe.getByTestId("residuals").getByRole("button").first();
  const row = await first.textContent();
  const { cooks_d, studentized } = document.ladders.willingness.influence;
  const at = document.ladders.willingness.sample.rows_used.indexOf(Number(row));
  expect(cooks_d[at]).toBe(Math.max(...cooks_d));
  await expect(probe.getByTestId("residuals").getByRole("row").nth(1).getByRole("cell").nth(1)).toHaveText(
    studentized[at].toFixed(2).replace("-", "−"),
  );
  await probe.getByRole("button", { name: "Seen along: the prediction" }).click();
  await page.keyboard.type("age");
  await page.keyboard.press("Enter");
  await expect(probe.getByRole("button", { name: "Seen along: Age" })).toBeVisible();
  await probe.getByRole("link", { name: /^Look at \d+ respondents who stand out$/ }).click();
  await expect(page).toHaveURL(/responses\?rows=\d+/);
});

test("what if they were not in: with and without side by side, and left out of the ladder with a reason, taken back as one", async ({
  page,
}) => {
  await page.goto(`${app.address}/studies/${app.demo}/ladders`);
  await page.getByRole("button", { name: "Can the residuals be trusted?" }).click();
  const part = page.getByRole("region", { name: "What if they were not in" });
  const n = part.getByTestId("without").getByRole("row", { name: /^n / }).getByRole("cell");
  await expect(n.first()).toBeVisible();
  await expect(page.getByRole("status").filter({ hasText: "All changes saved" })).toBeVisible();
  const document = await computed();
  const [{ without }] = Object.values<any>(document.residuals);
  const [all, , fewer] = await n.allTextContents();
  expect([Number(all), Number(fewer)]).toEqual([without.step.with.n, without.step.without.n]);
  expect(Number(all) - Number(fewer)).toBe(without.rows.length);
  await part.getByRole("button", { name: "Leave them out, with a reason" }).click();
  await page.keyboard.type("The same home twice");
  await page.keyboard.press("Enter");
  await expect(n.first()).toHaveText(fewer!);
  const before = document.ladders.willingness.steps["3"].coef;
  await expect(page.getByRole("status").filter({ hasText: "All changes saved" })).toBeVisible();
  const after = await computed();
  expect(after.ladders.willingness.sample.used).toBe(without.step.without.n);
  for (const column of Object.keys(before)) {
    const told = without.coef[column];
    if (told) expect(after.ladders.willingness.steps["3"].coef[column].b).toBeCloseTo(told.without.b, 12);
  }
  await page.keyboard.press("Control+z");
  await expect(n.first()).toHaveText(all!);
});

test("who moves one coefficient most, and what it would be without them, along a category, as the compute command has it", async ({
  page,
}) => {
  await page.goto(`${app.address}/studies/${app.demo}/ladders`);
  await page.getByRole("button", { name: "Can the residuals be trusted?" }).click();
  const probe = page.getByRole("article", { name: /^Probe: residuals of step 3/ });
  await probe.getByRole("button", { name: /^Whose leaving/ }).click();
  await page.keyboard.type("coefficient of Tutor");
  await page.keyboard.press("Enter");
  const part = page.getByRole("region", { name: "What if they were not in" });
  await expect(part).toContainText("who move b of Tutor support by more than 2/√n");
  await probe.getByRole("button", { name: /^Seen along/ }).click();
  await page.keyboard.type("Class format");
  await page.keyboard.press("Enter");
  await expect(probe.getByRole("list", { name: "What it says" })).toContainText("Level by level");
  await expect(page.getByRole("status").filter({ hasText: "All changes saved" })).toBeVisible();
  const [{ without, by_level: levels }] = Object.values<any>((await computed()).residuals);
  await expect(part.getByRole("link", { name: `row ${without.movers[0].row}`, exact: true }).first()).toBeVisible();
  const row = part
    .getByTestId("without")
    .getByRole("row")
    .filter({ has: page.getByRole("rowheader", { name: "Tutor support", exact: true }) });
  await expect(row.getByRole("cell").nth(2)).toHaveText(printed(without.coef.tutor_support.without.beta, 2));
  expect(Object.values<any>(levels).reduce((sum, one) => sum + one.n, 0)).toBe(without.step.with.n);
});

import { expect, printed, test, withDemo } from "./house";

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
  const sizes = probe.getByTestId("search").getByRole("row");
  const first = sizes.filter({ has: page.getByRole("rowheader", { name: "1", exact: true }) });
  await expect(first.getByRole("cell").nth(1)).toHaveText(printed(told.by_size.stepwise_aic["1"].refit_R2, 3));
  await expect(first.getByRole("cell").nth(6)).toHaveText(printed(told.by_size.lasso["1"].refit_R2, 3));
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
  await expect(probe.getByRole("img")).toHaveCount(4);
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

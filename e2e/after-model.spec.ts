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

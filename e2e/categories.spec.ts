import { expect, printed, test, withDemo } from "./house";

const app = withDemo();

test("a category and its product enter a ladder, tested with HC3: the page shows what the compute command computes", async ({ page }) => {
  await page.goto(`${app.address}/studies/${app.demo}/ladders`);
  const addTo = async (step: number, word: string) => {
    await page.getByRole("button", { name: `Add a term to step ${step}` }).click();
    await page.keyboard.type(word);
    await page.keyboard.press("Enter");
    await page.keyboard.press("Escape");
  };
  await addTo(2, "class format");
  await addTo(3, "speaking confidence × class format");
  await page.getByRole("button", { name: "Errors: classical" }).click();
  await page.keyboard.type("HC3");
  await page.keyboard.press("Enter");
  await expect(page.getByRole("button", { name: "Errors: HC3" })).toBeVisible();
  await expect(page.getByRole("status").filter({ hasText: "All changes saved" })).toBeVisible();

  const ladder = (await app.compute(app.demo, "demo/canal-street.csv")).ladders.willingness;
  expect(ladder.settings.errors).toBe("hc3");
  const { coef, change } = ladder.robust_hc3["3"];
  const columns = Object.keys(coef).filter((column) => column.includes("["));
  expect(columns).toHaveLength(4); // two levels against the third, each with its product
  const full = (value: number, decimals: number) => printed(value, decimals).replace(/^(−?)\./, "$10.");

  await expect(page.getByTestId("step-3")).toContainText(`F(${change.df1}, ${change.df2}) = ${full(change.F, 2)}`);
  await page.getByText("Step 3 in full").click();
  for (const column of columns) {
    const cells = page.getByTestId(`full ${column}`).getByRole("cell");
    await expect(cells.nth(3)).toHaveText(printed(ladder.standardized["3"][column].beta, 2));
    if (Math.abs(coef[column].t) >= 0.01) await expect(cells.nth(4)).toHaveText(full(coef[column].t, 2));
  }
  const margin = page.getByRole("complementary");
  await expect(margin).toContainText("Least squares with HC3 standard errors.");
  await expect(margin).toContainText("Class format: each level against in person");
  await expect(margin).toContainText("Nobody in the sample has Class format: self-study");
  await page.getByTestId("full format[online]").hover();
  await expect(page.getByTestId("reading")).toHaveText(/SD higher Willingness to speak than Class format: in person/);
});

import { expect, printed, test, withDemo } from "./house";

const app = withDemo();
const place = () => `${app.address}/studies/${app.demo}/theory`;
const saved = (page: import("@playwright/test").Page) => expect(page.getByRole("status").filter({ hasText: "All changes saved" })).toBeVisible(); // prettier-ignore

test("a hypothesis is written word by word, stands by the compute command's numbers, follows level and smallest effect, and is undone", async ({
  page,
}) => {
  const word = async (label: RegExp, typed: string) => {
    await page.getByRole("button", { name: label }).click();
    await page.keyboard.type(typed);
    await page.keyboard.press("Enter");
  };
  await page.goto(place());
  await page.getByRole("button", { name: "Write the first" }).click();
  await expect(page.getByTestId("verdict H1")).toHaveText("not testable yet");
  await word(/^Step:/, "step 2");
  await word(/^Rests on:/, "Speaking confidence");
  await word(/^Expected:/, "to lie above 0");
  await expect(page.getByTestId("hypotheses")).toContainText("Speaking confidence goes with more Willingness to speak");
  await expect(page.getByTestId("verdict H1")).toHaveText("supported");
  await page.getByRole("button", { name: "+ A hypothesis" }).click();
  await word(/^Step:/, "step 2");
  await word(/^Rests on:/, "coefficient of Age");
  await word(/^Expected:/, "to make no difference");
  await expect(page.getByTestId("verdict H2")).toHaveText("not testable yet");
  await expect(page.getByLabel("Margin")).toContainText("say which would matter");
  await word(/^Smallest effect: any/, "below |β| = .15");
  await expect(page.getByTestId("verdict H2")).toHaveText("supported");
  await expect(page.getByRole("link", { name: /^Theory/ })).toContainText("2 of 2 supported");
  await saved(page);
  const { theories } = await app.compute(app.demo, "demo/canal-street.csv");
  const [h1, h2] = Object.values<any>(theories.theory.hypotheses);
  await expect(page.getByTestId("hypotheses")).toContainText(
    `${printed(h1.estimate, 2)} [${printed(h1.interval.lower, 2)}, ${printed(h1.interval.upper, 2)}]`,
  );
  expect([h1.code, h1.verdict, h2.code, h2.verdict]).toEqual(["H1", "supported", "H2", "supported"]);
  expect(h1.settings.direction).toBe("+");
  await expect(page.getByRole("figure", { name: /^Theory of Willingness/ }).getByRole("img")).toHaveAttribute(
    "aria-label",
    /H1 Speaking confidence \+, supported/,
  );
  await page.keyboard.press("Control+z");
  await expect(page.getByTestId("verdict H2")).toHaveText("not testable yet");
});

test("an expectation that was written before anybody looked at the ladder is tested one-sided; changed afterwards it no longer is", async ({
  page,
}) => {
  const word = async (label: RegExp, typed: string) => {
    await page.getByRole("button", { name: label }).click();
    await page.keyboard.type(typed);
    await page.keyboard.press("Enter");
  };
  await page.goto(place());
  await page.getByRole("button", { name: "Write the first" }).click();
  await word(/^Expected:/, "to lie above 0");
  await word(/^Rests on:/, "Months");
  await expect(page.getByLabel("Margin")).toContainText("stood before the result was first looked at: one-sided");
  await saved(page);
  const document = await app.compute(app.demo, "demo/canal-street.csv");
  const [h1] = Object.values<any>(document.theories.theory.hypotheses);
  const own = Object.values<any>(document.ladders)[0];
  expect(h1.settings.before).toBe(true);
  expect(h1.p).toBeCloseTo(own.standardized["3"].months_enrolled.p / 2, 12);
  await word(/^Expected:/, "to lie below 0");
  await expect(page.getByLabel("Margin")).toContainText("set after the result could be seen: two-sided");
  await expect(page.getByTestId("verdict H1")).toHaveText("opposite direction");
});

test("made from a number of a ladder: its direction did not stand before, the product is a wedge, moved it takes another code", async ({
  page,
}) => {
  await page.goto(`${app.address}/studies/${app.demo}/ladders`);
  await page.getByRole("button", { name: "What a hypothesis rests on: a number of this step" }).click();
  await page.keyboard.type("Speaking confidence × Tutor");
  await page.keyboard.press("Enter");
  await expect(page.getByTestId("verdict H1")).toHaveText("supported");
  await page.getByRole("button", { name: /^Expected:/ }).click();
  await page.keyboard.type("to lie above 0");
  await page.keyboard.press("Enter");
  await expect(page.getByTestId("hypotheses")).toContainText(
    "Tutor support strengthens what Speaking confidence does for Willingness to speak",
  );
  await expect(page.getByLabel("Margin")).toContainText("set after the result could be seen: two-sided");
  await page.getByRole("button", { name: "+ A hypothesis" }).click();
  await page.getByRole("button", { name: /^Rests on:/ }).click();
  await page.keyboard.type("what the step adds");
  await page.keyboard.press("Enter");
  await page.getByRole("button", { name: "Move up" }).click();
  await expect(page.getByTestId("hypotheses").getByRole("row").nth(1)).toContainText("adds to what predicts");
  await page.getByRole("link", { name: /ΔR2|ΔR², step 3/ }).click();
  await expect(page.getByTestId("step-3")).toBeVisible();
});

import { readFileSync } from "node:fs";
import { expect, type Page, printed, test, withDemo } from "./house";

const app = withDemo();
const place = () => `${app.address}/studies/${app.demo}/theory`;
const saved = (page: Page) => expect(page.getByRole("status").filter({ hasText: "All changes saved" })).toBeVisible(); // prettier-ignore

const word = async (page: Page, label: RegExp, typed: string) => {
  await page.getByRole("button", { name: label }).click();
  await page.keyboard.type(typed);
  await page.keyboard.press("Enter");
};
const margin = (page: Page) => page.getByLabel("Margin");

test("a hypothesis is written word by word, stands by the compute command's numbers, follows level and smallest effect, and is undone", async ({
  page,
}) => {
  await page.goto(place());
  await page.getByRole("button", { name: "+ A hypothesis" }).click();
  await expect(page.getByTestId("verdict H6")).toHaveText("not testable yet");
  await word(page, /^Step:/, "step 2");
  await word(page, /^Rests on:/, "coefficient of Tutor support");
  await word(page, /^Expected:/, "to lie above 0");
  await expect(page.getByTestId("hypotheses")).toContainText("Tutor support goes with more Willingness to speak");
  await expect(page.getByTestId("verdict H6")).toHaveText("supported");
  await page.getByRole("button", { name: "+ A hypothesis" }).click();
  await word(page, /^Step:/, "step 2");
  await word(page, /^Rests on:/, "coefficient of Age");
  await word(page, /^Expected:/, "to make no difference");
  await word(page, /^Smallest effect:/, "any size");
  await expect(page.getByTestId("verdict H7")).toHaveText("not testable yet");
  await expect(margin(page)).toContainText("say which would matter");
  await word(page, /^Smallest effect:/, "below |β| = .15");
  await expect(page.getByTestId("verdict H7")).toHaveText("supported");
  await expect(page.getByRole("link", { name: /^Theory/ })).toContainText("6 of 7 supported");
  await saved(page);
  const { theories } = await app.compute(app.demo, "demo/canal-street.csv");
  const [h6, h7] = Object.values<any>(theories.theory.hypotheses).slice(5);
  await expect(page.getByTestId("hypotheses")).toContainText(
    `${printed(h6.estimate, 2)} [${printed(h6.interval.lower, 2)}, ${printed(h6.interval.upper, 2)}]`,
  );
  expect([h6.code, h6.verdict, h7.code, h7.verdict]).toEqual(["H6", "supported", "H7", "supported"]);
  expect(h6.settings.direction).toBe("+");
  await expect(page.getByRole("group", { name: /H6 Tutor support \+, supported/ })).toBeVisible();
  await page.keyboard.press("Control+z");
  await expect(page.getByTestId("verdict H7")).toHaveText("not testable yet");
});

test("what was written before anybody looked is tested one-sided; changed afterwards it no longer is, and says what it said before", async ({
  page,
}) => {
  await page.goto(`${place()}?hypothesis=h1`);
  await expect(margin(page)).toContainText("stood before the result was first looked at: one-sided");
  const document = await app.compute(app.demo, "demo/canal-street.csv");
  const { h1 } = document.theories.theory.hypotheses;
  const own = document.ladders.willingness;
  expect(h1.settings.before).toBe(true);
  expect(h1.p).toBeCloseTo(own.standardized["2"].speaking_confidence.p / 2, 12);
  await word(page, /^Expected:/, "to lie below 0");
  await expect(margin(page)).toContainText("set after the result could be seen: two-sided");
  await expect(margin(page)).toContainText("Before: Speaking confidence goes with more Willingness to speak.");
  await expect(page.getByTestId("verdict H1")).toHaveText("opposite direction");
  // an expectation of a ladder at which nobody has looked
  await page.getByRole("button", { name: "+ A hypothesis" }).click();
  await word(page, /^Ladder:/, "Oral exam");
  await word(page, /^Expected:/, "to lie above 0");
  await word(page, /^Rests on:/, "Months");
  await expect(margin(page)).toContainText("stood before the result was first looked at: one-sided");
});

test("made from a number of a ladder: its direction did not stand before, the product is a wedge, and each leads to the other", async ({
  page,
}) => {
  await page.goto(`${app.address}/studies/${app.demo}/ladders`);
  await page.getByRole("button", { name: "What a hypothesis rests on: a number of this step" }).click();
  await page.keyboard.type("Tutor support");
  await page.keyboard.press("Enter");
  await expect(page.getByTestId("verdict H6")).toHaveText("supported");
  await word(page, /^Expected:/, "to lie above 0");
  await expect(margin(page)).toContainText("set after the result could be seen: two-sided");
  await page.getByRole("button", { name: "Move up" }).click();
  await expect(page.getByTestId("hypotheses").getByRole("row").nth(5)).toContainText("Tutor support goes with more");
  await page.getByRole("link", { name: /^β of Tutor support, step 3/ }).click();
  await expect(page.getByTestId("step-3")).toBeVisible();
  await expect(page.getByTestId("resting")).toContainText("H5 β of Tutor support");
  await page.getByTestId("over-steps").getByRole("link", { name: "Hypothesis H3" }).click();
  await expect(margin(page)).toContainText("H3");
  await expect(page.getByRole("region", { name: "Settings of H3" })).toBeVisible();
});

test("two threads of the picture begin a difference of β; a slope, groups and means are chosen from what the study holds", async ({
  page,
}) => {
  await page.goto(place());
  const picture = page.getByRole("figure", { name: /Willingness to speak, Willingness/ });
  await picture.getByRole("button", { name: "Begin with Speaking confidence" }).click();
  await picture.getByRole("button", { name: "Begin with Tutor support" }).press("Enter");
  await page.getByRole("button", { name: "β of Speaking confidence − β of Tutor support" }).click();
  await word(page, /^Expected:/, "to lie above 0");
  await expect(page.getByTestId("hypotheses")).toContainText("Speaking confidence counts more than Tutor support for Willingness to speak");
  await expect(page.getByTestId("verdict H6")).toHaveText("supported");
  await word(page, /^Rests on:/, "the slope at a place");
  await expect(page.getByTestId("hypotheses")).toContainText("where Tutor support is high (mean + SD)");
  await word(page, /^Moderator’s place:/, "low");
  await expect(page.getByTestId("verdict H6")).toHaveText("supported");
  await word(page, /^Rests on:/, "the difference of a coefficient between groups");
  await word(page, /^Variable that makes the groups:/, "Returning");
  await expect(page.getByTestId("hypotheses")).toContainText("is more in no than in yes");
  await word(page, /^Which groups:/, "all of them");
  await expect(page.getByTestId("hypotheses")).toContainText("differs between the groups of Returning learner");
  await expect(page.getByTestId("hypotheses")).toContainText("χ²(1) = ");
  await word(page, /^Rests on:/, "a correlation");
  await word(page, /^First of the two:/, "Oral exam");
  await word(page, /^Second of the two:/, "Willingness to speak");
  await expect(page.getByTestId("hypotheses")).toContainText("Oral exam and Willingness to speak go together");
  await saved(page);
  const { theories } = await app.compute(app.demo, "demo/canal-street.csv");
  const h6 = Object.values<any>(theories.theory.hypotheses)[5];
  await expect(page.getByTestId("hypotheses")).toContainText(`${printed(h6.estimate, 2)} [${printed(h6.interval.lower, 2)}, `);
});

test("respondents are reckoned from the sample or from what is assumed, and drawn samples agree", async ({ page }) => {
  await page.goto(`${place()}?hypothesis=h3`);
  await page.getByRole("button", { name: "How many respondents does H3 need?" }).click();
  await expect(page.getByTestId("power")).toHaveText(/^\.\d\d$/);
  await page.getByRole("button", { name: /^Respondents: 430/ }).click();
  await page.keyboard.type("200");
  await page.keyboard.press("Enter");
  await word(page, /^Power that is wanted:/, ".90");
  await page.getByRole("button", { name: /Draw 2 000/ }).click();
  await expect(page.getByTestId("samples")).toContainText(/held in .* of 2.000 samples/);
  await saved(page);
  const { powers } = await app.compute(app.demo, "demo/canal-street.csv");
  const [own] = Object.values<any>(powers);
  await expect(page.getByTestId("power")).toHaveText(printed(own.power, 2));
  await expect(page.getByTestId("needed")).toHaveText(`${own.n_needed} respondents`);
  expect(Math.abs(own.simulated.power - own.power)).toBeLessThan(0.05);
  expect(own.assumed).toMatchObject({ n: 200, effect: 0.1 });
});

test("a plan is written before there are answers, fixed, run on the file as it stands, and tells what was done otherwise", async ({
  page,
}) => {
  await page.goto(app.address);
  await page.getByRole("button", { name: "Write the plan first" }).click();
  await page.getByLabel("Name of the study").fill("A second wave");
  await page
    .getByLabel(/^Variables, one a line/)
    .fill(
      "age, Age, number\nmonths_enrolled, Months enrolled, number\noral_exam, Oral exam, number\ncorrecting, Correcting others, number",
    );
  await expect(page.getByText("4 variables: 4 numbers.")).toBeVisible();
  await page.getByRole("button", { name: "Begin the plan" }).click();
  await expect(page).toHaveURL(/\/scales$/);
  const study = /studies\/([^/]+)/.exec(page.url())![1]!;
  const at = (where: string) => `${app.address}/studies/${study}/${where}`;
  await page.goto(at("ladders"));
  await page.getByRole("button", { name: "Begin a ladder" }).click();
  await word(page, /^Outcome:/, "Oral exam");
  await page.getByRole("button", { name: "Add a term to step 1" }).click();
  await page.keyboard.type("Age");
  await page.keyboard.press("Enter");
  await page.keyboard.type("Correcting");
  await page.keyboard.press("Enter");
  await page.keyboard.press("Escape");
  await saved(page);
  await page.goto(at("theory"));
  await page.getByRole("button", { name: "Write the first" }).click();
  await word(page, /^Expected:/, "to lie above 0");
  await word(page, /^Rests on:/, "the coefficient of Correcting");
  await expect(page.getByTestId("verdict H1")).toHaveText("not testable yet");
  await page.getByRole("button", { name: "How many respondents does H1 need?" }).click();
  await expect(page.getByTestId("needed")).toHaveText(/\d+ respondents/);
  await expect(page.getByTestId("hypotheses")).toContainText(/200\swould\sshow\sβ\s=\s\.10\swith\spower\s\.\d\d;\s\.80\stakes\s\d+/);
  await page.getByRole("button", { name: "Fix the plan as it stands" }).click();
  await expect(page.getByTestId("deviations")).toHaveText("Nothing was done otherwise.");
  const [download] = await Promise.all([page.waitForEvent("download"), page.getByRole("button", { name: "Save as Markdown" }).click()]);
  expect(readFileSync((await download.path())!, "utf8")).toContain("| H1 | Correcting others goes with more Oral exam |");
  const [json] = await Promise.all([page.waitForEvent("download"), page.getByRole("button", { name: /^Save the study document/ }).click()]);
  // given away, the plan runs on the file unchanged
  const given = await app.computeFile((await json.path())!, "demo/canal-street.csv");
  await saved(page);

  await page.goto(at("responses"));
  await expect(page.getByRole("heading", { level: 1 })).toContainText("No answers yet, 4 variables planned");
  await page.getByRole("link", { name: "Take in more, or save" }).click();
  await page.getByLabel("File of answers").setInputFiles("demo/canal-street.csv");
  await page.getByRole("button", { name: "Read it and show what would change" }).click();
  await expect(page.getByText("440 respondents would come in.")).toBeVisible();
  await page.getByRole("button", { name: "Add these 440 respondents" }).click();
  await expect(page.getByRole("heading", { level: 1 })).toContainText("440 respondents");
  await saved(page);
  await page.goto(at("theory?hypothesis=h1"));
  await expect(page.getByTestId("verdict H1")).not.toHaveText("not testable yet");
  await expect(margin(page)).toContainText("stood before the result was first looked at: one-sided");
  await expect(page.getByTestId("deviations")).toHaveText("Nothing was done otherwise.");
  const own = Object.values<any>(given.theories.theory.hypotheses)[0];
  await expect(page.getByTestId("verdict H1")).toHaveText(own.verdict);
  await expect(page.getByTestId("hypotheses")).toContainText(`${printed(own.estimate, 2)} [`);
  expect(Object.values<any>(given.plans)[0]).toMatchObject({ holds: true, rows: 0, deviations: [] });
  await page.goto(at("ladders"));
  await word(page, /^Errors:/, "HC3");
  await saved(page);
  await page.goto(at("theory"));
  await expect(page.getByTestId("deviations")).toHaveText("1 deviation:");
  await expect(page.getByTestId("deviation-table")).toContainText("classical");
  await expect(page.getByTestId("deviation-table")).toContainText("HC3");
});

test("three hypotheses are written and read; when items are coded otherwise the theory says it is out of date, then how it stands now", async ({
  page,
}) => {
  await page.goto(place());
  const write = async (rests: string, expected: string | null, step: string) => {
    await page.getByRole("button", { name: "+ A hypothesis" }).click();
    await word(page, /^Ladder:/, "Oral exam");
    if (expected !== null) await word(page, /^Expected:/, expected);
    await word(page, /^Step:/, step);
    await word(page, /^Rests on:/, rests);
  };
  await write("what the step adds", null, "step 2");
  await write("the coefficient of Speaking confidence", "to lie above 0", "step 2");
  await write("the coefficient of Speaking confidence × Tutor", "to lie above 0", "step 3");
  const read = async () => {
    await saved(page);
    const { theories } = await app.compute(app.demo, "demo/canal-street.csv");
    const own = Object.values<any>(theories.theory.hypotheses).slice(5);
    for (const h of own) {
      await expect(page.getByTestId(`verdict ${h.code}`)).toHaveText(h.verdict);
      await expect(page.getByTestId("hypotheses").getByRole("row", { name: h.code })).toContainText(
        printed(h.estimate, h.test.by === "F" ? 3 : 2),
      );
    }
    return own;
  };
  const before = await read();
  expect(before.map((h) => [h.code, h.settings.rests.on, h.settings.before])).toEqual([["H6", "change", true], ["H7", "coefficient", true], ["H8", "coefficient", true]]); // prettier-ignore
  await page.goto(`${app.address}/studies/${app.demo}/scales`);
  await page.getByRole("button", { name: /^Speaking confidence/ }).click();
  for (const item of ["SC1", "SC2", "SC5", "SC6"])
    await page
      .getByTestId(`item ${item}`)
      .getByRole("button", { name: /turned round$/ })
      .click();
  await expect(page.getByRole("link", { name: /^Theory .*out of date/ })).toBeVisible();
  await saved(page);
  await page.goto(place());
  await expect(margin(page)).toContainText("hypotheses supported was");
  const after = await read();
  expect(after[1].verdict).not.toBe(before[1].verdict);
});

import { writeFileSync } from "node:fs";
import path from "node:path";
import { carryByKeys, expect, type Page, printed, restingPlace, test, withDemo } from "./house";
import { surveyExport } from "./survey-export";

const app = withDemo();
const saved = (page: Page) => expect(page.getByRole("status").filter({ hasText: "All changes saved" })).toBeVisible();
const load = async (page: Page, id: string) => (await (await page.request.get(`${app.address}/api/studies/${id}`)).json()).study;
const open = (page: Page, about: string) => page.getByTestId(`open ${about}`);

async function bring(page: Page, buffer = surveyExport()) {
  await page.goto(app.address);
  await page.getByLabel("File of answers").setInputFiles({ name: "evening survey.csv", mimeType: "text/csv", buffer });
}

test("from a platform's export to the reliability of three scales and a ladder of two steps in fewer than 25 actions", async ({ page }) => {
  let actions = 0;
  const click = async (name: string | RegExp, exact = false) => {
    actions++;
    await page.getByRole("button", { name, exact }).first().click();
  };
  const type = async (word: string) => {
    actions++;
    await page.keyboard.type(word);
    await page.keyboard.press("Enter");
  };
  const file = path.join(app.data, "evening survey.csv");
  writeFileSync(file, surveyExport());

  actions++;
  await bring(page);
  await expect(page.getByLabel("Row with the names")).toHaveValue("1");
  await expect(page.getByLabel("Row with the wordings")).toHaveValue("2");
  await expect(page.getByText("Row 3 is left out: it holds notes of a program.")).toBeVisible();
  await click("Begin the study");
  await expect(open(page, "answers q2_1")).toContainText("8 questions");
  await click("Read as 1 to 5: q2_1");
  await click("Read as 1 to 5: q3_1");
  await click("Read 260 numbers: q6");
  actions++;
  await page.getByRole("link", { name: "Gather them into scales" }).click();
  await click("Gather all 3");
  const alphas: string[] = [];
  for (const name of ["Belonging", "Speaking", "Tutor"]) {
    await click(new RegExp(`^${name}`));
    await expect(page.getByRole("button", { name: `Name of the scale: ${name}` })).toBeVisible();
    if (name === "Belonging") await click("Turn q2_4 round");
    await expect(page.getByTestId("scale-numbers")).toHaveAttribute("data-outdated", "false");
    if (name === "Belonging") await expect.poll(async () => Number(await page.getByTestId("alpha").textContent())).toBeGreaterThan(0.7);
    alphas.push((await page.getByTestId("alpha").textContent())!);
  }
  actions++;
  await page
    .getByRole("navigation", { name: "Places of the study" })
    .getByRole("link", { name: /^Ladders/ })
    .click();
  await click("+ New ladder");
  await click("Outcome: choose an outcome");
  await type("oral exam");
  await click("Add a term to step 1");
  await type("practice");
  await page.keyboard.press("Escape");
  await click("Add a term to step 2");
  await type("tutor");
  await type("belonging");
  await page.keyboard.press("Escape");
  await expect(page.getByTestId("step-2").getByTestId("delta-r2")).toBeVisible();
  await expect(page.getByTestId("coefficients")).toHaveAttribute("data-outdated", "false");
  await saved(page);
  expect(actions).toBeLessThan(25);

  const results = await app.compute(page.url().split("/").at(-2)!, file);
  expect(alphas).toEqual(["belonging", "speaking", "tutor"].map((id) => printed(results.scales[id].reliability.alpha, 2)));
  const ladder = results.ladders.first_ladder;
  expect(ladder.sample.used).toBeGreaterThan(200);
  for (const k of [1, 2]) await expect(page.getByTestId(`step-${k}`).getByTestId("r2")).toHaveText(printed(ladder.steps[k].model.R2, 3));
  await expect(page.getByTestId("step-2").getByTestId("delta-r2")).toHaveText(printed(ladder.steps[2].change.dR2, 3));
});

test("an order that is wrong is carried right, an answer set apart; the words stay, the step can be taken back", async ({ page }) => {
  await bring(page);
  await page.getByRole("button", { name: "Begin the study" }).click();
  await open(page, "answers q3_1").getByRole("button", { name: "Change how q3_1 is read" }).click();
  const form = page.getByRole("form", { name: "How q3_1 to q3_4 are read" });
  const numbers = () => form.getByRole("spinbutton").evaluateAll((all) => all.map((one) => `${one.getAttribute("aria-label")} ${(one as HTMLInputElement).value}`)); // prettier-ignore
  await expect.poll(async () => (await numbers())[0]).toBe("Number of Never 1");
  // by pointer: Never is carried below Rarely
  const handle = form.getByRole("button", { name: "Move Never" });
  const [from, to] = [await restingPlace(handle), await restingPlace(form.getByRole("button", { name: "Move Rarely" }))];
  await page.mouse.move(from.x + 4, from.y + 6);
  await page.mouse.down();
  await page.mouse.move(from.x + 4, from.y + 20, { steps: 4 });
  await page.mouse.move(to.x + 4, to.y + to.height / 2, { steps: 8 });
  await page.mouse.up();
  await expect
    .poll(numbers)
    .toEqual(["Number of Rarely 1", "Number of Never 2", "Number of Sometimes 3", "Number of Often 4", "Number of Always 5"]);
  // and back by keys
  await form.getByRole("button", { name: "Move Rarely" }).focus();
  await carryByKeys(
    page,
    ["Space", "Rarely at place 1 of 5"],
    ["ArrowDown", "Rarely at place 2 of 5"],
    ["Space", "Rarely put down at place 2 of 5"],
  );
  await expect.poll(async () => (await numbers())[0]).toBe("Number of Never 1");
  await form.getByRole("button", { name: "Set Always apart as missing" }).click();
  await form.getByRole("button", { name: "Read all 4 so" }).click();
  await saved(page);
  const id = page.url().split("/").at(-2)!;
  const study = await load(page, id);
  expect(study.codebook.find((v: { name: string }) => v.name === "q3_2")).toMatchObject({
    kind: "item",
    range: { low: 1, high: 4 },
    question: "How often is this true of your speaking?",
    label: "I ask when I do not understand",
    levels: [{ label: "Never" }, { label: "Rarely" }, { label: "Sometimes" }, { label: "Often" }],
  });
  expect(study.readings[0].rule.values).toHaveLength(4);
  // the sheet shows the number, and says what the file says
  await page.getByRole("button", { name: "q3_1", exact: true }).click();
  await expect(
    page
      .getByRole("gridcell", { name: /^[1-4]$/ })
      .filter({ visible: true })
      .first(),
  ).toHaveAttribute("title", /^the file says /);
  await page.getByRole("button", { name: "Take the reading Frequency back" }).click();
  await expect(open(page, "answers q3_1")).toBeVisible();
  await page.keyboard.press("Control+z");
  await expect(open(page, "answers q3_1")).toBeHidden();
});

test("who answered seriously: bounds are words, each is left out with a reason, and the sentence says how many remained", async ({
  page,
}) => {
  await bring(page);
  await page.getByRole("button", { name: "Begin the study" }).click();
  await page.getByRole("button", { name: "Make minutes taken: StartDate" }).click();
  const section = page.getByRole("region", { name: "Who answered seriously" });
  const progress = section.getByRole("article").filter({ hasText: "Did not reach the end" });
  await expect(progress).toContainText("7 respondents");
  await progress.getByRole("button", { name: "Leave these 7 out" }).click();
  await expect(section).toContainText("Of 260 respondents, 7 respondents were left out (did not reach 100 in Progress); 253 remained.");
  const time = section.getByRole("article").filter({ hasText: "Took hardly any time" });
  await time.getByRole("button", { name: "Bound of Minutes taken" }).click();
  await page.keyboard.press("ControlOrMeta+a");
  await page.keyboard.type("1");
  await page.keyboard.press("Enter");
  await expect(time).toContainText("5 respondents were faster than that bound");
  const attention = section.getByRole("article").filter({ hasText: "Chose another answer" });
  await expect(attention).toContainText("q5 asks for “Agree”; chosen were “Disagree”");
  await attention.getByRole("button", { name: /^Leave these \d out/ }).click();
  await expect(section).toContainText(
    /7 respondents were left out \(did not reach 100 in Progress\) and \d were \(chose another answer than “Agree”, which was asked for\); 24\d remained\./,
  );
  await saved(page);
  const study = await load(page, page.url().split("/").at(-2)!);
  expect(study.filters).toMatchObject([{ everywhere: true, reason: "did not reach 100 in Progress" }, { everywhere: true }]);
});

test("a study is renamed, copied and put away in the list; a newcomer is greeted and opens the made-up study", async ({ page }) => {
  await page.goto(app.address);
  await page.getByRole("button", { name: "Rename Canal Street evening classes" }).click();
  await page.keyboard.press("ControlOrMeta+a");
  await page.keyboard.type("Evening classes, first wave");
  await page.keyboard.press("Enter");
  await expect(page.getByRole("link", { name: "Evening classes, first wave" })).toBeVisible();
  await page.getByRole("button", { name: "Copy Evening classes, first wave" }).click();
  await expect(page.getByRole("link", { name: "Evening classes, first wave (copy)" })).toBeVisible();
  await page.getByRole("button", { name: "Put away Evening classes, first wave (copy)" }).click();
  await page.getByText("Put away · 1").click();
  await page.getByRole("button", { name: "Bring Evening classes, first wave (copy) back" }).click();
  await expect(page.getByText("Put away · 1")).toBeHidden();
  for (const name of ["Evening classes, first wave (copy)", "Evening classes, first wave"])
    await page.getByRole("button", { name: `Delete ${name}`, exact: true }).click();
  await page.getByRole("button", { name: "Open the made-up study" }).click();
  await expect(page.getByRole("heading", { level: 1 })).toContainText("Willingness", { timeout: 30_000 });
});

test("with answers in words the Scales page offers to read them, and shows the families; a maker brings its editor into sight", async ({
  page,
}) => {
  await bring(page);
  await page.getByRole("button", { name: "Begin the study" }).click();
  await expect(open(page, "answers q2_1")).toBeVisible();
  // words as values are read whole in the codebook
  await page.getByRole("button", { name: "q2_1", exact: true }).click();
  const value = page.getByRole("textbox", { name: "Value 3" });
  await expect(value).toHaveValue("Neither agree nor disagree");
  expect(await value.evaluate((field) => field.scrollWidth <= field.clientWidth)).toBe(true);
  await page.keyboard.press("Escape");
  await page.getByRole("complementary").getByRole("button", { name: "recode value by value" }).click();
  await expect(page.locator("#recipe-editor")).toBeInViewport();
  await expect(page.locator("#recipe-editor").getByRole("textbox").first()).toBeFocused();
  await page
    .getByRole("navigation", { name: "Places of the study" })
    .getByRole("link", { name: /^Scales/ })
    .click();
  await page.getByRole("button", { name: "Read as 1 to 5: q2_1" }).click();
  const families = page.getByRole("region", { name: "Families of items" });
  await expect(families.getByRole("article")).toHaveCount(2);
  await expect(families.getByRole("article").first()).toContainText("Belonging q2_1–q2_4");
  await expect(families.getByRole("article").first()).toContainText("I could be gone and nobody would know 1 to 5");
  await families.getByRole("button", { name: "Gather q2_1–q2_4 into a scale?" }).click();
  await expect(page.getByTestId("alpha")).toBeVisible();
});

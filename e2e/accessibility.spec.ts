import { faults } from "./axe";
import { expect, type Page, test, withDemo } from "./house";
import { surveyExport } from "./survey-export";

const app = withDemo();
const place = (name: string) => `${app.address}/studies/${app.demo}/${name}`;

const screens: [string, string, (page: Page) => Promise<void>][] = [
  ["the list of studies", "", async (page) => expect(page.getByRole("link", { name: "Canal Street evening classes" })).toBeVisible()],
  [
    "the list of studies, one deleted and about to be erased",
    "",
    async (page) => {
      await page.getByRole("button", { name: "Delete Canal Street evening classes" }).click();
      await page.getByRole("button", { name: "Erase Canal Street evening classes for good now" }).click();
      await expect(page.getByLabel("Its name, to be sure:")).toBeVisible();
    },
  ],
  [
    "a plan before the answers, being written",
    "",
    async (page) => {
      await page.getByRole("button", { name: "Write the plan first" }).click();
      await page.getByLabel(/^Variables, one a line/).fill("age, Age, number\nage 2, , nonsense");
      await expect(page.getByText("2 variables")).toBeVisible();
    },
  ],
  ["Theory", "theory", async (page) => expect(page.getByTestId("verdict H5")).toHaveText("opposite direction")],
  [
    "Theory with a hypothesis open, its respondents, samples, two threads chosen, and a plan with a deviation",
    "theory?hypothesis=h3",
    async (page) => {
      await page.getByRole("button", { name: "How many respondents does H3 need?" }).click();
      await page.getByRole("button", { name: /^Draw 2 000/ }).click();
      await expect(page.getByTestId("samples")).toBeVisible();
      await page.getByRole("button", { name: "Fix the plan as it stands" }).click();
      await page.getByRole("button", { name: /^Level:/ }).click();
      await page.keyboard.type("α = .01");
      await page.keyboard.press("Enter");
      await expect(page.getByTestId("deviation-table")).toBeVisible();
      await page.getByRole("button", { name: "Begin with Age" }).click();
      await page.getByRole("button", { name: "Begin with Tutor support" }).click();
      await expect(page.getByRole("button", { name: "β of Age − β of Tutor support" })).toBeVisible();
    },
  ],
  ["Responses", "responses", async (page) => expect(page.getByText("L001")).toBeVisible()],
  [
    "Responses with an entry open",
    "responses",
    async (page) => {
      await page.getByRole("button", { name: "PB2", exact: true }).click();
      await expect(page.getByText("55 stands once outside the declared answers.")).toBeVisible();
    },
  ],
  [
    "Responses with several rows marked, a recipe and a filter being written",
    "responses",
    async (page) => {
      await page.getByLabel("Mark SC1", { exact: true }).check();
      await page.getByLabel("Mark SC2", { exact: true }).check();
      await page.getByRole("button", { name: "Paste a block" }).click();
      await page.getByRole("button", { name: "age", exact: true }).click();
      await page.getByRole("button", { name: "cut into ranges" }).click();
      await expect(page.getByTestId("recipe-outcome")).toBeVisible();
      await page.getByRole("button", { name: "New filter" }).click();
      await expect(page.getByTestId("filter-outcome")).toBeVisible();
      await expect(page.getByText("Patterns of missing answers").or(page.getByText("answered all 34 variables"))).toBeVisible();
    },
  ],
  [
    "the trail",
    "theory",
    async (page) => {
      await page.getByRole("button", { name: "Trail", exact: true }).click();
      await expect(page.getByText("440 respondents taken in from canal-street.csv.")).toBeVisible();
    },
  ],
  [
    "a file that has arrived",
    "",
    async (page) => {
      await page.getByLabel("File of answers").setInputFiles({ name: "x.csv", mimeType: "text/csv", buffer: surveyExport() });
      await expect(page.getByLabel("Row with the wordings")).toHaveValue("2");
    },
  ],
  [
    "a platform's export taken in: what is open, an order being changed, short names",
    "",
    async (page) => {
      await page.getByLabel("File of answers").setInputFiles({ name: "x.csv", mimeType: "text/csv", buffer: surveyExport() });
      await page.getByRole("button", { name: "Begin the study" }).click();
      await page.getByRole("button", { name: "Read as 1 to 5: q3_1" }).click();
      await page.getByRole("button", { name: "Change how q2_1 is read" }).click();
      await page.getByRole("button", { name: "Change how q6 is read" }).click();
      await page.getByRole("button", { name: /^Short names/ }).click();
      await expect(page.getByRole("form", { name: "Short names" })).toBeVisible();
    },
  ],
  ["Scales", "scales", async (page) => expect(page.getByTestId("alpha")).toBeVisible()],
  [
    "Scales with all items, groups and correlations",
    "scales",
    async (page) => {
      await page.getByRole("button", { name: /^All 26 items/ }).click();
      await page.getByText("Scales as parts of a scale").click();
      await page.getByText("Among the items:").click();
      await expect(page.getByTitle(/^SC2 with SC1/)).toBeVisible();
    },
  ],
  [
    "a structure",
    "scales",
    async (page) => {
      await page
        .getByRole("button", { name: /structure/ })
        .last()
        .click();
      await expect(page.getByTestId("loadings")).toBeVisible();
      await page.getByText("one by one").first().click();
      await page.getByText(/^lowest .* each item/).click();
    },
  ],
  [
    "First look, by group, with a scatter, panels, the matrix and somebody marked",
    "first-look",
    async (page) => {
      await expect(page.getByTestId("look-table")).toBeVisible();
      await page.getByRole("button", { name: "Told by: nothing" }).click();
      await page.keyboard.type("class f");
      await page.keyboard.press("Enter");
      await page.getByRole("button", { name: "Every pair at once" }).click();
      await page.getByTestId("matrix").getByRole("button", { name: /^Oral exam against Tutor support/ }).click(); // prettier-ignore
      await page.getByRole("button", { name: "Panels: nothing" }).click();
      await page.keyboard.type("returning");
      await page.keyboard.press("Enter");
      await page.getByTestId("panels").getByRole("application").first().focus();
      await page.keyboard.press("ArrowRight");
      await page.keyboard.press("Enter");
      await expect(page.getByRole("complementary", { name: "Marked respondents" })).toBeVisible();
    },
  ],
  ["Ladders", "ladders", async (page) => expect(page.getByTestId("over-steps")).toBeVisible()],
  [
    "Ladders, a step in full",
    "ladders",
    async (page) => {
      await page.getByText("Step 3 in full").click();
      await expect(page.getByTestId("in-full")).toBeVisible();
    },
  ],
  [
    "Ladders, a word of the sentence open",
    "ladders",
    async (page) => {
      await page.getByRole("button", { name: /^Respondents:/ }).click();
      await expect(page.getByText("Class format: online")).toBeVisible();
    },
  ],
  [
    "Write-up",
    "write-up",
    async (page) => {
      await expect(page.getByTestId("write-up-state")).toHaveText("Every number is as it stands now.");
      await expect(page.getByRole("region", { name: "Table 5" })).toBeVisible();
      await page.getByTestId("table-2").click();
      await expect(page.getByRole("button", { name: "Copy Table 2" })).toBeVisible();
      await page.getByText("with everything").click();
      await page.keyboard.press("Escape");
    },
  ],
  [
    "Write-up, a text being written with numbers offered",
    "write-up",
    async (page) => {
      await page.getByRole("button", { name: "Add at place 2", exact: true }).click();
      await page.keyboard.type("text of your own");
      await page.keyboard.press("Enter");
      await expect(page.getByRole("textbox", { name: "Text of your own" })).toBeFocused();
      await page.keyboard.type("It was #R² of step 1");
      await expect(page.getByRole("option").first()).toBeVisible();
    },
  ],
  // these leave the study changed
  [
    "Ladders with a category, chosen chips, a step switched off and one in full",
    "ladders",
    async (page) => {
      await page.getByRole("button", { name: "Class format: add to step 3" }).click();
      await page.getByRole("button", { name: "Step 1", exact: true }).click();
      await page.getByRole("button", { name: "Switch off" }).click();
      await page.getByRole("button", { name: "Adjusted R²" }).click();
      await page.getByRole("button", { name: "Step 3", exact: true }).click();
      await page.getByRole("button", { name: "Class format", exact: true }).click();
      await page.getByText("Step 3 in full").click();
      await expect(page.getByTestId("joint format")).toBeVisible();
      await page.getByRole("button", { name: "In symbols" }).click();
    },
  ],
  [
    "ladders side by side",
    "ladders",
    async (page) => {
      await page.getByRole("button", { name: "Set side by side" }).click();
      await page.getByRole("checkbox", { name: "Set Does correcting others add? beside others" }).click();
      await page.getByRole("button", { name: "Set 2 side by side" }).click();
      await page.getByRole("button", { name: "Fit all on the common sample" }).click();
      await expect(page.getByTestId("fit-beside")).toBeVisible();
    },
  ],
  [
    "Ladders with intervals by bootstrap and all pairs of β",
    "ladders",
    async (page) => {
      await page.getByRole("button", { name: "Intervals by: normal theory" }).click();
      await page.keyboard.type("percentile");
      await page.keyboard.press("Enter");
      await page.getByRole("button", { name: /^All \d+ pairs$/ }).click();
      await expect(page.getByTestId("replicates")).toHaveAttribute("data-done", "true");
    },
  ],
  [
    "Ladders with groups compared, all differences and shuffles",
    "ladders",
    async (page) => {
      for (const typed of ["class f", "home language"]) {
        await page.getByRole("button", { name: "Variable that makes the groups: a variable" }).click();
        await page.keyboard.type(typed);
        await page.keyboard.press("Enter");
        await expect(page.getByTestId("groups")).toHaveCount(typed === "class f" ? 1 : 2);
      }
      await page.getByRole("button", { name: /^Shuffles of the labels/ }).first().click(); // prettier-ignore
      await page.keyboard.type("shuffled 1");
      await page.keyboard.press("Enter");
      await expect(page.getByTestId("shuffles")).toHaveAttribute("data-done", "true");
      const all = page.getByRole("button", { name: /^All \d+ differences/ });
      for (let left = await all.count(); left > 0; left--) await all.first().click();
      await expect(page.getByTestId("group-differences")).not.toHaveCount(0);
    },
  ],
  [
    "Ladders with a product probed and means by two variables",
    "ladders",
    async (page) => {
      await page.getByRole("button", { name: "How does the slope of Speaking confidence change with Tutor support?" }).click();
      await expect(page.getByTestId("slopes")).toBeVisible();
      for (const term of ["home language", "returning"]) {
        await page.getByRole("button", { name: "Add a term to step 2" }).click();
        await page.keyboard.type(term);
        await page.keyboard.press("Enter");
        await page.keyboard.press("Escape");
      }
      await page.getByRole("button", { name: "What is predicted for each level of Home language family?" }).click();
      await page.getByRole("button", { name: "Told apart by: nothing else" }).click();
      await page.keyboard.type("returning");
      await page.keyboard.press("Enter");
      await expect(page.getByTestId("contrasts").getByRole("row")).toHaveCount(13);
    },
  ],
  [
    "residuals, clouds and importance",
    "ladders",
    async (page) => {
      for (const question of [
        "Can the residuals be trusted?",
        "What does each term add beside all others?",
        "How much does each term explain?",
      ])
        await page.getByRole("button", { name: question }).click();
      await page.getByRole("button", { name: /^Whose leaving/ }).click();
      await page.keyboard.type("coefficient of Tutor");
      await page.keyboard.press("Enter");
      await expect(page.getByText(/^Most: row/)).toBeVisible();
      await expect(page.getByRole("article", { name: /^Probe: importance/ }).getByRole("img")).toBeVisible();
      await expect(page.getByRole("article", { name: /^Probe: what each term/ }).getByRole("img")).toHaveCount(5);
    },
  ],
  [
    "a search, and the ladder made from it",
    "ladders",
    async (page) => {
      await page.getByRole("button", { name: "Which further predictors would a search choose?" }).click();
      const rule = page.getByRole("slider", { name: "Columns that are taken" });
      await rule.press("ArrowRight");
      await expect(page.getByRole("button", { name: /as a ladder, exploratory$/ })).toBeVisible();
      await page.getByRole("button", { name: /Draw 200 samples/ }).click();
      await expect(page.getByTestId("stability")).toBeVisible();
      expect(await faults(page)).toEqual([]);
      await page.getByRole("button", { name: /as a ladder, exploratory$/ }).click();
      await expect(page.getByTestId("exploratory")).toBeVisible();
      await page
        .getByRole("button", { name: /^Why did|^Coefficient that changed/ })
        .first()
        .click();
      await page.keyboard.press("Enter");
      await expect(page.getByRole("article", { name: /^Probe: why/ }).getByRole("img")).toBeVisible();
    },
  ],
];
for (const [name, path, ready] of screens) {
  test(`${name}: axe finds nothing, and nothing is wider than a window of 1280 or 1024`, async ({ page }) => {
    await page.goto(path === "" ? app.address : place(path));
    await ready(page);
    expect(await faults(page)).toEqual([]);
    for (const width of [1280, 1024]) {
      await page.setViewportSize({ width, height: 800 });
      await expect.poll(() => page.evaluate(() => document.documentElement.scrollWidth <= window.innerWidth)).toBe(true);
    }
  });
}

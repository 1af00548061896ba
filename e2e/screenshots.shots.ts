import { expect, type Page, test, withDemo } from "./house";
import { surveyExport } from "./survey-export";

const app = withDemo();

const shot = async (page: Page, name: string) => {
  await page.waitForTimeout(400); // fonts and the last frame
  await page.screenshot({ path: `docs/screenshots/${name}.png` });
};
const place = (name: string) => `${app.address}/studies/${app.demo}/${name}`;

test("pictures of the main views", async ({ page }) => {
  await page.goto(place("responses"));
  await page.getByRole("button", { name: "PB2", exact: true }).click();
  await expect(page.getByText("55 stands once")).toBeVisible();
  await shot(page, "responses");
  await page.getByRole("button", { name: "Leave the later ones out" }).click();
  await page.getByRole("button", { name: "Trail", exact: true }).click();
  await expect(page.getByText("Filter Duplicates made.")).toBeVisible();
  await shot(page, "trail");
  await page.keyboard.press("Escape");
  await page.getByRole("button", { name: "Take the last change back" }).click();
  await expect(page.getByText("Left out, and filters (0)")).toBeVisible();
  await expect(page.getByText("All changes saved")).toBeVisible();
  await page.goto(app.address);
  await page.getByLabel("File of answers").setInputFiles({ name: "evening survey.csv", mimeType: "text/csv", buffer: surveyExport() });
  await expect(page.getByRole("button", { name: "Begin the study" })).toBeVisible();
  await page.getByRole("button", { name: "Begin the study" }).click();
  await page.getByRole("button", { name: "Read as 1 to 5: q2_1" }).click();
  await page.getByRole("button", { name: "Change how q3_1 is read" }).click();
  await expect(page.getByRole("form", { name: "How q3_1 to q3_4 are read" })).toBeVisible();
  await shot(page, "open");
  await page.goto(place("scales"));
  await page.getByRole("button", { name: /^Classroom anxiety/ }).click();
  await expect(page.getByTestId("alpha")).toBeVisible();
  await shot(page, "scales");
  await page.getByRole("button", { name: "look at the structure of all items" }).click();
  await expect(page.getByTestId("loadings")).toBeVisible();
  await shot(page, "structure");
  await page.getByRole("button", { name: "Let the factors correlate" }).click();
  await expect(page.getByRole("heading", { name: /^Pattern loadings/ })).toBeVisible();
  await page.evaluate(() => document.getElementById("loadings")!.scrollIntoView());
  await page.goto(place("first-look"));
  await expect(page.getByTestId("look-table")).toBeVisible();
  await page.getByTestId("look-table").getByRole("button", { name: /^Willingness to speak with Speaking confidence/ }).hover(); // prettier-ignore
  await shot(page, "first-look");
  await page.getByTestId("look-table").getByRole("button", { name: /^Willingness to speak with Speaking confidence/ }).click(); // prettier-ignore
  await page.keyboard.press("Control+z");
  await expect(page.getByText("All changes saved")).toBeVisible();
  await page.goto(place("ladders"));
  await expect(page.getByTestId("over-steps")).toBeVisible();
  await shot(page, "ladders");
  const top = (name: RegExp) =>
    page.getByRole("article", { name }).evaluate((article) => {
      article.scrollIntoView({ block: "start" });
      window.scrollBy(0, -80);
    });
  await page.getByRole("button", { name: "How does the slope of Speaking confidence change with Tutor support?" }).click();
  await expect(page.getByTestId("slopes")).toBeVisible();
  await top(/^Probe/);
  await shot(page, "probe");
  await page
    .getByRole("article", { name: /^Probe/ })
    .getByRole("button", { name: "Remove" })
    .click();
  await page.getByRole("button", { name: "Variable that makes the groups: a variable" }).click();
  await page.keyboard.type("class f");
  await page.keyboard.press("Enter");
  await expect(page.getByTestId("groups")).toBeVisible();
  await top(/^Probe/);
  await shot(page, "groups");
  await page
    .getByRole("article", { name: /^Probe/ })
    .getByRole("button", { name: "Remove" })
    .click();
  await page.getByRole("button", { name: "Add a term to step 2" }).click();
  await page.keyboard.type("home language");
  await page.keyboard.press("Enter");
  await page.keyboard.press("Escape");
  await page.getByRole("button", { name: "What is predicted for each level of Home language family?" }).click();
  await expect(page.getByTestId("contrasts")).toBeVisible();
  await top(/^Probe/);
  await shot(page, "means");
  await page
    .getByRole("article", { name: /^Probe/ })
    .getByRole("button", { name: "Remove" })
    .click();
  await page.getByRole("button", { name: /^Remove Home language family/ }).click();
  await expect(page.getByText("All changes saved")).toBeVisible();
  await page.evaluate(() => window.scrollTo(0, 0));
  await page.getByRole("button", { name: "Intervals by: normal theory" }).click();
  await page.keyboard.type("BCa");
  await page.keyboard.press("Enter");
  await expect(page.getByTestId("replicates")).toHaveAttribute("data-done", "true");
  await page.getByRole("button", { name: /^One β: / }).click();
  await page.keyboard.type("Speaking confidence");
  await page.keyboard.press("Enter");
  await page.getByRole("button", { name: /^The other β: / }).click();
  await page.keyboard.type("Tutor support");
  await page.keyboard.press("Enter");
  await page.evaluate(() => document.querySelector('[aria-label="Differences between β"]')!.scrollIntoView());
  await page.evaluate(() => window.scrollBy(0, -90));
  await shot(page, "bootstrap");
  await page.getByRole("button", { name: "Take the last change back" }).click();
  await expect(page.getByTestId("replicates")).toHaveCount(0);
  await page.evaluate(() => window.scrollTo(0, 0));
  await page.getByRole("button", { name: "Class format: add to step 3" }).click();
  await page.getByText("Step 3 in full").click();
  await page.getByTestId("full format[online]").hover();
  await expect(page.getByTestId("joint format")).toBeVisible();
  await page.evaluate(() => document.querySelector('[aria-label="Coefficients"]')!.scrollIntoView());
  await page.evaluate(() => window.scrollBy(0, -90));
  await shot(page, "step-in-full");
  await page.evaluate(() => window.scrollTo(0, 0));
  await page.getByRole("button", { name: "Set side by side" }).click();
  await page.getByRole("checkbox", { name: "Set Does correcting others add? beside others" }).click();
  await page.getByRole("button", { name: "Set 2 side by side" }).click();
  await page.getByRole("button", { name: "Fit all on the common sample" }).click();
  await expect(page.getByTestId("fit-beside")).toBeVisible();
  await shot(page, "side-by-side");
  await page.goto(place("ladders"));
  await page.getByRole("button", { name: "Can the residuals be trusted?" }).click();
  await expect(page.getByRole("article", { name: /^Probe: residuals/ }).getByRole("img")).toHaveCount(5);
  await top(/^Probe: residuals/);
  await shot(page, "residuals");
  await page.getByRole("button", { name: "Take the last change back" }).click();
  await page.getByRole("button", { name: "Step 1", exact: true }).click();
  await page.getByRole("button", { name: "Which further predictors would a search choose?" }).click();
  await expect(page.getByRole("slider", { name: "Columns that are taken" })).toBeVisible();
  await top(/^Probe: search/);
  await shot(page, "search");
  await page.goto(place("theory"));
  await expect(page.getByTestId("verdict H5")).toHaveText("opposite direction");
  await shot(page, "theory");
  await page.goto(place("theory?hypothesis=h3"));
  await page.getByRole("button", { name: "How many respondents does H3 need?" }).click();
  await expect(page.getByTestId("power")).toHaveText(/^\.\d\d$/);
  await page.getByRole("region", { name: "Settings of H3" }).evaluate((node) => node.scrollIntoView({ block: "start" }));
  await shot(page, "respondents");
  await page.goto(place("write-up"));
  await expect(page.getByRole("button", { name: "Move Table 1" })).toBeAttached();
  const table = page
    .getByRole("region", { name: /^Table/ })
    .filter({ hasText: "Hierarchical regression of Willingness" })
    .first();
  await table.getByRole("table").click();
  await table.evaluate((node) => {
    node.scrollIntoView({ block: "start" });
    window.scrollBy(0, -200);
  });
  await shot(page, "write-up");
});

import { expect, type Page, printed, restingPlace, test, withDemo } from "./house";

const app = withDemo();
const place = (name: string) => `${app.address}/studies/${app.demo}/${name}`;
const saved = (page: Page) => expect(page.getByRole("status").filter({ hasText: "All changes saved" })).toBeVisible();
const looks = async () => Object.values<any>((await app.compute(app.demo, "demo/canal-street.csv")).looks);

async function choose(page: Page, word: string | RegExp, typed: string) {
  await page.getByRole("button", { name: word }).click();
  await page.keyboard.type(typed);
  await page.keyboard.press("Enter");
}

const stars = (p: number) => (p < 0.001 ? "***" : p < 0.01 ? "**" : p < 0.05 ? "*" : "");

test("the first table is there by itself; by group, by ranks, partial and complete it is the compute command's", async ({ page }) => {
  await page.goto(place("first-look"));
  const table = page.getByTestId("look-table");
  await expect(table).toBeVisible();
  await choose(page, "Told by: nothing", "returning");
  await expect(page.getByTestId("look-table yes")).toBeVisible();
  await saved(page);
  const [own] = await looks();
  const names = Object.keys(own.variables);
  expect(names).toEqual(["speaking_confidence", "classroom_anxiety", "tutor_support", "peer_belonging", "willingness_to_speak", "oral_exam"]); // prettier-ignore
  const cellsOf = async (testId: string, row: number) => (await page.getByTestId(testId).getByRole("row").nth(row).getByRole("cell").allInnerTexts()).map((text) => text.replace(/\s+/g, " ").trim()); // prettier-ignore
  const expectTable = async (testId: string, part: any, correlations: any, r: string) => {
    for (const [i, name] of names.entries()) {
      const cells = await cellsOf(testId, i + 1);
      expect(cells[2]).toBe(printed(part.variables[name].sd, 2).replace(/^\./, "0."));
      for (const [j, other] of names.slice(0, i).entries()) {
        const found = correlations[`${other} ~ ${name}`];
        expect(cells[4 + j]).toMatch(new RegExp(`^${printed(found[r], 2).replace(".", "\\.")}\\s?${stars(found.p).replaceAll("*", "\\*")}\\s?${found.n}$`)); // prettier-ignore
      }
    }
  };
  await expectTable("look-table", own, own.correlations, "r");
  await expectTable("look-table yes", own.groups.yes, own.groups.yes.correlations, "r");
  const alpha = printed(own.variables.classroom_anxiety.alpha, 2);
  expect((await cellsOf("look-table", 2))[5]).toBe(`(${alpha})`);
  const surest = Object.entries<any>(own.differences).sort(([, a], [, b]) => a["no - yes"].p - b["no - yes"].p)[0]![1]["no - yes"]; // prettier-ignore
  await expect(page.getByTestId("correlation-differences").getByRole("row").nth(1)).toContainText(printed(surest.p, 3));

  await choose(page, "Correlations: Pearson's r", "spear");
  await expect(page.getByRole("button", { name: "Correlations: Spearman's ρ" })).toBeVisible();
  await expect(page.getByTestId("look")).toHaveAttribute("data-outdated", "false");
  await expectTable("look-table", own, own.spearman, "rho");

  await choose(page, "Above the diagonal: nothing", "partial");
  await choose(page, "A control: a control", "months");
  await saved(page);
  const [held] = await looks();
  const partial = held.partial["speaking_confidence ~ willingness_to_speak"];
  await expect(table.getByRole("row").nth(1).getByRole("cell").nth(8)).toContainText(printed(partial.r, 2));
  await choose(page, "Respondents of a pair: pair by pair", "complete");
  await saved(page);
  await expect(page.getByTestId("look")).toContainText(`n = ${(await looks())[0].rows}`);
  // all of it can be taken back
  for (let back = 0; back < 5; back++) await page.keyboard.press("Control+z");
  await expect(page.getByRole("button", { name: "Told by: nothing" })).toBeVisible();
});

test("panels over two variables; marked respondents are the same everywhere, can be seen, left out with a reason, and are back after undo", async ({
  page,
}) => {
  await page.goto(place("first-look"));
  await page.getByRole("button", { name: "Every pair at once" }).click();
  const matrix = page.getByTestId("matrix");
  await matrix.getByRole("button", { name: /^Willingness to speak against Speaking confidence/ }).click();
  const scatter = page.getByRole("article", { name: "Scatter: Willingness to speak against Speaking confidence" });
  const picture = scatter.getByRole("application");
  await expect(picture).toBeVisible();

  // the pointer draws a frame
  await picture.scrollIntoViewIfNeeded();
  const box = await restingPlace(picture);
  await page.mouse.move(box.x + 90, box.y + 70);
  await page.mouse.down();
  await page.mouse.move(box.x + 230, box.y + 190, { steps: 5 });
  await page.mouse.up();
  const tray = page.getByRole("complementary", { name: "Marked respondents" });
  await expect(tray).toContainText(/\d+ respondents marked/);
  const marked = Number(/(\d+) respondents/.exec(await tray.innerText())![1]);
  expect(marked).toBeGreaterThan(3);
  await expect(scatter.getByRole("img")).toHaveAttribute("aria-label", new RegExp(`without them from .*; ${marked} marked`));
  await expect(matrix.getByRole("img", { name: /^Oral exam against Tutor support/ })).toHaveAttribute("aria-label", /\d+ marked/);
  // keys go from one respondent to the next, and mark
  await picture.focus();
  await page.keyboard.press("ArrowRight");
  await expect(scatter.getByText(/^Row \d+: Speaking confidence 1, /)).toBeVisible();
  await page.keyboard.press("Enter");
  await expect(tray).toContainText(`${marked + 1} respondents marked`);

  await tray.getByRole("button", { name: "Leave them out" }).click();
  await page.keyboard.type("Answered in pairs.");
  await page.keyboard.press("Enter");
  await expect(page.getByRole("button", { name: `Respondents: Without ${marked + 1} marked` })).toBeVisible();
  await expect(tray).toBeHidden();
  await saved(page);
  const [own] = await looks();
  expect(own.kept).toBe(440 - marked - 1);
  await page.keyboard.press("Control+z");
  await expect(page.getByRole("button", { name: `Respondents: Without ${marked + 1} marked` })).toBeHidden();
  await saved(page);
  expect((await looks())[0].kept).toBe(440);

  await choose(page, "Panels: nothing", "tutor sup");
  await choose(page, "Panels across: nothing", "returning");
  const panels = scatter.getByTestId("panels");
  await expect(panels.getByRole("application")).toHaveCount(6);
  await saved(page);
  const [look] = await looks();
  const lines = Object.values<any>(Object.values<any>(look.scatters)[0].lines);
  expect(lines).toHaveLength(6);
  for (const [i, line] of lines.entries()) await expect(panels.getByRole("figure").nth(i)).toContainText(`n = ${line.n}, slope ${printed(line.slope, 2).replace(/^(−?)\./, "$10.")}`); // prettier-ignore

  // a bar marks whom it counts: pressed in the picture, under its outline too, or in its table
  const lies = page.getByRole("figure", { name: "Speaking confidence", exact: true });
  const bar = lies.getByRole("img").first().locator("rect").nth(3);
  const counted = Number(/: (\d+)$/.exec((await bar.locator("title").textContent())!)![1]);
  expect(counted).toBeGreaterThan(1);
  await bar.click();
  await expect(tray).toContainText(`${counted} respondents marked`);
  await lies.getByRole("button", { name: "As a table" }).click();
  const line = lies.getByRole("row").nth(5);
  const [many] = await line.getByRole("cell").allInnerTexts();
  await line.getByRole("button", { name: /^Mark Speaking confidence/ }).click();
  await expect(tray).toContainText(`${many} respondents marked`);
  await tray.getByRole("button", { name: "Forget them" }).click();
  await expect(tray).toBeHidden();

  // who they are, in the sheet
  await panels.getByRole("application").first().focus();
  await page.keyboard.press("ArrowRight");
  await page.keyboard.press(" ");
  await expect(tray).toContainText("1 respondent marked");
  const row = /rows (\d+)/.exec(await tray.innerText())![1]!;
  await tray.getByRole("button", { name: "See their rows" }).click();
  await expect(page).toHaveURL(new RegExp(`responses\\?rows=${row}$`));
  await expect(page.getByText("1 respondent", { exact: false }).first()).toBeVisible();
});

import { expect, type Locator, type Page, printed, restingPlace, test, withDemo } from "./house";

const app = withDemo();
const ladders = () => `${app.address}/studies/${app.demo}/ladders`;
const saved = (page: Page) => expect(page.getByRole("status").filter({ hasText: "All changes saved" })).toBeVisible();
const full = (value: number, decimals = 2) => printed(value, decimals).replace(/^(−?)\./, "$10.");
const probeOf = (page: Page, name: string) => page.getByRole("article", { name: `Probe: ${name}` });

/** The numbers of a row of slopes as they are printed: b, SE, t. */
async function row(probe: Locator, place: string): Promise<string[]> {
  const cells = probe.getByTestId("slopes").getByRole("row", { name: new RegExp(`^${place}`) }).first().getByRole("cell"); // prettier-ignore
  return (await cells.allInnerTexts()).slice(-5, -2);
}

const numbersOf = (e: { estimate: number; se: number; t: number }) => [full(e.estimate), full(e.se), full(e.t)];

test("a product is asked how its slope changes; a mark is dragged and moved by keys, and slope and region are the compute command's", async ({
  page,
}) => {
  await page.goto(ladders());
  await page.getByRole("button", { name: "How does the slope of Speaking confidence change with Tutor support?" }).click();
  const probe = probeOf(page, "Speaking confidence by Tutor support");
  await expect(probe.getByTestId("slopes")).toBeVisible();
  await expect(probe.getByRole("list", { name: "What it says" })).toContainText("Tutor support strengthens the relation");
  await saved(page);
  const before = Object.values<any>((await app.compute(app.demo, "demo/canal-street.csv")).probes)[0];
  await expect.poll(() => row(probe, "low")).toEqual(numbersOf(before.slopes.low.effect));
  await expect
    .poll(() => row(probe, "high − low"))
    .toEqual(
      numbersOf({
        ...before.differences["low - high"],
        estimate: -before.differences["low - high"].estimate,
        t: -before.differences["low - high"].t,
      }),
    );
  const [bound] = before.regions.all.bounds.filter((b: { inside_range: boolean }) => b.inside_range);
  await expect(probe).toContainText(
    `where Tutor support is above ${full(bound.value)}: ${Math.round(before.regions.all.share_holds * 430)} of 430`,
  );

  // the pointer drags the low mark to the left; nothing is saved until it is let go
  const mark = probe.getByRole("slider", { name: "low, value of Tutor support" });
  await mark.evaluate((element) => element.scrollIntoView({ block: "center" })); // not under the bar at the foot
  const box = await restingPlace(mark);
  const [x, y] = [box.x + box.width / 2, box.y + box.height - 4];
  await page.mouse.move(x, y);
  await page.mouse.down();
  await page.mouse.move(x - 40, y, { steps: 5 });
  const first = probe.getByTestId("slopes").getByRole("row").nth(1);
  await expect(first).not.toContainText("2.32");
  await page.mouse.up();
  await expect(probe.getByRole("button", { name: /^Values of Tutor support: \d/ })).toBeVisible();
  // arrow keys move another by a tenth of a point
  const sliders = probe.getByRole("slider");
  await sliders.nth(2).focus();
  await page.keyboard.press("ArrowRight");
  await page.keyboard.press("ArrowRight");
  await saved(page);
  const after = Object.values<any>((await app.compute(app.demo, "demo/canal-street.csv")).probes)[0];
  const places = Object.keys(after.slopes);
  expect(Number(places[0])).toBeLessThan(2.2);
  for (const place of places)
    await expect.poll(() => row(probe, full(Number(place), 2).replace(/\.?0+$/, ""))).toEqual(numbersOf(after.slopes[place].effect));

  await page.reload();
  await expect(probe.getByTestId("slopes")).toBeVisible();
  await expect(sliders.nth(0)).toHaveAttribute("aria-valuenow", places[0]!);
  // two keys and the drag
  for (let back = 0; back < 3; back++) await page.keyboard.press("Control+z");
  await expect(first).toContainText("low, 2.32");
});

test("predictor and moderator trade places, the unit is SDs, and two categories show cells and the difference of differences", async ({
  page,
}) => {
  await page.goto(ladders());
  await page.getByRole("button", { name: "How does the slope of Speaking confidence change with Tutor support?" }).click();
  await page.getByRole("button", { name: "Predictor asked about: Speaking confidence" }).click();
  await page.keyboard.type("Tutor");
  await page.keyboard.press("Enter");
  const turned = probeOf(page, "Tutor support by Speaking confidence");
  await expect(turned.getByTestId("slopes")).toBeVisible();
  await page.getByRole("button", { name: "Unit of the slopes: points (b)" }).click();
  await page.keyboard.type("SDs");
  await page.keyboard.press("Enter");
  await expect(turned.getByTestId("slopes").getByRole("columnheader", { name: "slope β" })).toBeVisible();
  const add = async (step: number, word: string) => {
    await page.getByRole("button", { name: `Add a term to step ${step}` }).click();
    await page.keyboard.type(word);
    await page.keyboard.press("Enter");
    await page.keyboard.press("Escape");
  };
  await add(2, "class format");
  await add(2, "returning learner");
  await add(3, "class format × returning learner");
  await page.getByRole("button", { name: "How does the difference by Class format change with Returning learner?" }).click();
  const cells = probeOf(page, "Class format by Returning learner");
  await expect(cells.getByRole("img", { name: /predicted for/ })).toBeVisible();
  await cells.getByRole("button", { name: "As a table" }).click();
  await expect(cells.getByTestId("cells")).toBeVisible();
  await saved(page);
  const { probes } = await app.compute(app.demo, "demo/canal-street.csv");
  const found = Object.values<any>(probes);
  const z = found.find((p) => p.settings.metric === "z");
  expect(await row(turned, "low")).toEqual([
    printed(z.slopes.low.effect.estimate, 2),
    printed(z.slopes.low.effect.se, 2),
    full(z.slopes.low.effect.t),
  ]);
  const both = found.find((p) => p.settings.focal === "format");
  await expect(cells.getByTestId("cells").getByRole("row", { name: /^yes/ })).toContainText(full(both.predicted.yes.online.estimate));
  expect(await row(cells, "yes − no.*online")).toEqual(
    numbersOf({
      ...both.differences["no - yes"]["online - in person"],
      estimate: -both.differences["no - yes"]["online - in person"].estimate,
      t: -both.differences["no - yes"]["online - in person"].t,
    }),
  );
  // what was asked can be taken back, and a question whose product has gone says so
  await page.getByRole("button", { name: /^Remove Class format × Returning learner/ }).click();
  await expect(cells).toContainText("Step 3 has no product of Class format with Returning learner.");
  await cells.getByRole("button", { name: "Remove" }).click();
  await expect(cells).toBeHidden();
});

test("predicted means: a category by another, held against one level, are the compute command's; folded to a line and undone", async ({
  page,
}) => {
  await page.goto(ladders());
  for (const term of ["class format", "returning learner"]) {
    await page.getByRole("button", { name: "Add a term to step 2" }).click();
    await page.keyboard.type(term);
    await page.keyboard.press("Enter");
    await page.keyboard.press("Escape");
  }
  await page.getByRole("button", { name: "What is predicted for each level of Class format?" }).click();
  const means = probeOf(page, "means of Class format");
  await expect(means.getByTestId("contrasts")).toBeVisible();
  const set = async (word: string, to: string) => {
    await page.getByRole("button", { name: word }).click();
    await page.keyboard.type(to);
    await page.keyboard.press("Enter");
  };
  await set("Told apart by: nothing else", "Returning");
  const both = probeOf(page, "means of Class format by Returning learner");
  await set("Held against: the mean of all", "online");
  await expect(both.getByRole("row", { name: /^blended, yes − online, yes/ })).toBeVisible();
  await saved(page);
  const told = Object.values<any>((await app.compute(app.demo, "demo/canal-street.csv")).means)[0];
  const wanted = told.contrasts["returning yes, format blended - returning yes, format online"];
  const cells = both.getByRole("row", { name: /^blended, yes − online, yes/ }).getByRole("cell");
  await expect.poll(async () => (await cells.allInnerTexts()).slice(0, 3)).toEqual(numbersOf(wanted));
  await both.getByRole("button", { name: "As a table" }).click();
  await expect(both.getByTestId("means").getByRole("row", { name: /^online, no/ })).toContainText(
    full(told.means["returning no, format online"].estimate),
  );
  await both.getByRole("button", { name: "Fold" }).click();
  await expect(both).toContainText("Willingness to speak is predicted lowest for");
  await expect(both.getByTestId("contrasts")).toBeHidden();
  await page.keyboard.press("Control+z");
  await expect(both.getByRole("button", { name: "Held against: the mean of all" })).toBeVisible();
});

import { expect, type Page, printed, restingPlace, test, withDemo } from "./house";

const app = withDemo();
const ladders = () => `${app.address}/studies/${app.demo}/ladders`;
const saved = (page: Page) => expect(page.getByRole("status").filter({ hasText: "All changes saved" })).toBeVisible();
const computed = () => app.compute(app.demo, "demo/canal-street.csv");
const probeOf = (page: Page, name: string) => page.getByRole("article", { name: `Probe: ${name}` });
const interval = ({ lower, upper }: { lower: number; upper: number }) => `[${printed(lower, 2)}, ${printed(upper, 2)}]`;

async function choose(page: Page, word: string, typed: string) {
  await page.getByRole("button", { name: word }).click();
  await page.keyboard.type(typed);
  await page.keyboard.press("Enter");
}

test("three class formats are compared: slopes, a difference and the tests are the compute command's; put together, left out, reloaded, undone", async ({
  page,
}) => {
  await page.goto(ladders());
  await choose(page, "Variable that makes the groups: a variable", "class f");
  const groups = probeOf(page, "groups by Class format");
  const table = groups.getByTestId("groups");
  await expect(table).toBeVisible();
  await saved(page);
  const own = Object.values<any>((await computed()).groups)[0];
  const cells = table.getByRole("row", { name: /^Tutor support/ }).getByRole("cell");
  const betas = ["in person", "online", "blended"].map((level) => own.groups[level].beta_whole_sample_sd.tutor_support);
  const difference = own.differences_beta_whole_sample_sd.tutor_support["in person - blended"];
  await expect(cells).toHaveText([
    ...betas.map((beta: number) => printed(beta, 2)),
    `in person − blended: ${printed(difference.difference, 2)}`,
    printed(difference.z, 2),
    printed(difference.p_holm_all_shown, 3),
    interval(difference),
  ]);
  const { chi2, df, p } = own.omnibus.all_slopes;
  await expect(groups.getByRole("list", { name: "What it says" })).toContainText(`χ²(${df}) = ${printed(chi2, 2)}, p = ${printed(p, 3)}`);
  const f = own.single_model.tutor_support;
  await expect(groups.getByTestId("alike").getByRole("row", { name: /^Tutor support/ })).toContainText(`${printed(f.F, 2).replace(/^\./, "0.")} (${f.df1}, ${f.df2})`); // prettier-ignore

  // two of them as one group, the keyboard alone
  await groups.getByRole("button", { name: /^Group online/ }).focus();
  await page.keyboard.press("Enter");
  await page.keyboard.type("one group with bl");
  await page.keyboard.press("Enter");
  await expect(groups.getByRole("button", { name: /^Group online \+ blended/ })).toBeVisible();
  await expect(table.getByRole("columnheader", { name: "online + blended" })).toBeVisible();
  await saved(page);
  const joined = Object.values<any>((await computed()).groups)[0];
  expect(joined.groups["online + blended"].n).toBe(own.groups.online.n + own.groups.blended.n);
  await choose(page, `Group in person: in person ${own.groups["in person"].n}`, "left out");
  await expect(groups).toContainText("Class format has one group in the sample, so there is nothing to compare.");
  await page.reload();
  await expect(groups).toContainText("nothing to compare");
  await page.keyboard.press("Control+z");
  await page.keyboard.press("Control+z");
  await expect(table.getByRole("columnheader", { name: "blended", exact: true })).toBeVisible();

  // the single model with products, as a ladder of its own
  await groups.getByRole("button", { name: "Open as a ladder" }).click();
  await expect(page.getByRole("button", { name: "Remove Class format × Tutor support from step 5" })).toBeVisible();
  await saved(page);
  const document = await computed();
  const crossed = Object.values<any>(document.ladders).find((l) => Object.keys(l.steps).length === 5);
  expect(crossed.steps["5"].terms["format*tutor_support"].F).toBeCloseTo(f.F, 9);
  expect(crossed.steps["5"].change.F).toBeCloseTo(own.omnibus.pooled_F.F, 9);
});

test("replicates and shuffles: intervals of groups, slopes and means on the page are the compute command's, and can be stopped", async ({
  page,
}) => {
  await page.goto(ladders());
  await page.getByRole("button", { name: "How does the slope of Speaking confidence change with Tutor support?" }).click();
  await choose(page, "Variable that makes the groups: a variable", "returning");
  const groups = probeOf(page, "groups by Returning learner");
  await expect(groups.getByTestId("groups")).toBeVisible();
  await choose(page, "Shuffles of the labels: not shuffled", "shuffled 1");
  await expect(groups.getByTestId("shuffles")).toHaveText("p from 1 000 shuffles of the labels.");
  await choose(page, "Intervals by: normal theory", "BCa");
  const probe = probeOf(page, "Speaking confidence by Tutor support");
  for (const [where, id] of [
    [groups, "group-replicates"],
    [probe, "probe-replicates"],
  ] as const) {
    await expect(where.getByTestId(id)).toHaveAttribute("data-done", "true", { timeout: 60_000 });
    // what is said of replicates stands below what can be quoted, not on it
    const [quote, state] = [
      await restingPlace(where.getByRole("button", { name: "Quote this" })),
      await restingPlace(where.getByTestId(id)),
    ];
    expect(state.y).toBeGreaterThanOrEqual(quote.y + quote.height);
  }
  await saved(page);
  const document = await computed();
  const own = Object.values<any>(document.groups)[0];
  const drawn = own.bootstrap.intervals["beta.speaking_confidence.no - yes"];
  const turned = drawn.estimate < 0 ? { lower: -drawn.upper, upper: -drawn.lower } : drawn;
  const row = groups.getByTestId("groups").getByRole("row", { name: /^Speaking confidence (?!×)/ });
  await expect(row.getByRole("cell").last()).toHaveText(interval(turned));
  const p = own.permutation.values.speaking_confidence["no - yes"].p;
  await expect(row.getByRole("cell").nth(5)).toHaveText(printed(p, 3));
  const slopes = Object.values<any>(document.probes)[0].bootstrap.slopes;
  const full = (v: number) => printed(v, 2).replace(/^(−?)\./, "$10.");
  await expect(probe.getByTestId("slopes").getByRole("row", { name: /^low/ }).first().getByRole("cell").last()).toHaveText(`[${full(slopes.low.lower)}, ${full(slopes.low.upper)}]`); // prettier-ignore

  // so many that it takes a while: stopped, and what there was stays
  await choose(page, "Shuffles of the labels: shuffled 1 000 times", "shuffled 100");
  await groups.getByTestId("shuffles").getByRole("button", { name: "Stop" }).click();
  await expect(groups.getByTestId("shuffles")).toContainText("Stopped before all labels were shuffled");
  await expect(groups.getByTestId("groups")).toBeVisible();
});

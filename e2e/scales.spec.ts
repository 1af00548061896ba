import { readFileSync } from "node:fs";
import { carryByKeys, expect, type Locator, type Page, printed, restingPlace, test, withDemo } from "./house";

const app = withDemo();

const open = async (page: Page, scale: string) => {
  await page.goto(`${app.address}/studies/${app.demo}/scales`);
  await page.getByRole("button", { name: new RegExp(`^${scale}`) }).click();
  await expect(page.getByRole("button", { name: new RegExp(`^Name of the scale: ${scale}`) })).toBeVisible(); // and no longer the one before
  await expect(page.getByTestId("alpha")).toBeVisible();
};
const saved = (page: Page) => expect(page.getByRole("status").filter({ hasText: "All changes saved" })).toBeVisible();
const computed = () => app.compute(app.demo, "demo/canal-street.csv");
const order = (page: Page) =>
  page.locator('tr[data-testid^="item "]').evaluateAll((rows) => rows.map((row) => row.getAttribute("data-testid")!.slice("item ".length)));
const choose = async (page: Page, word: string | RegExp, typed: string) => {
  await page.getByRole("button", { name: word }).click();
  await page.keyboard.type(typed);
  await page.keyboard.press("Enter");
};

/** Carries one element onto another with the mouse, in steps as a hand does. */
async function carry(page: Page, what: Locator, where: Locator, at = 0.5) {
  await what.scrollIntoViewIfNeeded();
  const from = await restingPlace(what);
  await page.mouse.move(from.x + from.width / 2, from.y + from.height / 2);
  await page.mouse.down();
  await page.mouse.move(from.x + from.width / 2 + 12, from.y + from.height / 2 + 4, { steps: 3 });
  // near an edge the page scrolls along: the hand follows to where the place has gone
  for (let look = 0; look < 3; look++) {
    const to = await restingPlace(where);
    await page.mouse.move(to.x + to.width / 2, to.y + to.height * at, { steps: 12 });
  }
  await page.mouse.up();
}

test("the wrongly keyed item is found and turned, and alpha rises on the page to what the compute command says", async ({ page }) => {
  await open(page, "Classroom anxiety");
  const item = page.getByTestId("item CA3");
  await expect(item).toContainText("wrong way?");
  const before = Number(await page.getByTestId("alpha").textContent());
  expect(before).toBeLessThan(0.5);
  await page.getByRole("button", { name: "Turn CA3 round" }).click();
  await expect.poll(async () => Number(await page.getByTestId("alpha").textContent())).toBeGreaterThan(0.8);
  await expect(item).toContainText("turned round");
  await expect(item).not.toContainText("wrong way?");
  await saved(page);
  const { reliability, counts, description } = (await computed()).scales.classroom_anxiety;
  await expect(page.getByTestId("alpha")).toHaveText(printed(reliability.alpha, 2));
  await expect(page.getByTestId("alpha-standardized")).toHaveText(printed(reliability.alpha_standardized, 2));
  await expect(page.getByTestId("omega")).toHaveText(printed(reliability.one_factor.omega_total, 2));
  await expect(page.getByTestId("composite")).toHaveText(printed(reliability.one_factor.composite_reliability, 2));
  await expect(page.getByTestId("ave")).toHaveText(printed(reliability.one_factor.ave, 2));
  await expect(page.getByTestId("scored")).toHaveText(String(description.n));
  await expect(page.getByTestId("prorated")).toHaveText(String(counts.prorated));
  const cells = item.getByRole("cell");
  await expect(cells.nth(5)).toHaveText(printed(reliability.items.CA3.item_total_r, 2));
  await expect(cells.nth(6)).toHaveText(printed(reliability.items.CA3.alpha_if_dropped, 2));

  await choose(page, /^Reliability by group/, "class format");
  const rows = page.getByTestId("by-group").getByRole("row");
  await expect(rows).toHaveCount(4); // three formats that somebody attends, under the heads
  await saved(page);
  const { groups } = (await computed()).scales.classroom_anxiety;
  await expect(rows.filter({ hasText: "online" })).toContainText(printed(groups.online.reliability.alpha, 2));
  await page.getByText("Among the items:").click();
  // the table of correlations has its looks: heads that stay, room around the numbers
  await expect(page.getByRole("columnheader", { name: "CA1", exact: true })).toHaveCSS("position", "sticky");
  const { inter_item_r: r } = reliability;
  await expect(page.getByTitle(/^CA4 with CA2/)).toHaveText(printed(r.CA4.CA2, 2));
});

test("items are carried: out of the scale, back to a place, onto another scale, into a new one; and moved by keyboard", async ({
  page,
}) => {
  await open(page, "Tutor support");
  await expect.poll(() => order(page)).toEqual(["TS1", "TS2", "TS3", "TS4", "TS5"]);
  const handle = (name: string) => page.getByRole("button", { name: `Move ${name}` });
  const bench = page.getByRole("complementary", { name: "Item bench" });

  await carry(page, handle("TS4"), bench);
  await expect.poll(() => order(page)).toEqual(["TS1", "TS2", "TS3", "TS5"]);
  const loose = bench.getByRole("listitem").filter({ hasText: "TS4" });
  await expect(loose).toBeVisible();
  await carry(page, loose, page.getByTestId("item TS2"));
  await expect.poll(() => order(page)).toEqual(["TS1", "TS4", "TS2", "TS3", "TS5"]);

  await handle("TS4").focus();
  await carryByKeys(
    page,
    ["Space", "at place 2 of the scale"],
    ["ArrowDown", "at place 3 of the scale"],
    ["ArrowDown", "at place 4 of the scale"],
    ["Space", "put down at place 4 of the scale"],
  );
  await expect.poll(() => order(page)).toEqual(["TS1", "TS2", "TS3", "TS4", "TS5"]);

  await carry(page, handle("TS5"), page.getByRole("button", { name: /^Peer belonging/ }));
  await expect.poll(() => order(page)).toEqual(["TS1", "TS2", "TS3", "TS4"]);
  await page.getByRole("button", { name: /^Peer belonging/ }).click();
  await expect.poll(() => order(page)).toEqual(["PB1", "PB2", "PB3", "PB4", "TS5"]);

  // one item may serve several scales: it is said where it stands
  await bench.getByRole("button", { name: /^All 26 items/ }).click();
  await bench.getByLabel(/^TS1 /).check();
  await bench.getByRole("button", { name: "Add TS1 to Peer belonging" }).click();
  await expect(page.getByTestId("item TS1")).toContainText("also in Tutor support");
  await expect(page.getByRole("complementary", { name: "Margin" })).toContainText("TS1 serves Tutor support as well");

  await carry(page, bench.getByRole("listitem").filter({ hasText: "WS1" }), page.getByText("a new scale", { exact: true }));
  await expect(page.getByRole("button", { name: "Name of the scale: New scale" })).toBeVisible();
  for (let i = 0; i < 6; i++) await page.getByRole("button", { name: "Take the last change back" }).click();
  await saved(page);
});

test("items without a scale are gathered by the suggestion, the range declared once, and a click chooses a run of them", async ({
  page,
}) => {
  await open(page, "Peer belonging");
  await page.getByRole("button", { name: "Dissolve this scale" }).click();
  const bench = page.getByRole("complementary", { name: "Item bench" });
  await bench.getByLabel(/^PB1 /).click();
  await bench.getByLabel(/^PB3 /).click({ modifiers: ["Shift"] });
  await bench.getByRole("button", { name: "Make a scale from PB1–PB3" }).click();
  await expect(page.getByRole("button", { name: "Name of the scale: PB" })).toBeVisible();
  await expect.poll(() => order(page)).toEqual(["PB1", "PB2", "PB3"]);
  await page.getByRole("button", { name: "Take the last change back" }).click();
  await bench.getByRole("button", { name: "Gather PB1–PB4 into a scale?" }).click();
  await expect.poll(() => order(page)).toEqual(["PB1", "PB2", "PB3", "PB4"]);
  await page.getByRole("button", { name: "Take the last change back" }).click();
  await page.getByRole("button", { name: "Take the last change back" }).click();
  await saved(page);
});

test("weights, z-scores, a scale of scales and factor scores: the page's numbers are the compute command's", async ({ page }) => {
  await open(page, "Tutor support");
  await page.getByRole("button", { name: "Copy this scale" }).click();
  await expect(page.getByRole("button", { name: "Name of the scale: Tutor support, copy" })).toBeVisible();
  const figures = async (id: string) => {
    await saved(page);
    const { description, counts } = (await computed()).scales[id];
    await expect(page.getByTestId("scored")).toHaveText(String(description.n));
    const full = (x: number) => printed(Math.abs(x) < 1e-10 ? 0 : x, 2).replace(/^(−?)\./, "$10.");
    await expect(page.getByTestId("scale-numbers")).toContainText(`M ${full(description.mean)}, SD ${full(description.sd)}`);
    return { description, counts };
  };
  await choose(page, /^Rule/, "weighted");
  await page.getByRole("button", { name: "Weight of TS2: 1" }).click();
  await page.keyboard.type("2,5");
  await page.keyboard.press("Enter");
  await expect(page.getByRole("button", { name: "Weight of TS2: 2.5" })).toBeVisible();
  const { counts } = await figures("tutor_support_copy");
  expect(counts.prorated).toBe(0);
  await page.getByRole("button", { name: "Weigh by the loadings on one factor" }).click();
  await expect(page.getByRole("button", { name: "What the weights count: the z-scores" })).toBeVisible();
  await expect(page.getByRole("complementary", { name: "Margin" })).toContainText("weights from one factor (maximum likelihood");
  await figures("tutor_support_copy");
  await choose(page, /^Rule/, "bartlett");
  await figures("tutor_support_copy");

  const bench = page.getByRole("complementary", { name: "Item bench" });
  await bench.getByText("Scales as parts of a scale").click();
  await bench.getByLabel(/^Peer belonging/).check();
  await bench.getByLabel(/^Speaking confidence/).check();
  await bench.getByRole("button", { name: "Make a scale from Speaking confidence and Peer belonging" }).click();
  await expect.poll(() => order(page)).toEqual(["speaking_confidence", "peer_belonging"]);
  await expect(page.getByTestId("spearman-brown")).toBeVisible();
  await page.getByRole("button", { name: "Peer belonging turned round" }).click();
  await figures("new_scale");
});

test("intervals of alpha and omega by bootstrap, on request: they hold what they are intervals of, and go with the scale", async ({
  page,
}) => {
  await open(page, "Willingness to speak");
  const { reliability, counts } = (await computed()).scales.willingness_to_speak;
  await page.getByRole("button", { name: "Intervals of α and ω by bootstrap" }).click();
  const line = page.getByTestId("reliability-intervals");
  await expect(line).toContainText(`resamples of ${counts.complete} respondents, seed 1`, { timeout: 30_000 });
  const text = (await line.textContent())!;
  for (const [name, value] of [
    ["α", reliability.alpha],
    ["ω", reliability.one_factor.omega_total],
  ] as const) {
    const [, lower, upper] = new RegExp(`${name} \\[(\\.\\d+), (\\.\\d+)\\]`).exec(text)!;
    expect(Number(lower)).toBeLessThan(value);
    expect(Number(upper)).toBeGreaterThan(value);
    expect(Number(upper) - Number(lower)).toBeLessThan(0.15);
  }
  // another scale has not been asked for
  await open(page, "Classroom anxiety");
  await expect(line.getByRole("button")).toBeVisible();
});

test("the structure of all items: numbers, fixes, other tables, and scales made from the factors", async ({ page }) => {
  await open(page, "Classroom anxiety");
  await page.getByRole("button", { name: "look at the structure of all items" }).click();
  const loadings = page.getByTestId("loadings");
  await expect(loadings).toBeVisible();
  await expect(page.getByRole("button", { name: /^Number of factors: 5 factors, as parallel analysis suggests/ })).toBeVisible();
  await saved(page);
  const { adequacy, parallel_analysis: parallel, ...before } = (await computed()).structures.all_items;
  expect(parallel.retained).toBe(5);
  await expect(page.getByTestId("kmo")).toHaveText(printed(adequacy.kmo, 2));
  await expect(page.getByTestId("sphericity")).toHaveText(printed(adequacy.bartlett.chi2, 2));
  const row = (item: string) => page.getByTestId(`loading ${item}`).getByRole("cell");
  await expect(row("SC1").nth(1)).toHaveText(printed(before.solution.rotation.loadings.SC1[0], 2));
  await expect(loadings).toContainText("Item");

  // factors held apart that would correlate are pointed out, with the way to let them
  await page.getByRole("button", { name: "Let the factors correlate" }).click();
  await expect(page.getByRole("heading", { name: /^Pattern loadings/ })).toBeVisible();
  await saved(page);
  const { solution } = (await computed()).structures.all_items;
  for (const [item, f] of [
    ["WS2", 1],
    ["TS1", 2],
    ["PB3", 3],
  ] as const)
    // prettier-ignore
    await expect(row(item).nth(1 + f)).toHaveText(new RegExp(`^\\+?${printed(solution.rotation.pattern[item][f], 2)}$`));
  await choose(page, /^Loadings shown/, "structure");
  await expect(row("TS1").nth(3)).toHaveText(printed(solution.rotation.structure.TS1[2], 2));
  await expect(page.getByRole("heading", { name: /^Structure correlations/ })).toContainText("not the table to read");
  await choose(page, /^Order of the items/, "own");
  await expect(page.locator('tr[data-testid^="loading "]').first()).toHaveAttribute("data-testid", "loading SC1");
  const explained = page.getByTestId("explained").getByRole("row").last();
  await expect(explained).toContainText(printed(solution.rotation.variance_rotated[0], 2).replace(/^\./, "0."));
  await page.getByRole("button", { name: "As a table" }).click();
  await expect(page.getByTestId("eigenvalues").getByRole("row").nth(1)).toContainText(printed(parallel.eigenvalue_95[0], 2));
  await page.getByRole("button", { name: "As a picture" }).click();

  const agreement = page.getByTestId("agreement");
  const margin = page.getByRole("complementary", { name: "Margin" });
  await expect(margin).toContainText("Parallel analysis suggests 5 factors");
  await expect(agreement).toContainText(/Tutor support: all 5 items on factor \d, as keyed\./);
  const picture = page.waitForEvent("download");
  await page.getByRole("button", { name: "Save SVG" }).click();
  const svg = readFileSync((await (await picture).path())!, "utf8");
  expect(svg).toMatch(/^<svg [^>]*xmlns="http:\/\/www\.w3\.org\/2000\/svg"/);
  expect(svg).toContain("font/woff2;base64,");
  expect(svg).not.toContain("var(--");
  const png = page.waitForEvent("download");
  await page.getByRole("button", { name: "Save PNG" }).click();
  expect(
    readFileSync((await (await png).path())!)
      .subarray(1, 4)
      .toString(),
  ).toBe("PNG");
  const csv = page.waitForEvent("download");
  await page.getByRole("button", { name: "CSV", exact: true }).click();
  const line = readFileSync((await (await csv).path())!, "utf8").split("\r\n").find((text) => text.startsWith("TS1,"))!; // prettier-ignore
  expect(Number(line.split(",")[3])).toBe(solution.rotation.pattern.TS1[2]);

  await choose(page, /^How scales from factors are scored/, "weights");
  await page.getByRole("button", { name: "Make 5 scales from these factors" }).click();
  await expect(page.getByRole("button", { name: /^Name of the scale: .*, factor 1$/ })).toBeVisible();
  await expect(page.getByRole("complementary", { name: "Margin" })).toContainText("weights from factor 1 of 5 of “All items”");
  await saved(page);
  const { scales } = await computed();
  const made = Object.keys(scales).filter((id) => /_factor_\d$/.test(id));
  expect(made).toHaveLength(5);
  for (const id of made) expect(scales[id].status).toBe("scored");
  await page.reload();
  await page.getByRole("button", { name: /^All items/ }).click();
  await expect(page.getByTestId("loadings")).toBeVisible();
});

test("a long parallel analysis tells how far it is and can be stopped; nothing of it stays but what was there", async ({ page }) => {
  const items = Array.from({ length: 60 }, (_, i) => `q${i + 1}`);
  const cell = (row: number, i: number) => 1 + ((row * 7 + (i % 4) * row * 3 + i * row * row + i * 5) % 5);
  const lines = Array.from({ length: 200 }, (_, row) => items.map((_, i) => cell(row + 1, i)).join(","));
  await page.goto(app.address);
  await page
    .getByLabel("File of answers")
    .setInputFiles({ name: "many.csv", mimeType: "text/csv", buffer: Buffer.from([items.join(","), ...lines].join("\n")) });
  await page.getByRole("button", { name: "Begin the study" }).click();
  await page.getByRole("link", { name: /^Scales/ }).click();
  await page.getByRole("button", { name: "look at the structure of all items" }).click();
  await expect(page.getByTestId("structure-numbers")).toBeVisible();
  const still = page.getByRole("status").filter({ hasText: "Computing" });
  await choose(page, /^Random data sets/, "5000");
  await expect(still).toContainText(/\d %/);
  await still.getByRole("button", { name: "Stop" }).click();
  await expect(page.getByText("The computation was stopped.")).toBeVisible();
  await expect(page.getByTestId("structure-numbers")).toHaveAttribute("data-outdated", "true");
});

import AxeBuilder from "@axe-core/playwright";
import { expect, type Page, test, withDemo } from "./house";
import { surveyExport } from "./survey-export";

const app = withDemo();

/** Rows of the answers and of the codebook from the eighth on are like those before, and a thousand cells take a minute to look through. */
const MORE_ROWS = ['[role="grid"] [role="row"]:nth-child(n + 9)', '[aria-label="Codebook"] tbody tr:nth-child(n + 13)'];

/**
 * The list of a combobox scrolls with its arrow keys and must not take the focus from it. The rule knows that only of lists whose scrolled element is the
 * listbox itself; that the keys reach the end of a long list has a test below.
 */
const SCROLLED_BY_KEYS = "scrollable-region-focusable: .ant-select-dropdown-list-holder";

// in the page itself (it has no frames), and without a selector for everything that is right: a third of the time
async function faults(page: Page): Promise<string[]> {
  const look = MORE_ROWS.reduce(
    (axe, rows) => axe.exclude(rows),
    new AxeBuilder({ page }).setLegacyMode().options({ resultTypes: ["violations"] }),
  );
  const { violations } = await look.analyze();
  const all = violations.flatMap((v) => v.nodes.map((node) => `${v.id}: ${node.target.join(" ")}`));
  return all.filter((fault) => fault !== SCROLLED_BY_KEYS);
}
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
  ["Theory", "theory", async (page) => expect(page.getByRole("button", { name: "Write the first" })).toBeVisible()],
  [
    "Theory with a hypothesis",
    "theory",
    async (page) => {
      await page.getByRole("button", { name: "Write the first" }).click();
      await page.getByRole("button", { name: /^Rests on:/ }).click();
      await page.keyboard.type("Speaking confidence ×");
      await page.keyboard.press("Enter");
      await expect(page.getByTestId("verdict H1")).toHaveText("supported");
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
  ["Write-up", "write-up", async (page) => expect(page.getByText("not built yet. It will hold")).toBeVisible()],
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
];
for (const [name, path, ready] of screens) {
  test(`${name}: axe finds nothing, and nothing is wider than a window of 1280 or 1024`, async ({ page }) => {
    await page.goto(path === "" ? app.address : place(path));
    await ready(page);
    expect(await faults(page)).toEqual([]);
    for (const width of [1280, 1024]) {
      await page.setViewportSize({ width, height: 800 });
      expect(await page.evaluate(() => document.documentElement.scrollWidth <= window.innerWidth)).toBe(true);
    }
  });
}

test("the arrow keys reach the end of a list of choices longer than its window", async ({ page }) => {
  await page.goto(place("ladders"));
  await page.getByRole("button", { name: /^Respondents:/ }).click();
  const last = page.getByText("Home language family: Sino-Tibetan");
  await expect(last).toBeAttached();
  await expect(last).not.toBeInViewport();
  await page.keyboard.press("ArrowUp"); // from the first to the last
  await expect(last).toBeInViewport();
  await page.keyboard.press("Enter");
  await expect(page.getByRole("button", { name: /^Respondents:/ })).toContainText("Sino-Tibetan");
});

test("mathematical signs come from shipped fonts", async ({ page }) => {
  await page.goto(place("ladders"));
  await page.getByTestId("over-steps").waitFor();
  const loaded = await page.evaluate(async () => {
    await Promise.all([
      document.fonts.load('16px "DejaVu Sans Signs"', "≤≥≠≈√∞∑"),
      document.fonts.load('16px "Source Serif 4 Variable"', "β"),
      document.fonts.load('italic 16px "Source Sans 3 Variable"', "R"),
    ]);
    return [...document.fonts].filter((font) => font.status === "loaded").map((font) => font.family.replaceAll('"', ""));
  });
  expect(loaded).toEqual(expect.arrayContaining(["DejaVu Sans Signs", "Source Serif 4 Variable", "Source Sans 3 Variable"]));
});

test("every part of a ladder is reached and changed with the keyboard alone", async ({ page }) => {
  await page.goto(place("ladders?ladder=exam")); // the screens above have switched terms of the first one off
  await page.getByTestId("over-steps").waitFor();
  const focusOn = async (name: string | RegExp) => {
    for (let presses = 0; presses < 60; presses++) {
      await page.keyboard.press("Tab");
      const label = await page.evaluate(
        () => document.activeElement?.getAttribute("aria-label") ?? document.activeElement?.textContent ?? "",
      );
      if (typeof name === "string" ? label === name : name.test(label)) return;
    }
    throw new Error(`Tab never reached ${String(name)}`);
  };
  await focusOn(/^Interval: 95/);
  await page.keyboard.press("Enter");
  await page.keyboard.type("99");
  await page.keyboard.press("Enter");
  await expect(page.getByRole("button", { name: "Interval: 99 %" })).toBeFocused();
  await focusOn("Remove Age from step 1");
  await page.keyboard.press("Enter");
  await expect(page.getByTestId("age@1")).toBeHidden();
  await focusOn("Take the last change back");
  await page.keyboard.press("Enter");
  await expect(page.getByTestId("age@1")).toBeVisible();
});

test("the answers can be walked through with the arrow keys to the last respondent", async ({ page }) => {
  await page.goto(place("responses"));
  const grid = page.getByRole("grid", { name: "Answers" });
  await expect(page.getByText("L001")).toBeVisible();
  await grid.focus();
  await page.keyboard.press("End");
  for (let i = 0; i < 45; i++) await page.keyboard.press("PageDown");
  await expect(grid).toHaveAttribute("aria-activedescendant", "cell-439-35");
  await expect(page.locator("#cell-439-35")).toHaveText(/\d/);
});

/** Its scripts come late, as on a slow machine. */
async function sleepy(page: Page, path: string) {
  await page.route(/_next\/static\/.*\.js/, async (route) => {
    await new Promise((resolve) => setTimeout(resolve, 1500));
    await route.continue();
  });
  await page.goto(place(path), { waitUntil: "commit" });
}

test("a click that comes before the page is awake is done when it is", async ({ page }) => {
  await sleepy(page, "scales");
  await page.getByRole("button", { name: /^Peer belonging/ }).click();
  await expect(page).toHaveURL(/scales$/); // nothing hears it yet
  await expect(page.getByRole("button", { name: "Name of the scale: Peer belonging" })).toBeVisible();
  await expect(page).toHaveURL(/scales\?scale=/);
});

test("what is typed, marked or handed in before the page is awake is not lost", async ({ page }) => {
  await sleepy(page, "responses");
  const codebook = page.getByRole("region", { name: "Codebook", exact: true });
  await page.getByLabel("Mark SC1", { exact: true }).click();
  await page.getByLabel("Mark SC2", { exact: true }).click();
  await page.getByRole("textbox", { name: "Find in the codebook" }).pressSequentially("TS1");
  const file = { name: "more.csv", mimeType: "text/csv", buffer: Buffer.from("code,age\nN1,31\n") };
  await page.getByLabel("File of answers").setInputFiles(file);
  await expect(codebook.getByRole("row").nth(1)).toContainText("TS1");
  await expect(page.getByText("2 variables at once:")).toBeVisible();
  await expect(page.getByLabel("What the file is")).toBeVisible();
});

test("a choice that is typed and entered before its list has come is taken", async ({ page }) => {
  await sleepy(page, "ladders");
  await page.getByRole("button", { name: "Metric: z-scores (β)" }).click();
  const field = page.locator('input[aria-label="Metric"]');
  await field.press("r");
  await page.keyboard.type("aw");
  await page.keyboard.press("Enter");
  await expect(page.getByRole("button", { name: /^Metric: raw/ })).toBeVisible();
});

test("two choices entered before the list has come, and the letters after them, are all taken", async ({ page }) => {
  await sleepy(page, "ladders");
  await page.getByRole("button", { name: "Add a term to step 1" }).click();
  await page.locator('input[aria-label="Term for step 1"]').focus();
  for (const term of ["practice", "oral"]) {
    await page.keyboard.type(term);
    await page.keyboard.press("Enter");
  }
  await page.keyboard.type("returning"); // whether the list has come by now is the machine's affair: nothing is lost either way
  for (const term of ["Weekly practice hours", "Oral exam"])
    await expect(page.getByRole("button", { name: `Remove ${term} from step 1` })).toBeVisible();
  await expect(page.getByRole("combobox", { name: "Term for step 1" })).toHaveValue("returning");
});

test("the planted 55 is found, counted as missing, and the scale follows", async ({ page }) => {
  await page.goto(place("scales"));
  await page.getByRole("button", { name: /^Peer belonging/ }).click();
  await expect(page.getByText(/PB2 holds 55 once, outside the declared answers/)).toBeVisible();
  const before = Number(await page.getByTestId("alpha").textContent());
  await page.getByRole("button", { name: "Count 55 as missing in PB2" }).click();
  await expect.poll(async () => Number(await page.getByTestId("alpha").textContent())).toBeGreaterThan(before + 0.1);
  await expect(page.getByText(/PB2 holds 55/)).toBeHidden();
});

test("the finder leads to a variable by its wording, to a scale, and does what is asked; ? lists the shortcuts", async ({ page }) => {
  await page.goto(place("ladders"));
  await page.getByTestId("over-steps").waitFor();
  await page.keyboard.press("Control+k");
  const finder = page.getByRole("dialog", { name: "Finder" });
  await expect(finder.getByRole("combobox")).toBeFocused();
  await page.keyboard.type("thread listen");
  await expect(finder.getByRole("option")).toHaveText(["SC3 I lose the thread when others listen"]);
  expect(await faults(page)).toEqual([]);
  await page.keyboard.press("Enter");
  await expect(page).toHaveURL(/responses\?variable=SC3$/);
  await expect(page.getByRole("complementary", { name: "Margin" })).toContainText("SC3");

  await page.getByRole("button", { name: "Find", exact: true }).click();
  await finder.getByRole("combobox").fill("peer");
  await finder.getByRole("option", { name: /^Peer belonging/ }).click();
  await expect(page.getByRole("button", { name: "Name of the scale: Peer belonging" })).toBeVisible();
  await page.goBack();
  await expect(page).toHaveURL(/responses\?variable=SC3$/);

  await page.keyboard.press("Control+k");
  await finder.getByRole("combobox").fill("trail");
  await page.keyboard.press("Enter");
  await expect(page.getByRole("list", { name: "Changes, newest first" })).toBeVisible();
  await page.keyboard.press("Escape");
  await page.keyboard.press("?");
  await expect(page.getByRole("dialog", { name: "Shortcuts" })).toContainText("take the last change back");
  expect(await faults(page)).toEqual([]);
  await page.keyboard.press("Escape");
  await expect(page.getByRole("dialog", { name: "Shortcuts" })).toBeHidden();
});

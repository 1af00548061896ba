import { faults } from "./axe";
import { dropFile, expect, heldBack, type Page, restingPlace, test, withDemo } from "./house";

const app = withDemo();

const place = (name: string) => `${app.address}/studies/${app.demo}/${name}`;

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

test("the Ladders page takes in at most 320 kB of scripts until its numbers stand, and nothing that resamples", async ({ page }) => {
  await page.goto(place("ladders"));
  await page.getByTestId("over-steps").waitFor();
  const scripts = await page.evaluate(() =>
    (performance.getEntriesByType("resource") as PerformanceResourceTiming[])
      .filter((of) => of.name.endsWith(".js"))
      .map((of) => ({ address: of.name, bytes: of.encodedBodySize })),
  );
  const bytes = scripts.reduce((sum, of) => sum + of.bytes, 0);
  expect(bytes).toBeGreaterThan(100_000); // it was counted
  expect(bytes).toBeLessThan(320_000);
  const kernel = "AGFzbQ"; // how every WebAssembly module begins, in the letters it is shipped in
  for (const { address } of scripts) expect(await (await page.request.get(address)).text(), address).not.toContain(kernel);
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
async function sleepy(page: Page, address: string) {
  await page.route(/_next\/static\/.*\.js/, async (route) => {
    await new Promise((resolve) => setTimeout(resolve, 1500));
    await route.continue();
  });
  await page.goto(address, { waitUntil: "commit" });
}

test("a click that comes before the page is awake is done when it is", async ({ page }) => {
  await sleepy(page, place("scales"));
  await page.getByRole("button", { name: /^Peer belonging/ }).click();
  await expect(page).toHaveURL(/scales$/); // nothing hears it yet
  await expect(page.getByRole("button", { name: "Name of the scale: Peer belonging" })).toBeVisible();
  await expect(page).toHaveURL(/scales\?scale=/);
});

test("a part of a picture that is chosen before the page is awake, by pointer or key, is chosen when it is", async ({ page }) => {
  await sleepy(page, place("theory"));
  const picture = page.getByRole("figure", { name: /Willingness to speak, Willingness/ });
  await picture.getByRole("button", { name: "Begin with Speaking confidence" }).click();
  await picture.getByRole("button", { name: "Begin with Tutor support" }).press("Enter");
  await expect(page.getByRole("button", { name: "β of Speaking confidence − β of Tutor support" })).toBeVisible();
});

test("what is typed, marked or handed in before the page is awake is not lost", async ({ page }) => {
  await sleepy(page, place("responses"));
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

test("a file that is dropped before the page is awake is taken; beside the place for it, it never takes the page's own", async ({
  page,
}) => {
  await sleepy(page, app.address);
  const [heading, drop] = [page.getByRole("heading", { level: 1 }), page.getByTestId("drop")];
  await dropFile(heading, "demo/canal-street.csv");
  await dropFile(drop, "demo/canal-street.csv");
  await expect(page.getByRole("button", { name: "Begin the study" })).toBeVisible();
  await dropFile(heading, "demo/canal-street.csv");
  await page.getByRole("button", { name: "Begin the study" }).click();
  await expect(heading).toContainText("440 respondents");
});

test("the keys of the house are heard when the page is awake, though they were pressed before", async ({ page }) => {
  await sleepy(page, place("ladders"));
  await page.getByRole("button", { name: "Find", exact: true }).press("Control+k");
  await expect(page.getByRole("dialog", { name: "Finder" }).getByRole("combobox")).toBeFocused();
});

test("a choice that is typed and entered before its list has come is taken", async ({ page }) => {
  await sleepy(page, place("ladders"));
  await page.getByRole("button", { name: "Metric: z-scores (β)" }).click();
  const field = page.locator('input[aria-label="Metric"]');
  await field.press("r");
  await page.keyboard.type("aw");
  await page.keyboard.press("Enter");
  await expect(page.getByRole("button", { name: /^Metric: raw/ })).toBeVisible();
});

test("two choices entered before the list has come, and the letters after them, are all taken", async ({ page }) => {
  await sleepy(page, place("ladders"));
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

test("what is typed and entered before the finder has come is found when it has", async ({ page }) => {
  const come = await heldBack(page, "Nothing of this study is called so.");
  await page.goto(place("ladders"));
  await page.getByTestId("over-steps").waitFor();
  await page.keyboard.press("Control+k");
  await page.keyboard.type("thread listen");
  for (const key of ["Enter", "Enter"]) await page.keyboard.press(key); // once more, since nothing seems to come
  await expect(page.getByRole("dialog", { name: "Finder" }).getByRole("textbox", { name: "Find" })).toBeFocused();
  come();
  await expect(page).toHaveURL(/responses\?variable=SC3$/);
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

test("what is pressed while the page above it grows does not move away: the click counts", async ({ page }) => {
  await page.goto(place("responses#further"));
  await expect(page.getByText("They cannot have been given:")).toBeAttached();
  const button = page.getByRole("button", { name: "A respondent withdraws" });
  const { x, y, width, height } = await restingPlace(button);
  await page.mouse.move(x + width / 2, y + height / 2);
  await page.mouse.down();
  await page.evaluate(() => {
    const more = document.createElement("div");
    more.style.height = "700px";
    document.querySelector('nav[aria-label="On this page"]')!.after(more);
  });
  await restingPlace(button);
  await page.mouse.up();
  await expect(page.getByLabel("Respondent who withdraws:")).toBeVisible();
});

test("what is pressed counts though the page moves it away before it is let go; what is let go elsewhere does not", async ({ page }) => {
  await page.goto(place("ladders"));
  const button = page.getByRole("button", { name: "+ Step", exact: true });
  const steps = page.getByRole("list", { name: "Steps" }).getByRole("button", { name: /^Name of step/ });
  await expect(page.getByTestId("over-steps")).toBeVisible();
  await expect(steps).toHaveCount(3);
  const press = async (away: number) => {
    const { x, y, width, height } = await restingPlace(button);
    await page.mouse.move(x + width / 2, y + height / 2);
    await page.mouse.down();
    await page.evaluate(() => document.querySelector("main")!.insertAdjacentHTML("afterbegin", '<div style="height: 90px"></div>'));
    await restingPlace(button);
    await page.mouse.move(x + width / 2 + away, y + height / 2);
    await page.mouse.up();
  };
  await press(60);
  await press(0);
  await expect(steps).toHaveCount(4);
});

test("numbers on the axes of every picture stand clear of each other, of a thousandth of a millionth and of billions", async ({ page }) => {
  const part = (k: number, of: number) => ((k * of) % 101) / 101 - 0.5;
  const rows = Array.from({ length: 150 }, (_, k) => {
    const [a, b, c] = [part(k, 37), part(k, 59), part(k, 83)];
    return [30000 + 900 * a, 1e-9 * (1 + b), 4e12 + 1e12 * b + 2e12 * a * b + 9e11 * c].map((v) => v.toPrecision(8)).join(",");
  });
  const file = { name: "sizes.csv", mimeType: "text/csv", buffer: Buffer.from(`income,tiny,wealth\n${rows.join("\n")}\n`) };
  await page.goto(app.address);
  await page.getByLabel("File of answers").setInputFiles(file);
  await page.getByRole("button", { name: "Begin the study" }).click();
  await expect(page.getByRole("heading", { level: 1 })).toContainText("150 respondents");
  const at = page.url().split("/").slice(0, 5).join("/");
  /** Pairs of numbers of a picture that overlap as the browser has set them, and numbers that its edge cuts. */
  const meeting = () =>
    page.locator("main svg[viewBox]").evaluateAll((all) => {
      const faults: string[] = [];
      let seen = 0;
      for (const svg of all) {
        const edge = svg.getBoundingClientRect();
        const numbers = [...svg.querySelectorAll("text")].filter((text) => /^[−\d. ×\u202f⁰¹²³⁴⁵⁶⁷⁸⁹⁻]+$/.test(text.textContent!));
        const boxes = numbers.map((text) => ({ said: text.textContent!, ...text.getBoundingClientRect().toJSON() }) as DOMRect & { said: string }); // prettier-ignore
        seen += boxes.length;
        boxes.forEach((a, i) => {
          if (a.left < edge.left - 1 || a.right > edge.right + 1) faults.push(`${a.said} is cut`);
          // a box has room above and below its digits, a third of it together
          const beside = (b: DOMRect) => Math.min(a.bottom, b.bottom) - Math.max(a.top, b.top) > a.height / 3;
          for (const b of boxes.slice(0, i)) if (a.left < b.right && b.left < a.right && beside(b)) faults.push(`${b.said} on ${a.said}`);
        });
      }
      return { seen, faults };
    });
  await page.goto(`${at}/first-look`);
  await expect(page.getByRole("heading", { name: "How each lies" })).toBeVisible();
  await expect.poll(async () => (await meeting()).seen).toBeGreaterThan(8);
  expect((await meeting()).faults).toEqual([]);
  await page.goto(`${at}/ladders`);
  await page.getByRole("button", { name: "Begin a ladder" }).click();
  await page.getByRole("button", { name: "Outcome: choose an outcome" }).click();
  await page.keyboard.type("wealth");
  await page.keyboard.press("Enter");
  await page.getByRole("button", { name: "Add a term to step 1" }).click();
  for (const term of ["income", "tiny"]) {
    await page.keyboard.type(term);
    await page.keyboard.press("Enter");
  }
  await page.keyboard.press("Escape");
  await page.getByRole("button", { name: "Can the residuals be trusted?" }).click();
  await expect(page.getByText(/^Largest Cook’s distance/)).toBeVisible();
  await expect.poll(async () => (await meeting()).seen).toBeGreaterThan(30);
  expect((await meeting()).faults).toEqual([]);
});

import { readFileSync, writeFileSync } from "node:fs";
import path from "node:path";
import { strFromU8, unzipSync } from "fflate";
import { BetaStep } from "./beta-step";
import { dropFile, expect, type Page, printed, test, withDemo } from "./house";

const app = withDemo();

/** The demo's answers in another writing: semicolons, decimal commas, a byte order mark, bare of any codebook. */
function answersFile(): string {
  const file = path.join(app.data, "evening answers.csv");
  const text = readFileSync("demo/canal-street.csv", "utf8").replaceAll(",", ";").replaceAll(".", ",");
  writeFileSync(file, `\uFEFF${text.replaceAll("\n", "\r\n")}`);
  return file;
}

const tread = (page: Page, name: string) =>
  page.getByRole("navigation", { name: "Places of the study" }).getByRole("link", { name: new RegExp(`^${name}`) });
const codebook = (page: Page) => page.getByRole("region", { name: "Codebook", exact: true });
async function saved(page: Page) {
  await expect(page.getByRole("status").filter({ hasText: "All changes saved" })).toBeVisible();
}

test("from a dropped file to R² change, the paper and a study file, kept over a restart and equal to the compute command", async ({
  page,
}) => {
  test.setTimeout(240_000);
  const complaints: string[] = [];
  page.on("console", (message) => message.type() === "error" && complaints.push(message.text()));
  page.on("request", (request) => {
    if (!request.url().startsWith(app.address) && !/^(data|blob):/.test(request.url())) complaints.push(`outbound: ${request.url()}`);
  });
  const file = answersFile();

  await test.step("the file becomes a study with guessed kinds", async () => {
    await page.goto(app.address);
    await dropFile(page.getByTestId("drop"), file);
    await expect(page.getByText("a semicolon cuts each of the first 300 rows into 36 cells")).toBeVisible();
    await page.getByRole("button", { name: "Begin the study" }).click();
    await expect(page.getByRole("heading", { level: 1 })).toContainText("440 respondents, 36 variables, from evening answers.csv.");
    const row = (name: string) => page.getByRole("row").filter({ has: page.getByRole("button", { name, exact: true }) });
    await expect(row("SC1")).toContainText("scale item");
    await expect(row("format")).toContainText("category");
    await expect(row("learner")).toContainText("code");
    await expect(page.getByRole("grid", { name: "Answers" }).getByRole("gridcell").first()).toHaveText("L001");
  });

  await test.step("the codebook learns the missing code of a whole family at once", async () => {
    for (const [name, low, high] of [
      ["WS1", 1, 7],
      ["TS1", 1, 5],
      ["SC1", 1, 5],
    ] as const) {
      await page.getByRole("button", { name, exact: true }).click();
      await page.getByRole("spinbutton", { name: "Lowest possible answer" }).fill(String(low));
      await page.getByRole("spinbutton", { name: "Highest possible answer" }).fill(String(high));
      await page.getByRole("combobox", { name: "Missing codes" }).fill("-9");
      await page.keyboard.press("Enter");
      await page.getByRole("button", { name: /Keep, with the same kind/ }).click();
    }
    await expect(codebook(page).getByRole("row").filter({ hasText: "WS6" })).toContainText("1 to 7");
    await expect(codebook(page).getByRole("row").filter({ hasText: "WS6" })).toContainText("−9");
  });

  await test.step("items are gathered into scales and a wrongly keyed one is turned round", async () => {
    await tread(page, "Scales").click();
    await page.getByRole("button", { name: "Gather WS1–WS6 into a scale?" }).click();
    await expect(page.getByTestId("alpha")).toBeVisible();
    const before = Number(await page.getByTestId("alpha").textContent());
    await page.getByRole("button", { name: "Turn WS3 round" }).click();
    await expect(page.getByTestId("scale-numbers")).toHaveAttribute("data-outdated", "false");
    await expect.poll(async () => Number(await page.getByTestId("alpha").textContent())).toBeGreaterThan(before + 0.2);
    await page.getByRole("button", { name: "Name of the scale: WS" }).click();
    await page.getByRole("textbox", { name: "Name of the scale" }).fill("Willingness");
    await page.keyboard.press("Enter");
    await page.getByRole("button", { name: "Gather SC1–SC6 into a scale?" }).click();
    for (const item of ["SC3", "SC4"]) await page.getByRole("button", { name: `${item} turned round` }).click();
    await page.getByRole("button", { name: "Gather TS1–TS5 into a scale?" }).click();
    await expect(page.getByTestId("item TS1")).toBeVisible();
  });

  await test.step("a ladder of two steps and a product is written as a sentence, with the keyboard", async () => {
    await tread(page, "Ladders").click();
    await page.getByRole("button", { name: "+ New ladder" }).click();
    await page.getByRole("button", { name: "Outcome: choose an outcome" }).click();
    await page.keyboard.type("willing");
    await page.keyboard.press("Enter");
    await page.getByRole("button", { name: "Add a term to step 1" }).click();
    await page.keyboard.type("age");
    await page.keyboard.press("Enter");
    await page.keyboard.press("Escape");
    await page.getByRole("button", { name: "Add a term to step 2" }).click();
    for (const term of ["SC", "TS"]) {
      await page.keyboard.type(term);
      await page.keyboard.press("Enter");
    }
    await page.keyboard.press("Escape");
    await page.getByRole("button", { name: "+ Step" }).click();
    await page.getByRole("button", { name: "Add a term to step 3" }).click();
    await page.keyboard.type("SC × TS");
    await page.keyboard.press("Enter");
    await page.keyboard.press("Escape");
    await expect(page.getByTestId("step-3").getByTestId("delta-r2")).toBeVisible();
    await saved(page);
  });

  const id = page.url().split("/").at(-2)!;
  const results = await app.compute(id, file);
  const ladder = results.ladders.first_ladder;
  const readPage = async () => {
    await expect(page.getByTestId("coefficients")).toHaveAttribute("data-outdated", "false");
    const steps = await Promise.all(
      [1, 2, 3].map(async (k) => [
        await page.getByTestId(`step-${k}`).getByTestId("r2").textContent(),
        await page.getByTestId(`step-${k}`).getByTestId("delta-r2").textContent(),
      ]),
    );
    const betas = await Promise.all(["sc", "ts", "sc*ts"].map((column) => page.getByTestId(`${column}@3`).textContent()));
    return { steps, betas };
  };
  const expected = {
    steps: [1, 2, 3].map((k) => [printed(ladder.steps[k].model.R2, 3), printed(ladder.steps[k].change.dR2, 3)]),
    betas: ["sc", "ts", "sc*ts"].map((column) => printed(ladder.standardized["3"][column].beta, 2)),
  };

  await test.step("the page shows what the compute command computes", async () => {
    expect(ladder.sample.used).toBeGreaterThan(400);
    expect(await readPage()).toEqual(expected);
    await page.getByText("Step 3 in full").click();
    const row = page.getByTestId("full sc*ts");
    await expect(row.getByRole("cell").first()).toHaveText(printed(ladder.steps["3"].coef["sc*ts"].b, 2).replace(/^(−?)\./, "$10."));
    await expect(page.getByRole("heading", { level: 1 })).toContainText(`(${ladder.sample.used} of 440)`);
  });

  await test.step("the table is saved as CSV at full precision and as HTML", async () => {
    const download = async (name: string) => {
      const [file] = await Promise.all([page.waitForEvent("download"), page.getByRole("button", { name, exact: true }).click()]);
      return readFileSync(await file.path(), "utf8");
    };
    const csv = await download("CSV");
    expect(csv).toContain(String(ladder.steps["3"].coef["sc*ts"].b));
    expect(await download("HTML")).toContain(`Δ<i>R</i>²\u00a0=\u00a0${expected.steps[2]![1]}`);
  });

  await test.step("after a restart of the server all is still there", async () => {
    await app.stop();
    await app.start();
    await page.goto(`${app.address}/studies/${id}/ladders`);
    await expect(page.getByRole("button", { name: "Outcome: Willingness" })).toBeVisible();
    expect(await readPage()).toEqual(expected);
  });

  await test.step("dropping a main effect is watched, and its fix brings the numbers back", async () => {
    await page.getByRole("button", { name: "Remove TS from step 2" }).click();
    await expect(page.getByText("Step 3 holds SC × TS without TS.")).toBeVisible();
    await page.getByRole("button", { name: "Add TS to step 3" }).click();
    await expect(page.getByText("Step 3 holds SC × TS without TS.")).toBeHidden();
    await page.getByRole("button", { name: "Take the last change back" }).click();
    await expect(page.getByText("Step 3 holds SC × TS without TS.")).toBeVisible();
    await page.getByRole("button", { name: "Take the last change back" }).click();
    await expect.poll(readPage).toEqual(expected);
  });

  await test.step("the paper is there, by the same numbers; another way of testing is told at its blocks, and brought up to date", async () => {
    await tread(page, "Write-up").click();
    const state = page.getByTestId("write-up-state");
    const paper = page.getByRole("article", { name: "Manuscript" });
    await expect(state).toHaveText("Every number is as it stands now.");
    await expect(paper).toContainText(`ΔR² = ${printed(ladder.steps["3"].change.dR2, 3)}, F(1, `);
    await expect(paper).toContainText(`SC × TS (β = ${printed(ladder.standardized["3"]["sc*ts"].beta, 2)}`);
    await saved(page);
    await tread(page, "Ladders").click();
    await page.getByRole("button", { name: /^Errors:/ }).click();
    await page.keyboard.type("HC3");
    await page.keyboard.press("Enter");
    await saved(page);
    await tread(page, "Write-up").click();
    await expect(state).toContainText("out of date.");
    await page.getByRole("button", { name: "Bring all up to date" }).click();
    await expect(state).toHaveText("Every number is as it stands now.");
    await expect(paper).toContainText("Least squares with HC3 standard errors.");
    const robust = (await app.compute(id, file)).ladders.first_ladder.robust_hc3["3"].coef["sc*ts"];
    await expect(paper.getByRole("row", { name: /^SC × TS/ }).last()).toContainText(printed(robust.se, 2).replace(/^\./, "0."));
  });

  await test.step("it leaves as a document, and as a study file that an empty installation opens with the same page and numbers", async () => {
    const keep = async (name: string) => {
      const [given] = await Promise.all([page.waitForEvent("download"), page.getByRole("button", { name, exact: true }).click()]);
      return (await given.path())!;
    };
    const xml = strFromU8(unzipSync(readFileSync(await keep("Save as DOCX")))["word/document.xml"]!);
    const letters = xml.replace(/<[^>]+>/g, "").replace(/\u00a0/g, " ");
    expect(letters).toContain(`R² = ${printed(ladder.steps["3"].model.R2, 3)}`);
    const zip = await keep("Save the study file");
    expect(await app.verify(zip)).toMatchObject({ code: 0 });
    const manuscript = page.getByRole("article", { name: "Manuscript" });
    const text = await manuscript.textContent(); // of tables too that are too far off to be laid out
    const other = new BetaStep(app.port + 200);
    await other.start();
    try {
      await page.goto(other.address);
      await page.getByLabel("File of answers").setInputFiles(zip);
      await page.getByRole("button", { name: "Open the study" }).click();
      await expect(page.getByTestId("write-up-state")).toHaveText("Every number is as it stands now.");
      await expect(manuscript).toHaveText(text!);
      await page.goto(`${page.url().replace(/write-up$/, "ladders")}`);
      expect(await readPage()).toEqual(expected);
    } finally {
      await page.goto("about:blank"); // it would go on fetching what it may need
      await other.stop();
      other.remove();
    }
  });
  expect(complaints.filter((one) => !one.includes(`:${app.port + 200}/`))).toEqual([]);
});

import { readFileSync } from "node:fs";
import { connect, type Socket } from "node:net";
import { expect, notToBeHad, type Page, test, withDemo } from "./house";

const app = withDemo();
/** Alerts of ours: the framework keeps one of its own on every page. */
const alert = (page: Page) => page.locator('[role="alert"]:not(#__next-route-announcer__)');

const files: [string, string | Buffer, RegExp][] = [
  ["short row.csv", "a,b\n1,2\n3\n", /Row 3 has 1 cell; the header has 2/],
  ["long.csv", `${"x".repeat(300)},b\n1,2\n`, /longer than 200 characters/],
  ["header only.csv", "a,b\n", /no rows of answers/],
  ["picture.csv", Buffer.from([0x89, 0x50, 0x4e, 0x47, 0, 0]), /not text|UTF-8/],
  ["cut.xlsx", readFileSync("src/files/reading/fixtures/answers.xlsx").subarray(0, 3000), /damaged or was cut short/],
];

test("a malformed file gets a sentence with the row, and nothing half-imported stays", async ({ page, request }) => {
  const studies = async () => (await (await request.get(`${app.address}/api/studies`)).json()) as unknown[];
  const before = await studies();
  await page.goto(app.address);
  for (const [name, content, words] of files) {
    await page.getByLabel("File of answers").setInputFiles({ name, mimeType: "text/csv", buffer: Buffer.from(content as string) });
    await expect(alert(page)).toContainText(words);
    const leave = page.getByRole("button", { name: "Leave it" });
    if (await leave.isVisible()) {
      await expect(page.getByRole("button", { name: "Begin the study" })).toBeDisabled();
      await leave.click();
    }
  }
  expect(await studies()).toEqual(before);
});

test("a good file after a bad one is taken in", async ({ page }) => {
  await page.goto(app.address);
  await page.getByLabel("File of answers").setInputFiles({ name: "bad.csv", mimeType: "text/csv", buffer: Buffer.from("a,b\n") });
  await expect(alert(page)).toContainText("no rows");
  await page.getByRole("button", { name: "Leave it" }).click();
  await page
    .getByLabel("File of answers")
    .setInputFiles({ name: "good.csv", mimeType: "text/csv", buffer: Buffer.from("a,b\n1,2\n3,4\n") });
  await page.getByRole("button", { name: "Begin the study" }).click();
  await expect(page.getByRole("heading", { level: 1 })).toContainText("2 respondents, 2 variables, from good.csv.");
});

test("writes from elsewhere, unknown studies and nonsense are turned away in a sentence", async ({ request, page }) => {
  const edits = `${app.address}/api/studies/${app.demo}/edits`;
  const body = { revision: 1, edits: [{ subject: "name", to: "Taken over" }] };
  expect((await request.post(edits, { data: body, headers: { origin: "http://evil.example" } })).status()).toBe(403);
  const malformed = await request.post(edits, { data: { revision: 1, edits: [{ subject: "colour" }] } });
  expect([malformed.status(), (await malformed.json()).code]).toEqual([400, "malformed-request"]);
  expect((await request.post(edits, { data: body })).status()).toBe(409);
  expect((await request.get(`${app.address}/api/studies/none`)).status()).toBe(404);
  const lost = await page.goto(`${app.address}/studies/none/ladders`);
  expect(lost!.status()).toBe(404);
  await expect(page.getByText("There is no such page on this machine.")).toBeVisible();
});

/** A connection of which nothing is known but what is sent on it. */
async function connection(): Promise<Socket> {
  const { hostname, port } = new URL(app.address);
  const socket = connect(Number(port), hostname);
  await new Promise((resolve) => socket.once("connect", resolve));
  return socket;
}

test("told to end, the house does: a connection on which nothing is asked does not hold it, what is being asked is answered first", async () => {
  const { revision } = (await (await app.ask(`/api/studies/${app.demo}`)).json()) as { revision: number };
  const body = JSON.stringify({ revision, edits: [{ subject: "name", to: "Told before the end" }] });
  /** Begins to send a change, and no more than so much of it; the server has heard of it. */
  const begin = async (sent: string) => {
    const socket = await connection();
    let said = "";
    socket.on("data", (piece) => (said += String(piece)));
    const place = `POST /api/studies/${app.demo}/edits HTTP/1.1`;
    const head = [place, `host: ${new URL(app.address).host}`, "content-type: application/json", `authorization: Bearer ${app.key}`];
    socket.write(`${[...head, `content-length: ${body.length}`, "expect: 100-continue"].join("\r\n")}\r\n\r\n`);
    await expect.poll(() => said).toMatch(/^HTTP\/1.1 100 /);
    socket.write(sent);
    return { socket, said: () => said.slice(said.indexOf("\r\n\r\n") + 4) };
  };
  const silent = await connection(); // as browsers open one ahead
  const asking = await begin(body.slice(0, 20));
  const ending = app.stop();
  await new Promise((resolve) => silent.once("close", resolve));
  expect(asking.said()).toBe("");
  asking.socket.write(body.slice(20));
  await ending;
  expect(asking.said()).toMatch(/^HTTP\/1.1 200 /);
  await app.start();
  expect(await (await app.ask(`/api/studies/${app.demo}`)).json()).toMatchObject({ study: { name: "Told before the end" } });

  const never = await begin("{"); // and never goes on
  await app.stop();
  never.socket.destroy();
  await app.start();
});

test("while the server is away the page keeps changes and saves them when it is back", async ({ page }) => {
  await page.goto(`${app.address}/studies/${app.demo}/ladders`);
  await expect(page.getByTestId("over-steps")).toBeVisible();
  await app.stop();
  await page.getByRole("button", { name: "Remove Age from step 1" }).click();
  await expect(alert(page).filter({ hasText: "kept on this page" })).toBeVisible();
  await expect(page.getByTestId("age@1")).toBeHidden(); // computed on this machine all the same
  await app.start();
  await expect(page.getByRole("status").filter({ hasText: "All changes saved" })).toBeVisible({ timeout: 15_000 });
  await page.reload();
  await expect(page.getByTestId("months_enrolled@1")).toBeVisible();
  await expect(page.getByTestId("age@1")).toBeHidden();
});

test("a page that has come to rest has fetched what it may show: with the server away a step is told in full, and the shortcuts", async ({
  page,
}) => {
  const scripts: string[] = [];
  page.on("response", (response) => {
    if (response.url().includes("/chunks/")) void response.text().then((text) => scripts.push(text), () => undefined); // prettier-ignore
  });
  await page.goto(`${app.address}/studies/${app.demo}/ladders`);
  await expect(page.getByTestId("over-steps")).toBeVisible();
  for (const words of ['"anova"', '"equation"', "take the last change back"])
    await expect.poll(() => scripts.some((text) => text.includes(words)), { timeout: 60_000 }).toBe(true);
  await app.stop();
  await page.getByText("Step 3 in full").click();
  await expect(page.getByTestId("anova")).toBeVisible();
  await expect(page.getByTestId("equation")).toContainText("Predicted Willingness to speak");
  await page.keyboard.press("?");
  await expect(page.getByRole("dialog", { name: "Shortcuts" })).toBeVisible();
});

test("where finder and editor cannot be fetched it is said, and what is written in plain letters stands in the text with its numbers", async ({
  page,
}) => {
  await notToBeHad(page, "ProseMirror");
  await notToBeHad(page, "Nothing of this study is called so.");
  await page.goto(`${app.address}/studies/${app.demo}/write-up`);
  const paragraph = page
    .getByRole("article", { name: "Manuscript" })
    .getByRole("region", { name: /^the paragraph on Willingness to speak/ });
  await paragraph.press("Enter");
  await expect(paragraph.getByRole("status")).toHaveText(/^Beta Step does not answer, so this is written in plain letters/);
  await page.keyboard.type(" So much for the steps.");
  await page.keyboard.press("Escape");
  await expect(paragraph).toContainText("with 95 % intervals. So much for the steps.");
  expect(await paragraph.locator("[data-live]").count()).toBeGreaterThan(10);
  await page.keyboard.press("Control+k");
  await expect(page.getByRole("dialog", { name: "Finder" }).getByRole("status")).toHaveText(
    "Beta Step does not answer, so nothing can be found just now.",
  );
  await page.keyboard.press("Escape");
  await expect(page.getByRole("dialog", { name: "Finder" })).toBeHidden();
});

test("what writes a file, and a part of the page, are told to be missing where they cannot be fetched, and come when they can", async ({
  page,
}) => {
  await notToBeHad(page, "ddi:codebook:2_5");
  await notToBeHad(page, "take the last change back");
  await page.goto(`${app.address}/studies/${app.demo}/responses`);
  await page.getByRole("button", { name: "DDI Codebook 2.5 (XML)" }).click();
  const told = page.getByRole("alert").filter({ hasText: "What you asked for could not be fetched: Beta Step does not answer." });
  await told.getByRole("button", { name: "Close" }).click();
  await expect(told).toBeHidden();
  await page.getByRole("heading", { level: 1 }).click();
  await page.keyboard.press("?");
  const missing = page.getByRole("alert").filter({ hasText: "This part could not be fetched" });
  await expect(missing).toBeVisible();
  await page.unrouteAll({ behavior: "wait" });
  await missing.getByRole("button", { name: "Try again" }).click();
  await expect(page.getByRole("dialog", { name: "Shortcuts" })).toBeVisible();
  await page.keyboard.press("Escape");
  const saved = page.waitForEvent("download");
  await page.getByRole("button", { name: "DDI Codebook 2.5 (XML)" }).click();
  expect((await saved).suggestedFilename()).toBe("codebook.xml");
});

test("a reading that is stopped leaves nothing, and the file can be taken after all", async ({ page, request }) => {
  const studies = async () => (await (await request.get(`${app.address}/api/studies`)).json()).length as number;
  const before = await studies();
  const row = Array.from({ length: 60 }, (_, k) => k % 7).join(",");
  const text = `${Array.from({ length: 60 }, (_, k) => `q${k + 1}`).join(",")}\n${`${row}\n`.repeat(150_000)}`;
  await page.goto(app.address);
  await page.getByLabel("File of answers").setInputFiles({ name: "long.csv", mimeType: "text/csv", buffer: Buffer.from(text) });
  await page.getByRole("button", { name: "Begin the study" }).click();
  await expect(page.getByText(/rows read …/)).toBeVisible(); // it is in the middle of the file
  await page.getByRole("button", { name: "Stop" }).click();
  await expect(page.getByRole("button", { name: "Begin the study" })).toBeVisible();
  await page.waitForTimeout(500);
  expect(await studies()).toBe(before);
  await page.getByRole("button", { name: "Begin the study" }).click();
  await expect(page.getByRole("heading", { level: 1 })).toContainText("150\u202f000 respondents", { timeout: 60_000 });
});

test("however slowly a page wakes up, its columns are fetched once", async ({ page }) => {
  const session = await page.context().newCDPSession(page);
  await session.send("Emulation.setCPUThrottlingRate", { rate: 6 });
  let asked = 0;
  page.on("request", (request) => {
    if (/\/api\/datasets\/[^/]+\/columns/.test(request.url())) asked++;
  });
  await page.goto(`${app.address}/studies/${app.demo}/ladders`);
  await expect(page.getByTestId("over-steps")).toBeVisible({ timeout: 60_000 });
  expect(asked).toBe(1);
});

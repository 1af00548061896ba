import { expect, test } from "@playwright/test";
import { withDemo } from "./beta-step";

const app = withDemo();

const files: [string, string | Buffer, RegExp][] = [
  ["short row.csv", "a,b\n1,2\n3\n", /Line 3 has 1 cell; the header has 2/],
  ["twice.csv", "age,age\n1,2\n", /both called "age"/],
  ["header only.csv", "a,b\n", /no rows of answers/],
  ["latin.csv", Buffer.from([97, 10, 0xe9, 10]), /not written in UTF-8/],
  ["picture.csv", Buffer.from([0x89, 0x50, 0x4e, 0x47, 0, 0]), /not text|UTF-8/],
];

test("a malformed file gets a sentence with the line, and nothing half-imported stays", async ({ page, request }) => {
  await page.goto(app.address);
  for (const [name, content, words] of files) {
    await page.getByLabel("CSV file").setInputFiles({ name, mimeType: "text/csv", buffer: Buffer.from(content as string) });
    await expect(page.getByRole("alert").filter({ hasText: name })).toContainText(words);
  }
  expect(await (await request.get(`${app.address}/api/studies`)).json()).toHaveLength(1);
});

test("a good file after a bad one is taken in", async ({ page }) => {
  await page.goto(app.address);
  await page.getByLabel("CSV file").setInputFiles({ name: "bad.csv", mimeType: "text/csv", buffer: Buffer.from("a,b\n1\n") });
  await expect(page.getByRole("alert").filter({ hasText: "bad.csv" })).toBeVisible();
  await page.getByLabel("CSV file").setInputFiles({ name: "good.csv", mimeType: "text/csv", buffer: Buffer.from("a,b\n1,2\n3,4\n") });
  await expect(page.getByRole("heading", { level: 1 })).toHaveText("2 respondents, 2 variables, from good.csv.");
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

test("while the server is away the page keeps changes and saves them when it is back", async ({ page }) => {
  await page.goto(`${app.address}/studies/${app.demo}/ladders`);
  await expect(page.getByTestId("over-steps")).toBeVisible();
  await app.stop();
  await page.getByRole("button", { name: "Remove Age from step 1" }).click();
  await expect(page.getByRole("alert").filter({ hasText: "kept on this page" })).toBeVisible();
  await expect(page.getByTestId("age@1")).toBeHidden(); // computed on this machine all the same
  await app.start();
  await expect(page.getByRole("status").filter({ hasText: "All changes saved" })).toBeVisible({ timeout: 15_000 });
  await page.reload();
  await expect(page.getByTestId("months_enrolled@1")).toBeVisible();
  await expect(page.getByTestId("age@1")).toBeHidden();
});

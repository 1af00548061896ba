import { expect, test, withDemo } from "./house";

const app = withDemo();

test.describe("from outside", () => {
  test.use({ storageState: { cookies: [], origins: [] } });

  test("without the key nothing is shown; with it the address loses it, and a cookie keeps the way in", async ({
    page,
    request,
    context,
  }) => {
    const place = `${app.address}/studies/${app.demo}/ladders`;
    expect((await request.get(`${app.address}/api/studies/${app.demo}`)).status()).toBe(401);
    expect((await page.goto(place))!.status()).toBe(401);
    await expect(page.getByText("Beta Step is locked.")).toBeVisible();
    expect(await page.content()).not.toContain("Canal Street");
    await page.getByLabel("Key").fill("guessed");
    await page.keyboard.press("Enter");
    await expect(page.getByText("Beta Step is locked.")).toBeVisible();
    await page.goto(`${place}?step=2&key=${app.key}`);
    await expect(page).toHaveURL(/ladders\?step=2$/);
    await expect(page.getByTestId("over-steps")).toBeVisible();
    expect(await context.cookies()).toMatchObject([{ httpOnly: true, sameSite: "Strict" }]);
  });

  test("under another name than this machine's nothing answers, pages neither", async ({ request }) => {
    for (const place of ["/", `/studies/${app.demo}/ladders`, "/api/studies", "/%ff"]) {
      const answer = await request.get(`${app.address}${place}`, { headers: { host: "evil.example", authorization: `Bearer ${app.key}` } });
      expect([place, answer.status()]).toEqual([place, 403]);
      expect(await answer.text()).not.toContain("Canal Street");
    }
  });
});

test("an address that cannot be read gets a sentence", async ({ page, request }) => {
  expect((await page.goto(`${app.address}/studies/%ff/ladders`))!.status()).toBe(400);
  await expect(page.getByText("the address cannot be read")).toBeVisible();
  expect((await request.get(`${app.address}/api/studies/%ff`)).status()).toBe(400);
});

test("a study is deleted, taken back, and erased for good by its name", async ({ page }) => {
  await page.goto(app.address);
  await page.getByRole("button", { name: "Delete Canal Street evening classes" }).click();
  await expect(page.getByRole("link", { name: "Canal Street evening classes" })).toBeHidden();
  await page.getByRole("button", { name: "Take Canal Street evening classes back" }).click();
  await expect(page.getByRole("link", { name: "Canal Street evening classes" })).toBeVisible();
  await page.getByRole("button", { name: "Delete Canal Street evening classes" }).click();
  await page.getByRole("button", { name: "Erase Canal Street evening classes for good now" }).click();
  await expect(page.getByRole("button", { name: "Erase for good", exact: true })).toBeDisabled();
  await page.getByLabel("Its name, to be sure:").fill("Canal Street evening classes");
  await page.keyboard.press("Enter");
  await expect(page.getByRole("heading", { name: "Deleted" })).toBeHidden();
  expect((await page.goto(`${app.address}/studies/${app.demo}/ladders`))!.status()).toBe(404);
});

test("two windows that change different things of one study keep both, and a change that is not saved outlives a reload", async ({
  page,
  context,
}) => {
  await page.goto(`${app.address}/studies/${app.demo}/ladders`);
  await expect(page.getByTestId("over-steps")).toBeVisible();
  const other = await context.newPage();
  await other.goto(`${app.address}/studies/${app.demo}/scales`);
  await other.getByRole("button", { name: /^Peer belonging/ }).click();
  await other.getByRole("button", { name: "Count 55 as missing in PB2" }).click();
  await expect(other.getByRole("status").filter({ hasText: "All changes saved" })).toBeVisible();
  await page.route("**/edits", (route) => route.fulfill({ status: 507, json: { code: "disk-full", message: "The disk is full." } }));
  await page.getByRole("button", { name: "Remove Age from step 1" }).click();
  await expect(page.getByText("The disk is full. Your changes are kept on this page")).toBeVisible();
  await page.unroute("**/edits");
  await page.reload();
  await expect(page.getByTestId("months_enrolled@1")).toBeVisible();
  await expect(page.getByTestId("age@1")).toBeHidden();
  const { study } = await (await page.request.get(`${app.address}/api/studies/${app.demo}`)).json();
  expect(study.codebook.find((v: { name: string }) => v.name === "PB2").missing).toContain("55");
  expect(JSON.stringify(study.ladders[0].steps[0])).not.toContain('"age"');
});

test("a respondent withdraws: the row is gone, nothing before can be gone back to, and the ladder says that one withdrew", async ({
  page,
}) => {
  await page.goto(`${app.address}/studies/${app.demo}/responses#further`);
  await expect(page.getByRole("heading", { level: 1 })).toContainText("440 respondents");
  await page.getByRole("button", { name: "A respondent withdraws" }).click();
  await page.getByLabel("Respondent who withdraws:").fill("nobody");
  await page.keyboard.press("Enter");
  await expect(page.getByText("There is no such respondent.")).toBeVisible();
  await page.getByLabel("Respondent who withdraws:").fill("17");
  await page.keyboard.press("Enter");
  await expect(page.getByText("Row 17 of 440 is erased")).toBeVisible();
  await page.getByRole("button", { name: "Erase this respondent for good" }).click();
  await expect(page.getByRole("heading", { level: 1 })).toContainText("439 respondents");
  await expect(page.getByRole("button", { name: "Take the last change back" })).toBeHidden();
  await page.getByRole("button", { name: "Trail" }).click();
  await expect(page.getByText("One respondent withdrew and was erased.")).toBeVisible();
  await expect(page.getByRole("button", { name: /^Go back to how it stood/ })).toBeHidden();
  await page.goto(`${app.address}/studies/${app.demo}/ladders`);
  await expect(page.getByText("1 respondent withdrew and was erased.")).toBeVisible();
});

import { expect, type Page, test } from "@playwright/test";
import { withDemo } from "./beta-step";

const app = withDemo();

const shot = async (page: Page, name: string) => {
  await page.waitForTimeout(400); // fonts and the last frame
  await page.screenshot({ path: `docs/screenshots/${name}.png` });
};
const place = (name: string) => `${app.address}/studies/${app.demo}/${name}`;

test("pictures of the main views", async ({ page }) => {
  await page.goto(app.address);
  await shot(page, "studies");
  await page.goto(place("responses"));
  await page.getByRole("button", { name: "PB2", exact: true }).click();
  await expect(page.getByText("55 stands once")).toBeVisible();
  await shot(page, "responses");
  await page.evaluate(() => document.getElementById("checks")!.scrollIntoView());
  await shot(page, "checks");
  await page.evaluate(() => document.getElementById("missing")!.scrollIntoView());
  await shot(page, "missing");
  await page.getByRole("button", { name: "age", exact: true }).click();
  await page.getByRole("button", { name: "cut into ranges" }).click();
  await page.getByRole("button", { name: "Three" }).click();
  await page.evaluate(() => document.getElementById("derived")!.scrollIntoView());
  await shot(page, "ranges");
  await page.getByRole("button", { name: "Make nothing" }).click();
  await page.getByRole("button", { name: "Leave the later ones out" }).click();
  await page.getByRole("button", { name: "Trail", exact: true }).click();
  await expect(page.getByText("Filter Duplicates made.")).toBeVisible();
  await shot(page, "trail");
  await page.keyboard.press("Escape");
  await page.getByRole("button", { name: "Take the last change back" }).click();
  await page.goto(app.address);
  const latin = Buffer.from("Kennung;Alter;Größe;Beginn\nA1;23;1,75;2024-03-01\nA2;31;1,62;2024-04-15\nA3;44;1,80;2024-05-13\n", "latin1");
  await page.getByLabel("File of answers").setInputFiles({ name: "answers.csv", mimeType: "text/csv", buffer: latin });
  await expect(page.getByRole("button", { name: "Begin the study" })).toBeVisible();
  await shot(page, "arrived");
  await page.goto(place("scales"));
  await page.getByRole("button", { name: /^Classroom anxiety/ }).click();
  await expect(page.getByTestId("alpha")).toBeVisible();
  await shot(page, "scales");
  await page.getByRole("button", { name: "look at the structure of all items" }).click();
  await expect(page.getByTestId("loadings")).toBeVisible();
  await shot(page, "structure");
  await page.getByRole("button", { name: "Let the factors correlate" }).click();
  await expect(page.getByRole("heading", { name: /^Pattern loadings/ })).toBeVisible();
  await page.evaluate(() => document.getElementById("loadings")!.scrollIntoView());
  await shot(page, "loadings");
  await page.goto(place("ladders"));
  await expect(page.getByTestId("over-steps")).toBeVisible();
  await shot(page, "ladders");
  await page.getByText("Step 3 in full").click();
  await shot(page, "step-in-full");
  await page.goto(place("theory"));
  await shot(page, "theory");
});

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
  await page.goto(place("scales"));
  await page.getByRole("button", { name: /^Classroom anxiety/ }).click();
  await expect(page.getByTestId("alpha")).toBeVisible();
  await shot(page, "scales");
  await page.goto(place("ladders"));
  await expect(page.getByTestId("over-steps")).toBeVisible();
  await shot(page, "ladders");
  await page.getByText("Step 3 in full").click();
  await shot(page, "step-in-full");
  await page.goto(place("theory"));
  await shot(page, "theory");
});

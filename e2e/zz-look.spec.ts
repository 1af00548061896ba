import { test, withDemo } from "./house";
const app = withDemo();
test("look", async ({ page }) => {
  await page.setViewportSize({ width: 1280, height: 800 });
  await page.goto(`${app.address}/studies/${app.demo}/theory?hypothesis=h5`);
  await page.getByTestId("verdict H5").waitFor();
  await page.waitForTimeout(2500);
  await page.screenshot({ path: "/tmp/look1.png" });
  await page.getByRole("button", { name: "Begin with Age" }).click();
  await page.getByRole("button", { name: "Begin with Tutor support" }).click();
  await page.mouse.wheel(0, 500);
  await page.waitForTimeout(500);
  await page.screenshot({ path: "/tmp/look2.png" });
});

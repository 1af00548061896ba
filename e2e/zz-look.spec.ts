import { test, withDemo } from "./house";
const app = withDemo();
test("look", async ({ page }) => {
  await page.setViewportSize({ width: 1280, height: 800 });
  page.on("console", (m) => console.log(m.type(), m.text()));
  page.on("pageerror", (e) => console.log("PAGEERROR", e.message, e.stack));
  await page.goto(`${app.address}/studies/${app.demo}/write-up`);
  await page.waitForTimeout(6000);
  console.log(await page.getByTestId("write-up-state").textContent());
  await page.screenshot({ path: "/tmp/look1.png" });
  await page.getByRole("region", { name: "Table 2" }).first().click();
  await page.waitForTimeout(300);
  await page.screenshot({ path: "/tmp/look2.png" });
});

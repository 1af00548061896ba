import { readFileSync } from "node:fs";
import { expect, printed, test, withDemo } from "./house";

const app = withDemo();

/** The stops of docs/one-number.md, each looked at from outside. */
test("one β from the cell to the page", async ({ page, request }) => {
  const [header, ...rows] = readFileSync("demo/canal-street.csv", "utf8")
    .trim()
    .split("\n")
    .map((line) => line.split(","));
  const column = header!.indexOf("SC3");
  expect(rows[1]![column]).toBe("1"); // 1 the cell

  await page.goto(`${app.address}/studies/${app.demo}/responses`);
  const grid = page.getByRole("grid", { name: "Answers" });
  await page.getByRole("button", { name: "SC3", exact: true }).click();
  await expect(grid.locator(`#cell-1-${column}`)).toHaveText("1"); // 3 the column, as the server hands it out

  const { study } = await (await request.get(`${app.address}/api/studies/${app.demo}`)).json();
  const variable = study.codebook.find((v: { name: string }) => v.name === "SC3");
  expect([variable.range, variable.missing]).toEqual([{ low: 1, high: 5 }, ["-9"]]); // 4 the codebook

  const results = await app.compute(app.demo, "demo/canal-street.csv");
  const items = ["SC1", "SC2", "SC3", "SC4", "SC5", "SC6"];
  const answers = items.map((name) => Number(rows[1]![header!.indexOf(name)]));
  expect(answers.every((a) => a >= 1 && a <= 5)).toBe(true);
  const turned = answers.map((a, i) => (items[i] === "SC3" || items[i] === "SC4" ? 6 - a : a)); // 7 the turn
  expect(results.scales.speaking_confidence.scores[1]).toBeCloseTo(turned.reduce((s, a) => s + a) / 6, 12); // 8 the score

  const ladder = results.ladders.willingness;
  expect(ladder.sample.used).toBe(430); // 9 the sample
  const { beta } = ladder.standardized["3"].speaking_confidence; // 10 to 12 design, fit, estimate
  await page.goto(`${app.address}/studies/${app.demo}/ladders`);
  await expect(page.getByTestId("speaking_confidence@3")).toHaveText(printed(beta, 2)); // 13 and 14
  await expect(page.getByTestId("speaking_confidence@3")).toHaveText(".40");
});

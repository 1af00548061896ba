import { execFileSync } from "node:child_process";
import { copyFileSync, existsSync, mkdirSync, readdirSync, readFileSync } from "node:fs";
import path from "node:path";
import { expect, test, withDemo } from "./house";

const app = withDemo();
const OUT = "test-results/documents";
const OFFICE = process.env.SOFFICE ?? "/usr/bin/soffice";
const HOW = "apt-get install --no-install-recommends libreoffice-writer poppler-utils, or name the program in SOFFICE";

test("another program opens the document with the page's own words, cells and figures", async ({ page }) => {
  expect(existsSync(OFFICE), `LibreOffice is not here: ${HOW}`).toBe(true);
  await page.goto(`${app.address}/studies/${app.demo}/write-up`);
  await expect(page.getByRole("button", { name: "Move Table 1" })).toBeAttached();
  mkdirSync(OUT, { recursive: true });
  const docx = path.join(OUT, "write-up.docx");
  const [file] = await Promise.all([page.waitForEvent("download"), page.getByRole("button", { name: "Save as DOCX" }).click()]);
  copyFileSync((await file.path())!, docx);
  execFileSync(OFFICE, ["--headless", "--convert-to", "pdf", "--outdir", OUT, docx], { stdio: "ignore" });
  const pdf = path.join(OUT, "write-up.pdf");
  execFileSync("pdftoppm", ["-r", "80", "-png", pdf, path.join(OUT, "page")]);
  execFileSync("pdftotext", ["-layout", pdf, path.join(OUT, "write-up.txt")]);
  const even = (text: string) => text.replace(/[\s\u00a0\u202f]+/g, " ");
  const printed = even(readFileSync(path.join(OUT, "write-up.txt"), "utf8"));
  const tables = page.getByRole("article", { name: "Manuscript" }).getByRole("table");
  for (let at = 0; at < (await tables.count()); at++)
    for (const cells of await tables
      .nth(at)
      .getByRole("row")
      .evaluateAll((rows) => rows.map((row) => [...row.children].map((cell) => cell.textContent!.trim()))))
      // prettier-ignore
      // what is words may be broken over lines
      for (const cell of cells.filter((one) => /^[−\d.[<]/.test(one) && one.length < 26)) expect(printed).toContain(even(cell));
  const pages = readdirSync(OUT).filter((name) => name.endsWith(".png"));
  expect(pages.length).toBeGreaterThan(3);
  copyFileSync(path.join(OUT, "page-3.png"), "docs/screenshots/document.png");
});

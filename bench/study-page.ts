import { type Browser, chromium, type Page } from "@playwright/test";
import type { BetaStep } from "../e2e/beta-step";

/** A browser at the first page, a file of answers chosen: the study begins with the next click. */
export async function fileChosen(app: BetaStep, file: string): Promise<{ browser: Browser; page: Page }> {
  const browser = await chromium.launch({
    executablePath: process.env.CHROMIUM ?? "/usr/bin/chromium",
    args: ["--no-sandbox", "--disable-gpu"],
  });
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  await page.addInitScript("globalThis.__name = (f) => f"); // the bundler of these scripts names functions with it
  await page.goto(app.address);
  await page.getByLabel("File of answers").setInputFiles(file);
  return { browser, page };
}

/** The same, the study begun and its responses open. */
export async function studyBegun(app: BetaStep, file: string): Promise<{ browser: Browser; page: Page }> {
  const { browser, page } = await fileChosen(app, file);
  await page.getByRole("button", { name: "Begin the study" }).click();
  await page.waitForURL(/responses/, { timeout: 120_000 });
  return { browser, page };
}

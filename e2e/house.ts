import path from "node:path";
import { expect, type Locator, type Page, test as base } from "@playwright/test";
import { BetaStep } from "./beta-step";

export { expect, type Locator, type Page } from "@playwright/test";
export { printed } from "./beta-step";

/** The house of this worker: up from its first test to its last. */
let house: BetaStep | null = null;

/** Tests in a house that each worker has for itself, with the demo study as it was loaded. */
export const test = base.extend<{ fresh: void }, { house: BetaStep }>({
  house: [
    async ({}, provide, info) => {
      const built = theHouse(info.parallelIndex);
      try {
        built.loadDemo();
        await built.start();
        await provide(built);
      } finally {
        // one that did not come up in time holds the place of the next
        await built.stop();
        built.remove();
      }
    },
    { scope: "worker", auto: true, timeout: 240_000 },
  ],
  /** What is still on its way when a test ends is not waited for. */
  page: async ({ page }, provide) => {
    await provide(page);
    await page.unrouteAll({ behavior: "ignoreErrors" });
  },
  /** A browser that has been let in. */
  storageState: async ({ house: mine }, provide) => provide({ cookies: [mine.cookie], origins: [] }),
  fresh: [
    async ({ house: mine }, use) => {
      await mine.start(); // a test that stopped it may have ended in the middle
      mine.freshDemo();
      await use();
    },
    { auto: true },
  ],
});

/** Lets the code that holds these words come only when what is returned is called. */
export async function heldBack(page: Page, words: string): Promise<() => void> {
  let come = () => {};
  const coming = new Promise<void>((resolve) => (come = resolve));
  await page.route("**/_next/static/chunks/**", async (route) => {
    const answer = await route.fetch();
    if ((await answer.text()).includes(words)) await coming;
    await route.fulfill({ response: answer });
  });
  return come;
}

/** The code that holds these words cannot be had. */
export async function notToBeHad(page: Page, words: string): Promise<void> {
  await page.route("**/_next/static/chunks/**", async (route) => {
    const answer = await route.fetch();
    if ((await answer.text()).includes(words)) await route.abort();
    else await route.fallback();
  });
}

/** Carries what has the focus by keys: each is pressed once it was said what the one before it did. */
export async function carryByKeys(page: Page, ...keys: readonly (readonly [key: string, said: string | RegExp])[]): Promise<void> {
  for (const [key, said] of keys) {
    await page.keyboard.press(key);
    await expect(page.getByRole("status").filter({ hasText: said })).not.toHaveCount(0);
  }
}

/** Drops a file of this machine, as it would be carried over from a window beside the browser's. */
export async function dropFile(onto: Locator, file: string): Promise<void> {
  const page = onto.page();
  const box = await restingPlace(onto);
  const at = {
    x: box.x + box.width / 2,
    y: box.y + box.height / 2,
    data: { items: [], files: [path.resolve(file)], dragOperationsMask: 1 },
  };
  const browser = await page.context().newCDPSession(page);
  for (const type of ["dragEnter", "dragOver", "drop"] as const) await browser.send("Input.dispatchDragEvent", { type, ...at });
  await browser.detach();
}

/** Where something stands once it has come to rest: rows glide to their places. */
export async function restingPlace(what: Locator): Promise<{ x: number; y: number; width: number; height: number }> {
  const seen: string[] = [];
  await expect
    .poll(
      async () => {
        seen.push(JSON.stringify(await what.boundingBox()));
        return seen.length > 2 && new Set(seen.slice(-3)).size === 1;
      },
      { intervals: [50] },
    )
    .toBe(true);
  return JSON.parse(seen.at(-1)!) as { x: number; y: number; width: number; height: number };
}

function theHouse(worker: number): BetaStep {
  house ??= new BetaStep(Number(process.env.E2E_PORT) + worker, true);
  return house;
}

/** The house of the tests of this file; its demo study is another one in each test. */
export function withDemo(): BetaStep {
  return new Proxy({} as BetaStep, {
    get(_, key) {
      const value = Reflect.get(house!, key) as unknown;
      return typeof value === "function" ? value.bind(house) : value;
    },
  });
}

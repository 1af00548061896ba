import { test as base } from "@playwright/test";
import { BetaStep } from "./beta-step";

export { expect, type Locator, type Page } from "@playwright/test";
export { printed } from "./beta-step";

/** The house of this worker: up from its first test to its last. */
let house: BetaStep | null = null;

/** Tests in a house that each worker has for itself, with the demo study as it was loaded. */
export const test = base.extend<{ fresh: void }, { house: BetaStep }>({
  house: [
    async ({}, use, info) => {
      const built = theHouse(info.parallelIndex);
      built.loadDemo();
      await built.start();
      await use(built);
      await built.stop();
    },
    { scope: "worker", auto: true, timeout: 60_000 },
  ],
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

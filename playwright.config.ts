import os from "node:os";
import { defineConfig } from "@playwright/test";

// the file is read again in each worker: what must be the same everywhere goes through the environment
process.env.E2E_PORT ??= String(4300 + (process.pid % 500));

const args = [
  "--no-sandbox",
  "--disable-gpu",
  "--disable-quic",
  "--no-first-run",
  "--disable-background-networking",
  "--disable-component-update",
  "--disable-sync",
];

/** Journeys against the built application, in the machine's own Chromium: each worker has a house of its own, each test a study of its own. */
export default defineConfig({
  testDir: "e2e",
  testMatch: "*.spec.ts",
  fullyParallel: true,
  workers: Math.min(4, os.availableParallelism()),
  // a slow hour is no fault, and what comes at once is not waited for
  timeout: 240_000,
  expect: { timeout: 30_000 },
  reporter: [["list"]],
  forbidOnly: Boolean(process.env.CI),
  use: {
    viewport: { width: 1280, height: 800 },
    launchOptions: { executablePath: process.env.CHROMIUM ?? "/usr/bin/chromium", args },
    // a trace takes a picture of the whole page at every step, a fifth of the time of all: `--trace on` where one is wanted
    trace: "off",
    screenshot: "only-on-failure",
  },
});

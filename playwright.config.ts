import { mkdtempSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import { defineConfig } from "@playwright/test";

// the file is read again in each worker: what must be the same everywhere goes through the environment
process.env.E2E_PORT ??= String(4300 + (process.pid % 500));
process.env.E2E_DATA ??= mkdtempSync(path.join(tmpdir(), "beta-step-e2e-"));

const args = [
  "--no-sandbox",
  "--disable-gpu",
  "--disable-quic",
  "--no-first-run",
  "--disable-background-networking",
  "--disable-component-update",
  "--disable-sync",
];

/** Journeys against the built application, in the machine's own Chromium. Each spec starts its server itself. */
export default defineConfig({
  testDir: "e2e",
  testMatch: "*.spec.ts",
  workers: 1,
  timeout: 90_000,
  // the browser has stood still in a journey now and then, for a reason not found yet: a journey may begin once more, and the list says that it did
  retries: 1,
  expect: { timeout: 10_000 },
  reporter: [["list"]],
  forbidOnly: Boolean(process.env.CI),
  use: {
    viewport: { width: 1280, height: 800 },
    launchOptions: { executablePath: process.env.CHROMIUM ?? "/usr/bin/chromium", args },
    trace: "on-first-retry",
  },
});

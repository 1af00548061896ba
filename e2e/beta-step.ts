import { type ChildProcess, spawn, spawnSync } from "node:child_process";
import { mkdtempSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import { test } from "@playwright/test";

/** A running Beta Step with a data folder of its own; can be stopped and started again on the same data. */
export class BetaStep {
  readonly data = mkdtempSync(path.join(tmpdir(), "beta-step-e2e-"));
  readonly port = process.env.E2E_PORT!;
  /** Id of the demo study once it is loaded. */
  demo = "";
  readonly address = `http://127.0.0.1:${this.port}`;
  private server: ChildProcess | null = null;

  /** Loads the demo study. */
  loadDemo(): void {
    const { stdout, status } = spawnSync("npx", ["tsx", "demo/load-demo.ts"], {
      encoding: "utf8",
      env: { ...process.env, BETA_STEP_DATA: this.data },
    });
    if (status !== 0) throw new Error("the demo study could not be loaded");
    this.demo = stdout.trim().split("\n").at(-1)!;
  }

  async start(): Promise<void> {
    const stranger = await fetch(this.address).catch(() => null);
    if (stranger) throw new Error(`another program answers at ${this.address}`);
    this.server = spawn(process.execPath, ["node_modules/next/dist/bin/next", "start", "-H", "127.0.0.1", "-p", this.port], {
      stdio: "ignore",
      env: { ...process.env, BETA_STEP_DATA: this.data, NODE_ENV: "production" },
    });
    for (let waited = 0; waited < 30_000; waited += 100) {
      try {
        if ((await fetch(`${this.address}/api/studies`)).ok) return;
      } catch {
        // not up yet
      }
      await new Promise((resolve) => setTimeout(resolve, 100));
    }
    throw new Error("the server did not start");
  }

  /** Of the server, while it runs. */
  get processId(): number | undefined {
    return this.server?.pid;
  }

  async stop(): Promise<void> {
    const { server } = this;
    if (!server) return;
    this.server = null;
    const ended = new Promise((resolve) => server.once("exit", resolve));
    server.kill("SIGTERM");
    await ended;
  }

  /** Runs the compute command on a saved study and a data file. */
  async compute(studyId: string, dataFile: string): Promise<any> {
    const { writeFile, readFile } = await import("node:fs/promises");
    const { study } = await (await fetch(`${this.address}/api/studies/${studyId}`)).json();
    const [studyFile, out] = [path.join(this.data, "study.json"), path.join(this.data, "results.json")];
    await writeFile(studyFile, JSON.stringify(study));
    const run = spawnSync("npm", ["run", "--silent", "compute", "--", "--study", studyFile, "--data", dataFile, "--out", out], {
      encoding: "utf8",
    });
    if (run.status !== 0) throw new Error(run.stderr);
    return JSON.parse(await readFile(out, "utf8"));
  }
}

/** A number as the page prints it, without the zero before the point; a rounded zero has no minus. */
export const printed = (value: number, decimals: number) =>
  value
    .toFixed(decimals)
    .replace(/^(-?)0\./, "$1.")
    .replace(/^-(?=[.0]*$)/, "")
    .replace("-", "−");

/** Beta Step with the demo study, up while the tests of a file run. */
export function withDemo(): BetaStep {
  const app = new BetaStep();
  test.beforeAll(async () => {
    app.loadDemo();
    await app.start();
  });
  test.afterAll(() => app.stop());
  return app;
}

import { type ChildProcess, spawn, spawnSync } from "node:child_process";
import { mkdtempSync, readFileSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import Sqlite from "better-sqlite3";
import { KEY_FILE, keyCookie } from "../src/server/house-key";

/** What the demo study is made of in the database: its answers, which its copies share, and what each has of its own. */
const SHARED = ["datasets", "columns", "chunks"] as const;
const OWN = ["studies", "changes", "revisions"] as const;
const TABLES = [...SHARED, ...OWN] as const;
type Rows = Record<string, unknown>[];

/** A running Beta Step with a data folder of its own; can be stopped and started again on the same data. */
export class BetaStep {
  readonly data = mkdtempSync(path.join(tmpdir(), "beta-step-e2e-"));
  /** Id of the demo study of the running test. */
  demo = "";
  readonly address: string;
  private server: ChildProcess | null = null;
  private template: Record<(typeof TABLES)[number], Rows> | null = null;
  private copies = 0;

  /** @param port one that nobody else has; @param locked whether the key must be shown */
  constructor(
    readonly port = 4300 + (process.pid % 500),
    private readonly locked = false,
  ) {
    this.address = `http://127.0.0.1:${port}`;
  }

  /** Loads the demo study, once: each test then gets a copy of its own. */
  loadDemo(): void {
    const loaded = spawnSync(process.execPath, ["--import", "tsx", "demo/load-demo.ts"], {
      encoding: "utf8",
      env: { ...process.env, BETA_STEP_DATA: this.data },
    });
    if (loaded.status !== 0) throw new Error(`the demo study could not be loaded: ${loaded.stderr}`);
    this.template = this.inDatabase(
      (db) => Object.fromEntries(TABLES.map((table) => [table, db.prepare(`select * from ${table}`).all()])) as typeof this.template,
    );
    this.demo = String(this.template!.studies[0]!["id"]);
  }

  /** The demo study as it was loaded, alone in the house and under an id of its own: no test stands on what another has left. */
  freshDemo(): void {
    const { studies, changes, revisions } = this.template!;
    const id = `${String(studies[0]!["id"])}-${++this.copies}`;
    this.inDatabase((db) => {
      const insert = (table: string, rows: Rows, own: Record<string, string>) => {
        for (const row of rows) {
          const copy = { ...row, ...own };
          const names = Object.keys(copy);
          db.prepare(`insert or ignore into ${table} (${names.join(", ")}) values (${names.map((n) => `@${n}`).join(", ")})`).run(copy);
        }
      };
      db.transaction(() => {
        db.prepare("delete from studies").run();
        for (const table of SHARED) insert(table, this.template![table], {}); // a test may have erased them
        insert("studies", studies, { id });
        insert("changes", changes, { study_id: id });
        insert("revisions", revisions, { study_id: id });
      })();
    });
    this.demo = id;
  }

  /** The key of this house, once it has been started. */
  get key(): string {
    return readFileSync(path.join(this.data, KEY_FILE), "utf8").trim();
  }

  /** The key as a browser that has been let in keeps it. */
  get cookie() {
    return {
      name: keyCookie(this.key),
      value: this.key,
      domain: "127.0.0.1",
      path: "/",
      expires: -1,
      httpOnly: true,
      secure: false,
      sameSite: "Strict" as const,
    };
  }

  /** Asks as a program on this machine does. */
  ask(place: string, init: RequestInit = {}): Promise<Response> {
    return fetch(
      `${this.address}${place}`,
      this.locked ? { ...init, headers: { ...init.headers, authorization: `Bearer ${this.key}` } } : init,
    );
  }

  private inDatabase<T>(work: (db: Sqlite.Database) => T): T {
    const db = new Sqlite(path.join(this.data, "beta-step.sqlite"));
    try {
      db.pragma("foreign_keys = ON");
      db.pragma("busy_timeout = 5000");
      return work(db);
    } finally {
      db.close();
    }
  }

  async start(): Promise<void> {
    if (this.server) return;
    const stranger = await fetch(this.address).catch(() => null);
    if (stranger) throw new Error(`another program answers at ${this.address}`);
    this.server = spawn(process.execPath, ["node_modules/next/dist/bin/next", "start", "-H", "127.0.0.1", "-p", String(this.port)], {
      stdio: "ignore",
      env: { ...process.env, BETA_STEP_DATA: this.data, NODE_ENV: "production", ...(this.locked ? {} : { BETA_STEP_KEY: "off" }) },
    });
    for (let waited = 0; waited < 120_000; waited += 50) {
      try {
        if ((await this.ask("/api/studies")).ok) return;
      } catch {
        // not up yet
      }
      await new Promise((resolve) => setTimeout(resolve, 50));
    }
    throw new Error("the server did not start");
  }

  /** Of the server, while it runs. */
  get processId(): number | undefined {
    return this.server?.pid;
  }

  async stop(): Promise<void> {
    await this.end("SIGTERM");
  }

  /** As a power cut would end it. */
  async kill(): Promise<void> {
    await this.end("SIGKILL");
  }

  /** Takes its data away, once it has ended for good. */
  remove(): void {
    rmSync(this.data, { recursive: true, force: true });
  }

  private async end(signal: "SIGTERM" | "SIGKILL"): Promise<void> {
    const { server } = this;
    if (!server) return;
    this.server = null;
    const over = ended(server, 30_000);
    server.kill(signal);
    await over;
  }

  /** Runs the compute command on a saved study and a data file. */
  async compute(studyId: string, dataFile: string): Promise<any> {
    const { writeFile } = await import("node:fs/promises");
    const { study } = await (await this.ask(`/api/studies/${studyId}`)).json();
    const studyFile = path.join(this.data, "study.json");
    await writeFile(studyFile, JSON.stringify(study));
    return this.computeFile(studyFile, dataFile);
  }

  /** The same on a study document that lies in a file. */
  async computeFile(studyFile: string, dataFile: string): Promise<any> {
    const { readFile } = await import("node:fs/promises");
    const out = path.join(this.data, "results.json");
    const run = spawn(process.execPath, ["scripts/compute.mjs", "--study", studyFile, "--data", dataFile, "--out", out], {
      stdio: ["ignore", "ignore", "pipe"],
    });
    let said = "";
    run.stderr.on("data", (piece) => (said += String(piece)));
    const status = await ended(run);
    if (status !== 0) throw new Error(said);
    return JSON.parse(await readFile(out, "utf8"));
  }

  /** What `compute -- verify` says of a study file, and how it ends. */
  async verify(file: string): Promise<{ code: number | null; said: string }> {
    const run = spawn(process.execPath, ["scripts/compute.mjs", "verify", file], {
      stdio: ["ignore", "pipe", "pipe"],
    });
    let said = "";
    for (const stream of [run.stdout, run.stderr]) stream.on("data", (piece) => (said += String(piece)));
    const code = await ended(run);
    return { code, said: said.trim() };
  }
}

/** How a program ends; one that does not in time is ended, and the test fails with it rather than at its own limit. */
function ended(program: ChildProcess, limit = 120_000): Promise<number | null> {
  return new Promise((resolve, reject) => {
    if (program.exitCode !== null || program.signalCode !== null) return resolve(program.exitCode);
    const late = setTimeout(() => {
      program.kill("SIGKILL");
      reject(new Error(`still running after ${limit / 1000} s: ${program.spawnargs.slice(1).join(" ")}`));
    }, limit);
    program.once("close", (code) => {
      clearTimeout(late);
      resolve(code);
    });
  });
}

/** A number as the page prints it, without the zero before the point; a rounded zero has no minus. */
export const printed = (value: number, decimals: number) =>
  value
    .toFixed(decimals)
    .replace(/^(-?)0\./, "$1.")
    .replace(/^-(?=[.0]*$)/, "")
    .replace("-", "−");

import { spawnSync } from "node:child_process";
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import { MessageChannel } from "node:worker_threads";
import { referenceSet } from "@/core/test-support/reference-set";
import { allowance, errorOf, leaves } from "@/study/test-support/reference-blocks";
import { oursOf, studyOf } from "@/study/test-support/reference-study";
import { Ladder } from "@/study/model/ladder";
import { ladderFigures } from "@/study/model/replicate-intervals";
import { Study } from "@/study/model/study";
import { Variable } from "@/study/model/variable";
import { sourceOf } from "@/study/test-support/columns";
import { bootstrap as bootstrapHere, resampled } from "./replicates";
import { groundOf, runHere } from "./test-support/here";
import { thread } from "./node/thread-pool";
import { JobError, type WorkerLike, WorkerPool } from "./worker-pool";
import type { Job } from "./protocol/jobs";
import type { FromWorker, ToWorker } from "./protocol/messages";
import { workerDesk } from "./worker-desk";

const NOTHING = { codebook: [], scales: [], corrections: [], readings: [], derived: [], filters: [] };

/** A worker's desk at the other end of a real message port: messages are cloned as between page and worker. */
class PortWorker implements WorkerLike {
  static made = 0;
  static columnsSent = 0;
  onmessage: ((event: { data: FromWorker }) => void) | null = null;
  onerror: ((event: unknown) => void) | null = null;
  private readonly channel = new MessageChannel();
  constructor(private readonly asleep = false) {
    PortWorker.made++;
    const desk = workerDesk((message, transfer) => this.channel.port2.postMessage(message, transfer));
    this.channel.port2.on("message", (data: ToWorker) => !this.asleep && desk(data));
    this.channel.port1.on("message", (data: FromWorker) => this.onmessage?.({ data }));
  }
  postMessage(message: ToWorker, transfer: ArrayBuffer[] = []) {
    if (message.type === "columns") PortWorker.columnsSent += message.columns.length;
    this.channel.port1.postMessage(message, transfer);
  }
  terminate() {
    this.channel.port1.close();
  }
}

const source = sourceOf({ x: ["1", "2", "2", "5"], y: ["3", "", "4", "4"] });
const columns = (...names: string[]) => names.map((name) => source(name)!);
const strips = (...names: string[]) => ({ kind: "strips" as const, context: NOTHING, rows: 4, spec: { names } });
let pool: WorkerPool;
afterEach(() => pool.close());
beforeEach(() => {
  PortWorker.made = PortWorker.columnsSent = 0;
});

test("a job goes to a worker and its answer comes back; a column is sent to a worker once", async () => {
  pool = new WorkerPool(() => new PortWorker(), 1);
  const [strip] = await pool.run(strips("x"), "d", columns("x"));
  expect(strip!.answers).toEqual([
    { value: 1, count: 1 },
    { value: 2, count: 2 },
    { value: 5, count: 1 },
  ]);
  expect(await pool.run(strips("y", "x"), "d", columns("y", "x"))).toMatchObject([{ missing: 1 }, { missing: 0 }]);
  expect([PortWorker.made, PortWorker.columnsSent]).toEqual([1, 2]);
});

test("more jobs than workers wait their turn, and every one is answered with its own result", async () => {
  pool = new WorkerPool(() => new PortWorker(), 2);
  const answers = await Promise.all(["x", "y", "x", "y", "x"].map((name) => pool.run(strips(name), "d", columns(name))));
  expect(answers.map((a) => a[0]!.variable)).toEqual(["x", "y", "x", "y", "x"]);
  expect(PortWorker.made).toBe(2);
});

test("a job can be stopped while it waits and while it runs; the pool goes on with a fresh worker", async () => {
  let first = true;
  pool = new WorkerPool(() => {
    const worker = new PortWorker(first);
    first = false;
    return worker;
  }, 1);
  const stop = new AbortController();
  const running = pool.run(strips("x"), "d", columns("x"), stop.signal);
  const waiting = pool.run(strips("x"), "d", columns("x"), stop.signal);
  stop.abort();
  await expect(running).rejects.toMatchObject({ code: "stopped" });
  await expect(waiting).rejects.toMatchObject({ code: "stopped" });
  expect(await pool.run(strips("x"), "d", columns("x"))).toHaveLength(1); // the sleeping worker was replaced, columns sent anew
  expect(PortWorker.made).toBe(2);
});

test("work nobody waits for leaves a worker free, and goes after what is on screen", async () => {
  const made: PortWorker[] = [];
  pool = new WorkerPool(() => {
    const worker = new PortWorker(made.length === 0);
    made.push(worker);
    return worker;
  }, 2);
  const behind = () => pool.run(strips("x"), "d", columns("x"), undefined, undefined, "background");
  const stuck = behind(); // its worker sleeps
  const later = behind();
  stuck.catch(() => undefined);
  later.catch(() => undefined);
  while (made.length === 0) await new Promise((resolve) => setTimeout(resolve, 5)); // it holds back a moment before it begins
  expect(await pool.run(strips("y"), "d", columns("y"))).toHaveLength(1); // the second worker was kept for this
  expect(made).toHaveLength(2);
});

test("the worker of a stopped job is kept while nobody needs it", async () => {
  pool = new WorkerPool(() => new PortWorker(), 1);
  const stop = new AbortController();
  const running = pool.run(strips("x"), "d", columns("x"), stop.signal);
  stop.abort();
  await expect(running).rejects.toMatchObject({ code: "stopped" });
  await new Promise((resolve) => setTimeout(resolve, 400));
  expect(await pool.run(strips("x"), "d", columns("x"))).toHaveLength(1);
  expect([PortWorker.made, PortWorker.columnsSent]).toEqual([1, 1]);
});

test("a job that breaks is an error with a code; a worker that breaks down is replaced", async () => {
  const workers: PortWorker[] = [];
  pool = new WorkerPool(() => {
    const worker = new PortWorker();
    workers.push(worker);
    return worker;
  }, 1);
  await expect(pool.run(strips("nobody"), "d", [])).rejects.toEqual(new JobError("missing-column", { column: "nobody" }));
  const broken = { kind: "replicates" as const, context: NOTHING, rows: 4, of: { kind: "strips", spec: { names: ["x"] } }, everything: false, seed: 1, first: 0, count: 1 }; // prettier-ignore
  await expect(pool.run(broken, "d", [])).rejects.toEqual(new JobError("job-failed"));
  const lost = pool.run(strips("x"), "d", columns("x"));
  workers[0]!.onerror!(new Error("gone"));
  await expect(lost).rejects.toMatchObject({ code: "worker-crashed" });
  expect(await pool.run(strips("x"), "d", columns("x"))).toHaveLength(1);
});

test("workers that cannot start are not started again and again", async () => {
  let made = 0;
  const dead = (): WorkerLike => {
    made++;
    const worker: WorkerLike = { postMessage() {}, terminate() {}, onmessage: null, onerror: null };
    setTimeout(() => worker.onerror?.(new Error("no script")));
    return worker;
  };
  pool = new WorkerPool(dead, 2);
  pool.warm();
  await new Promise((resolve) => setTimeout(resolve, 50));
  expect(made).toBe(2);
  await expect(pool.run(strips("x"), "d", columns("x"))).rejects.toMatchObject({ code: "worker-crashed" });
  expect(made).toBe(3);
});

/** A worker that takes so long to load its code; null: it never does, and breaks down. */
class LateWorker extends PortWorker {
  constructor(loads: number | null) {
    super(loads === null);
    let hear: WorkerLike["onmessage"] = null;
    const up = new Promise((resolve) => setTimeout(resolve, loads ?? 20).unref());
    if (loads === null) void up.then(() => this.onerror?.(new Error("no script")));
    Object.defineProperty(this, "onmessage", {
      set: (to: WorkerLike["onmessage"]) => (hear = to),
      get: () => (event: { data: FromWorker }) => loads !== null && void up.then(() => hear?.(event)),
    });
  }
}

test("a job goes to the worker that is free again first, not to one that still has to load", async () => {
  const loads = [0, 60_000];
  pool = new WorkerPool(() => new LateWorker(loads[PortWorker.made]!), 2);
  await pool.run(strips("x"), "d", columns("x"));
  const both = await Promise.all([pool.run(strips("x"), "d", columns("x")), pool.run(strips("y"), "d", columns("y"))]);
  expect(both.map((strip) => strip[0]!.variable)).toEqual(["x", "y"]);
  expect(PortWorker.made).toBe(2); // it is on its way, for what comes
});

test("where one works, another that cannot start is tried once, and what waits for it is done all the same", async () => {
  pool = new WorkerPool(() => new LateWorker(PortWorker.made === 0 ? 0 : null), 2);
  await pool.run(strips("x"), "d", columns("x"));
  for (let round = 0; round < 3; round++) {
    await Promise.all(["x", "y"].map((name) => pool.run(strips(name), "d", columns(name))));
    await new Promise((resolve) => setTimeout(resolve, 40));
  }
  expect(PortWorker.made).toBe(2);
});

test("a long job tells how far it is; the same random data are not made twice", async () => {
  pool = new WorkerPool(() => new PortWorker(), 1);
  const items = ["i", "j", "k", "l"];
  const cells = (seed: number) => Array.from({ length: 30 }, (_, row) => String(1 + ((row * (seed + 3) + row * row * seed) % 5)));
  const answers = sourceOf(Object.fromEntries(items.map((name, seed) => [name, cells(seed + 1)])));
  const job = {
    kind: "structure" as const,
    context: { ...NOTHING, codebook: items.map((name) => Variable.parse({ name })) },
    rows: 30,
    spec: {
      parts: items.map((name) => ({ name, reversed: false })),
      respondents: null,
      extraction: "principal-axis" as const,
      rotation: "varimax" as const,
      factors: 1,
      sets: 120,
      seed: 1,
    },
  };
  const run = async () => {
    const told: number[] = [];
    const result = await pool.run(
      job,
      "d",
      items.map((name) => answers(name)!),
      undefined,
      (done, of) => told.push(done / of),
    );
    return { told, result };
  };
  const [first, second] = [await run(), await run()];
  expect(first.told).toHaveLength(12);
  expect(first.told.at(-1)).toBe(1);
  expect([...first.told].sort((a, b) => a - b)).toEqual(first.told);
  expect(second.told).toEqual([]);
  expect(second.result).toEqual(first.result);
});

test("a long job hears that it is stopped while it runs: its thread is free at once, and keeps its columns", async () => {
  let started = 0;
  pool = new WorkerPool(() => {
    started++;
    return thread().like;
  }, 1);
  const items = Array.from({ length: 40 }, (_, i) => `i${i}`);
  const answers = sourceOf(
    Object.fromEntries(
      items.map((name, i) => [name, Array.from({ length: 120 }, (_, row) => String(1 + ((row * (i + 3) + row * row * i) % 7)))]),
    ),
  );
  const job = {
    kind: "structure" as const,
    context: { ...NOTHING, codebook: items.map((name) => Variable.parse({ name })) },
    rows: 120,
    spec: { parts: items.map((name) => ({ name, reversed: false })), respondents: null, extraction: "principal-axis" as const, rotation: "none" as const, factors: 1, sets: 5000, seed: 1 }, // prettier-ignore
  };
  const stop = new AbortController();
  const columnsOf = items.map((name) => answers(name)!);
  const running = pool.run(job, "d", columnsOf, stop.signal, () => stop.abort());
  await expect(running).rejects.toMatchObject({ code: "stopped" });
  // the same thread answers the next job, long before the first would have been done
  const next = await pool.run({ kind: "strips", context: job.context, rows: 120, spec: { names: ["i1"] } }, "d", columnsOf);
  expect([next[0]!.variable, started]).toEqual(["i1", 1]);
});

test("a dataset that is let go is sent again when it is needed again", async () => {
  pool = new WorkerPool(() => new PortWorker(), 1);
  await pool.run(strips("x"), "d", columns("x"));
  pool.forget("d");
  expect(await pool.run(strips("x"), "d", columns("x"))).toHaveLength(1);
  expect([PortWorker.made, PortWorker.columnsSent]).toEqual([1, 2]);
});

test("the numbers of replicates are handed over: who sends them has them no more, and the limits are theirs", async () => {
  pool = new WorkerPool(() => new PortWorker(), 1);
  const values = Float64Array.from({ length: 99 }, (_, i) => i + 1);
  const expected = [{ estimate: 50, acceleration: 0 }];
  const limits = pool.run({ kind: "limits", values, figures: 1, expected, pairs: null, by: "percentile", confidence: 0.9 }, "d", []);
  expect(values.byteLength).toBe(0);
  expect((await limits)[0]!.interval).toMatchObject({ lower: expect.closeTo(5, 9), upper: expect.closeTo(95, 9), clamped: false, needed: 19, method: "percentile" }); // prettier-ignore
});

test("a job that the core refuses is an error with the core's own code, and the worker goes on", async () => {
  pool = new WorkerPool(() => new PortWorker(), 1);
  const steps = [{ id: "s", terms: [{ components: ["v"] }] }];
  const two = sourceOf({ u: ["1", "2"], v: ["2", "1"] }); // as many rows as coefficients
  const ladder = Ladder.parse({ id: "l", name: "L", outcome: "u", intervals: { by: "bca" }, steps });
  const context = { ...NOTHING, codebook: ["u", "v"].map((name) => Variable.parse({ name })) };
  const job = {
    kind: "jackknife" as const,
    context,
    rows: 2,
    of: { kind: "ladder", spec: ladder },
    everything: false,
    step: 0,
    accelerated: true,
  };
  await expect(pool.run(job, "e", [two("u")!, two("v")!])).rejects.toMatchObject({ code: "too-few-cases" });
  expect(await pool.run(strips("x"), "d", columns("x"))).toHaveLength(1);
  expect(PortWorker.made).toBe(1);
});

test("the desk does not take a message it does not know", () => {
  pool = new WorkerPool(() => new PortWorker(), 1);
  expect(() => workerDesk(() => {})({ type: "run", id: 1, dataset: "d", job: { kind: "anything" } })).toThrow();
});

describe("the compute command", () => {
  jest.setTimeout(30_000); // each run starts a process of its own
  let folder: string;
  beforeEach(() => {
    folder = mkdtempSync(path.join(tmpdir(), "beta-step-compute-"));
    pool = new WorkerPool(() => new PortWorker(), 1);
  });
  afterEach(() => rmSync(folder, { recursive: true }));

  const compute = (study: object | string, data: string) => {
    const [studyFile, out] = [path.join(folder, "study.json"), path.join(folder, "results.json")];
    writeFileSync(studyFile, typeof study === "string" ? study : JSON.stringify(study));
    const command = ["scripts/compute.mjs", "--study", studyFile, "--data", data, "--out", out];
    const run = spawnSync(process.execPath, command, { encoding: "utf8" });
    return {
      code: run.status,
      said: run.stderr,
      results: () => JSON.parse(readFileSync(out, "utf8")),
    };
  };
  const garden = path.join(process.cwd(), "reference/garden_ladder.csv");
  const set = referenceSet("garden_ladder");
  const study = {
    format: "beta-step-study",
    version: 1,
    name: "Gardens",
    codebook: ["age", "distance_km", "hours", "knowhow", "belonging"].map((name) => ({ name, missing: ["-9"] })),
    ladders: [
      {
        id: "belonging",
        name: "Belonging",
        outcome: "belonging",
        filter: { variable: "consent", equals: ["yes"] },
        steps: set.spec.steps.map((names, k) => ({ id: `s${k}`, terms: names.map((name) => ({ components: name.split("*") })) })),
      },
    ],
  };

  test("intervals by bootstrap are drawn on threads: the numbers of the same seed worked out right here", async () => {
    const [ladder] = study.ladders;
    const asked = { ...ladder!, seed: 9, intervals: { by: "bca", replicates: 1000 } };
    const { code, results } = compute({ ...study, ladders: [asked] }, garden);
    expect(code).toBe(0);
    const { bootstrap } = results().ladders.belonging;
    const whole = Study.parse({ ...study, codebook: [...study.codebook, { name: "consent", kind: "category" }], ladders: [asked] });
    const here = await bootstrapHere(
      runHere(sourceOf(Object.fromEntries(set.cells))),
      resampled({ ...groundOf(whole), of: { kind: "ladder", spec: whole.ladders[0] } }, true),
      { by: "bca", confidence: 0.95, replicates: 1000, seed: 9, compared: 2, onRequest: false },
      2,
      1,
    );
    expect(bootstrap).toMatchObject({ by: "bca", replicates: 1000, seed: 9, units: here.units, redrawn: here.redrawn });
    const product = ladderFigures(here).find(({ figure }) => figure.kind === "beta" && figure.column === "hours*knowhow")!;
    expect(bootstrap.intervals["step3.beta.hours*knowhow"]).toEqual(product.interval);
    expect(Object.keys(bootstrap.intervals)).toHaveLength(here.intervals.length);
    expect(Object.keys(bootstrap.beta_differences)).toHaveLength(here.differences.length);
  });

  // sets that between them have a filter, products, categories, clusters, a stated order, given folds and a comparison
  test.each(["garden_ladder", "museum_categories", "ferry_clusters", "library_five_steps", "awkward_designs"])(
    "from file to file, %s: every value of every block that has one, under stable names",
    (name) => {
      const { json, expected } = referenceSet(name);
      const { code, results } = compute(studyOf(referenceSet(name)), path.join(process.cwd(), `reference/${name}.csv`));
      expect(code).toBe(0);
      const document = results();
      let compared = 0;
      for (const [block, values] of Object.entries(expected)) {
        const ours = oursOf(block, values, document, json);
        const here = ours === undefined ? [] : leaves(values.values, ours).filter(({ got }) => got !== undefined);
        compared += here.length;
        for (const leaf of here) {
          expect({ block, path: leaf.path, within: errorOf(leaf, values) <= allowance(values) }).toEqual({
            block,
            path: leaf.path,
            within: true,
          });
        }
      }
      expect(compared).toBeGreaterThan(250);
    },
  );

  test.each<[string, object | string, string, RegExp]>([
    ["a study that is not JSON", "{", garden, /study\.json: this is not valid JSON/],
    ["a study with a field that is not one of ours", { ...study, colour: "red" }, garden, /colour/],
    ["a ladder of a variable nobody has", { ...study, ladders: [{ ...study.ladders[0], outcome: "rain" }] }, garden, /"rain"/],
    ["a data file that is not there", study, "/nowhere.csv", /no such file/],
  ])("%s ends with code 2 and one sentence", (_, document, data, words) => {
    const { code, said } = compute(document, data);
    expect(code).toBe(2);
    expect(said).toMatch(words);
    expect(said).not.toMatch(/ at .*\.ts/);
  });
});

test("jobs are data: what they hold survives being cloned", () => {
  pool = new WorkerPool(() => new PortWorker(), 1);
  const job: Job = strips("x");
  expect(structuredClone(job)).toEqual(job);
});

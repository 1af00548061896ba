import { mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import { randomStream } from "@/core/random/random-stream";
import { packStudyFile } from "@/files/study-file/pack";
import { loadAnalyses, resultsDocument } from "@/study/analyse/results-document";
import { resultsWithoutRespondents, wholeStudy } from "@/study/analyse/travelling-study";
import { cells, deskOf, ladderOf } from "@/study/test-support/desk";
import { Study } from "@/study/model/study";
import { differences, verifyFile } from "./verify-file";

const N = 50;
const stream = randomStream(5);
const draw = () => Array.from({ length: N }, () => stream.normal());
const [x, m, e] = [draw(), draw(), draw()];
const desk = deskOf({ y: cells(N, (i) => x[i]! + e[i]!), x: cells(N, (i) => x[i]!), m: cells(N, (i) => m[i]!) });
const study = Study.parse({ ...desk.study, ladders: [ladderOf(["x"], ["m"])] });
const columns = ["y", "x", "m"].map((name) => desk.responses(name)!);

interface Results {
  ladders: { l: { steps: Record<string, { model: { R2: number } }>; standardized: Record<string, Record<string, { beta: number }>> } };
}
let folder: string;
beforeAll(() => (folder = mkdtempSync(path.join(tmpdir(), "beta-step-verify-"))));
afterAll(() => rmSync(folder, { recursive: true }));

async function file(kind: "whole" | "without-respondents", forge: (results: Results) => void = () => {}): Promise<string> {
  const results = JSON.parse(JSON.stringify(resultsDocument(study, desk.responses, await loadAnalyses()))) as Results;
  forge(results);
  const given = kind === "whole" ? results : resultsWithoutRespondents(results as never, { whole: new Set(), within: [] });
  const of = { kind, study: wholeStudy(study), columns: kind === "whole" ? columns : [], codebook: study.codebook, results: given };
  const to = path.join(folder, `${kind}.zip`);
  writeFileSync(
    to,
    Buffer.concat(packStudyFile({ ...of, name: "S", source: "s.csv", withdrawn: 0, made: "", trail: null, text: "", page: "" })),
  );
  return to;
}

test("every stored number is worked out again from the answers, or from moments; one that was changed is named", async () => {
  const whole = await verifyFile(await file("whole"));
  expect(whole.differ).toEqual([]);
  expect(whole.compared).toBeGreaterThan(500);
  const forged = await verifyFile(await file("whole", (r) => (r.ladders.l.steps["2"]!.model.R2 += 1e-6)));
  expect(forged.differ.map((d) => d.path)).toEqual(["ladders.l.steps.2.model.R2"]);
  expect(await verifyFile(await file("without-respondents"))).toEqual({ compared: 13, differ: [] });
  const shared = await verifyFile(await file("without-respondents", (r) => (r.ladders.l.standardized["2"]!["m"]!.beta *= 1.001)));
  expect(shared.differ.map((d) => d.path)).toEqual(["ladders.l.standardized.2.m.beta"]);
}, 60_000);

test("results differ where a number, a word or a whole part does, and not by rounding", () => {
  expect(differences({ a: 1, b: [1, { c: 2 }] }, { a: 1 + 1e-15, b: [1, { c: 2 }] })).toEqual({ compared: 3, differ: [] });
  const { differ } = differences({ a: 1, b: [1, 2], d: "x", gone: 4 }, { a: 2, b: [1], d: "y", more: null });
  expect(differ.map((one) => one.path)).toEqual(["a", "b.1", "d", "gone"]);
});

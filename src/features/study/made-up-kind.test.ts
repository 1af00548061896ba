import { MessageChannel } from "node:worker_threads";
import { SeenStore } from "./seen-store";
import { fingerprint } from "./fingerprint";
import { asked, touchedBy, usedBy } from "@/study/kinds/standing";
import { applyEdits, Edit, editsBetween, inverseEdit } from "@/study/model/edit";
import { SeenResult } from "@/study/model/seen-result";
import { Study } from "@/study/model/study";
import { changeWords } from "@/study/report/trail-words";
import { sourceOf } from "@/study/test-support/columns";
import { resultsOf } from "@/study/test-support/results";
import type { Job } from "@/compute/protocol/jobs";
import type { FromWorker } from "@/compute/protocol/messages";
import { workerDesk } from "@/compute/worker-desk";

// the one line that a further kind takes in the registry
jest.mock("../../study/kinds/registry", () => ({
  KINDS: [...jest.requireActual("../../study/kinds/registry").KINDS, jest.requireActual("../../study/test-support/made-up/span").span],
}));

const FILE = ["q1", "q2", "far"];
const source = sourceOf({ q1: ["1", "2", "5"], q2: ["2", "2", "3"], far: ["9", "7", ""] });
const start = Study.parse({
  format: "beta-step-study",
  version: 1,
  name: "Start",
  codebook: [{ name: "q1", range: { low: 1, high: 5 } }, { name: "q2" }, { name: "far" }],
  scales: [{ id: "s", name: "S", items: [{ variable: "q1" }, { variable: "q2" }] }],
});
const span = { id: "w", name: "Width of S", of: "s" };
const made = Edit.parse({ subject: "span", id: "w", to: span });
const { study, changes } = applyEdits(start, [made]);
const turned = Edit.parse({
  subject: "scale",
  id: "s",
  to: { ...start.scales[0]!, items: [{ variable: "q1", reversed: true }, { variable: "q2" }] },
});

test("it is kept in the document, undoable, on the trail, and sound: what it stands on stays", () => {
  expect((study as any).spans).toEqual([span]);
  expect(Study.parse(JSON.parse(JSON.stringify(study)))).toEqual(study);
  expect(applyEdits(study, changes.map(inverseEdit)).study).toEqual(start);
  expect(applyEdits(start, editsBetween(start, study)).study).toEqual(study);
  expect(changeWords(changes[0]!)).toBe("Span Width of S made");
  expect(() => applyEdits(study, [Edit.parse({ subject: "scale", id: "s", to: null })])).toThrow(/span "Width of S" uses "s"/);
  expect(usedBy(study, { kind: "name", id: "s" })).toEqual([{ kind: "span", id: "w", name: "Width of S" }]);
});

test("it is computed in a worker, from the columns it needs and no others", async () => {
  const { context, spec, columns } = asked("span", span, study, FILE);
  expect(columns.sort()).toEqual(["q1", "q2"]);
  const { port1, port2 } = new MessageChannel();
  const desk = workerDesk((message) => port2.postMessage(message));
  port2.on("message", desk);
  const told: FromWorker[] = [];
  const done = new Promise<FromWorker>((resolve) =>
    port1.on("message", (message: FromWorker) => (message.type === "done" ? resolve(message) : told.push(message))),
  );
  port1.postMessage({ type: "columns", dataset: "d", columns: columns.map((name) => source(name)!) });
  port1.postMessage({ type: "run", id: 1, dataset: "d", job: { kind: "span", context, rows: 3, spec } as unknown as Job });
  expect(await done).toEqual({ type: "done", id: 1, result: { low: 1.5, high: 4 } });
  expect(told.map(({ type }) => type)).toEqual(["ready", "progress"]);
  port1.close();
});

test("it is out of date when what it stands on changes, and only then", () => {
  const inputs = (of: Study) => {
    const { context, spec } = asked("span", span, of, FILE);
    return fingerprint(JSON.stringify([context, spec]));
  };
  const seen = SeenResult.parse({
    kind: "span",
    id: "w",
    inputs: inputs(study),
    numbers: [{ name: "width", value: 2.5 }],
    revision: 2,
    at: "2026-11-27",
  });
  const store = new SeenStore("study", [seen]);
  const after = applyEdits(study, [turned]);
  expect(store.outdated(seen, inputs(after.study))).toBe(true);
  expect(touchedBy(study, after.changes).map(({ kind, id }) => `${kind} ${id}`)).toEqual(["scale s", "span w"]);
  const elsewhere = applyEdits(study, [Edit.parse({ subject: "variable", id: "far", to: { ...study.codebook[2]!, missing: ["9"] } })]);
  expect(store.outdated(seen, inputs(elsewhere.study))).toBe(false);
  expect(touchedBy(study, elsewhere.changes)).toEqual([]);
});

test("its part stands in the results document", async () => {
  expect((await resultsOf(study, source)).spans).toEqual({ w: { low: 1.5, high: 4 } });
  expect((await resultsOf(applyEdits(study, [turned]).study, source)).spans).toEqual({ w: { low: 2, high: 3.5 } });
});

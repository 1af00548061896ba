import { randomStream } from "@/core/random/random-stream";
import { askedKind } from "../kinds/kinds";
import { asked } from "../kinds/standing";
import { Study, titleOf } from "../model/study";
import { theoryOf } from "../model/theory";
import { StudyColumns } from "../prepare/study-columns";
import { bareSource, type Source } from "../report/document/source";
import { sourceOf } from "./columns";
import { cells } from "./desk";

const N = 160;
const stream = randomStream(17);
const drawn = () => Array.from({ length: N }, () => stream.normal());
const [x, m, e, other] = [drawn(), drawn(), drawn(), drawn()];
const SITES = ["East", "North", "West"];
const item = (of: readonly number[], noise: readonly number[]) => (i: number) => Math.max(1, Math.min(7, Math.round(4 + 1.2 * of[i]! + 0.6 * noise[i]!))); // prettier-ignore
const itemsOf = (of: readonly number[], stem: string) => Object.fromEntries([1, 2, 3, 4].map((k) => [`${stem}${k}`, cells(N, item(of, drawn()))])); // prettier-ignore

export const FILE: Readonly<Record<string, readonly string[]>> = {
  y: cells(N, (i) => (0.5 * x[i]! + (0.2 + 0.3 * (i % 3)) * m[i]! + 0.3 * x[i]! * m[i]! + e[i]!).toFixed(4)),
  x: cells(N, (i) => x[i]!.toFixed(4)),
  m: cells(N, (i) => m[i]!.toFixed(4)),
  other: cells(N, (i) => other[i]!.toFixed(4)),
  age: cells(N, (i) => 18 + ((i * 7) % 45)),
  site: cells(N, (i) => SITES[i % 3]!),
  ...itemsOf(x, "c"),
  ...itemsOf(m, "d"),
};

/** A study with an object of every kind that a write-up can tell of, on numbers that were drawn. */
export const wholeStudy = Study.parse({
  format: "beta-step-study",
  version: 1,
  name: "All of it",
  responses: { dataset: "d", fileName: "f.csv", rows: N },
  codebook: Object.keys(FILE).map((name) => ({
    name,
    ...(name === "site" ? { kind: "category", levels: SITES.map((value) => ({ value })) } : {}),
    ...(/\d/.test(name) ? { kind: "item", range: { low: 1, high: 7 } } : {}),
    ...(name === "age" || name.length === 1 || name === "other" ? { kind: "number" } : {}),
  })),
  filters: [{ id: "adults", name: "Adults", reason: "were under age", everywhere: true, conditions: [{ kind: "between", variable: "age", low: 20, high: null }] }],
  scales: [
    { id: "calm", name: "Calm", items: [1, 2, 3, 4].map((k) => ({ variable: `c${k}` })) },
    { id: "drive", name: "Drive", items: [1, 2, 3, 4].map((k) => ({ variable: `d${k}` })) },
  ],
  structures: [{ id: "both", name: "Calm and drive", items: [1, 2, 3, 4].flatMap((k) => [`c${k}`, `d${k}`]), factors: 2, sets: 100 }],
  looks: [{ id: "first", name: "First look", variables: ["calm", "drive", "y", "age"] }],
  ladders: [
    {
      id: "l",
      name: "Outcome",
      outcome: "y",
      steps: [
        { id: "s1", name: "Background", terms: [{ components: ["age"] }, { components: ["site"] }] },
        { id: "s2", name: "Core", terms: [{ components: ["x"] }, { components: ["m"] }] },
        { id: "s3", name: "Together", terms: [{ components: ["x", "m"] }] },
      ],
    },
    {
      id: "k",
      name: "Drive",
      outcome: "drive",
      steps: [
        { id: "s1", terms: [{ components: ["age"] }] },
        { id: "s2", terms: [{ components: ["calm"] }, { components: ["site"] }] },
      ],
    },
  ],
  probes: [{ id: "p", ladder: "l", focal: "x", moderators: [{ variable: "m" }] }],
  means: [{ id: "mm", ladder: "l", variable: "site" }],
  groups: [{ id: "g", ladder: "l", step: 2, variable: "site" }],
  importances: [{ id: "i", ladder: "l", step: 2 }],
  searches: [{ id: "q", ladder: "l", candidates: ["x", "m", "other", "calm"] }],
  theories: [{ id: "theory", holm: true, delta: 0.1 }],
  hypotheses: [
    { id: "h1", ladder: "l", rests: { on: "coefficient", column: [{ variable: "x" }] }, direction: "+" },
    { id: "h2", ladder: "l", rests: { on: "coefficient", column: [{ variable: "x" }, { variable: "m" }] }, direction: "+" },
    { id: "h3", ladder: "l", step: 2, rests: { on: "change" } },
  ],
}); // prettier-ignore

/** What is asked of a study on its answers, as a worker has it. */
async function worked(study: Study, kind: string, of: unknown): Promise<unknown> {
  const { spec, context } = asked(kind, of, study, Object.keys(FILE));
  const { analysis } = await askedKind(kind).load();
  const responses = sourceOf(FILE);
  return analysis.run(spec, {
    study: context,
    responses,
    columns: new StudyColumns(context, responses),
    rows: N,
    objects: () => [],
    progress: () => {},
    shelf: () => new Map(),
  });
}

/** Everything that a write-up of this study is composed from. Intervals are by normal theory. */
export async function wholeSource(study: Study = wholeStudy): Promise<Source> {
  const all = async (kind: string, list: readonly { id: string }[]) =>
    new Map(await Promise.all(list.map(async (one) => [one.id, await worked(study, kind, one)] as const))) as never;
  const looked = (await worked(study, "first-look", study.looks[0])) as { status: string };
  const { stands } = (await worked(study, "theory", theoryOf(study.theories))) as { stands: readonly { id: string }[] };
  return {
    ...bareSource(study, (name, level) => titleOf(study, name, level)),
    look: { look: study.looks[0]!, found: looked as never },
    scales: await all("scale", study.scales),
    ladders: await all("ladder", study.ladders),
    probes: await all("probe", study.probes),
    means: await all("means", study.means),
    groups: await all("groups", study.groups),
    structures: await all("structure", study.structures),
    searches: await all("search", study.searches),
    importance: await all("importance", study.importances),
    stands: new Map(stands.map((stand) => [stand.id, stand])) as never,
  };
}

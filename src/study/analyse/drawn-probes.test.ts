import { replicatesOf } from "@/core/resampling/resampler";
import { percentileLimits } from "@/core/resampling/interval-limits";
import type { AnyAnalysis, Desk, Ready } from "../kinds/kind";
import { askedKind } from "../kinds/kinds";
import { Study } from "../model/study";
import { StudyColumns } from "../prepare/study-columns";
import { sourceOf } from "../test-support/columns";
import { analyseGroups } from "./analyse-groups";
import { analyseMeans } from "./analyse-means";
import { analyseProbe } from "./analyse-probe";
import { contrastFigure, differenceFigure, drawnMeans, drawnReading, effectFigure, predictionFigure } from "./probe-figures";
import { readProbe, shownDifferences } from "./read-probe";
import type { Combined } from "@/core/resampling/figures/figure";
import type { ReplicateIntervals } from "../model/replicate-intervals";

/** What is resampled of a probed step is what the page reads off it: the replicates' figures of the sample itself are the slopes, differences and means. */
const N = 140;
const wave = (i: number, k: number) => Math.round(1000 * Math.sin((i + 1) * k * 1.7 + k * k)) / 500;
const cells = (f: (i: number) => number | string) => Array.from({ length: N }, (_, i) => String(f(i)));
const DATA = {
  x: cells((i) => wave(i, 1)),
  m: cells((i) => 4 + wave(i, 2)),
  w: cells((i) => wave(i, 3)),
  g: cells((i) => ["a", "b", "c"][i % 3]!),
  h: cells((i) => (i % 4 < 2 ? "u" : "v")),
  team: cells((i) => `t${i % 20}`),
  y: cells((i) => wave(i, 1) * (1 + 0.3 * wave(i, 2)) + (i % 3) * 0.4 + (i % 4 < 2 ? 0.5 * wave(i, 3) : 0) + wave(i, 7)),
};
const study = Study.parse({
  format: "beta-step-study",
  version: 1,
  name: "s",
  codebook: Object.keys(DATA).map((name) => ({ name, kind: ["g", "h", "team"].includes(name) ? "category" : "number" })),
});
const source = sourceOf(DATA);
const desk = { study, responses: source, columns: new StudyColumns(study, source), rows: N } as unknown as Desk;
const ladderOf = (terms: string[], own: object = {}) => ({
  id: "l",
  name: "L",
  outcome: "y",
  steps: [{ id: "s", terms: terms.map((term) => ({ components: term.split("*") })) }],
  ...own,
});

async function ready(kind: "probe" | "means" | "groups", spec: unknown): Promise<Ready> {
  const of = askedKind(kind);
  const { analysis } = (await of.load()) as { analysis: AnyAnalysis };
  return analysis.ready!(of.spec.parse(spec), desk, false);
}

/** A figure of the sample itself, by what it is of. */
function estimateOf(made: Ready): (figure: Combined) => number | undefined {
  const estimates = made.estimates();
  const known = new Map(made.names.map((name, i) => [JSON.stringify(name), estimates[i]!]));
  return (figure) => known.get(JSON.stringify(figure));
}

const close = (ours: number | undefined, theirs: number | null | undefined) => {
  expect(ours).toBeDefined();
  expect(theirs).not.toBeNull();
  expect(Math.abs(ours! - theirs!)).toBeLessThanOrEqual(1e-9 * Math.max(1, Math.abs(theirs!)));
};

const PROBES: [string, string[], { focal: string; moderators: object[] }, object?][] = [
  ["a product of two numbers", ["x", "m", "x*m"], { focal: "x", moderators: [{ variable: "m" }] }],
  ["… z-scored", ["x", "m", "x*m"], { focal: "x", moderators: [{ variable: "m" }] }, { centring: "z" }],
  ["… as they are", ["x", "m", "x*m"], { focal: "m", moderators: [{ variable: "x", values: { by: "percentiles" } }] }, { centring: "raw" }],
  ["values of one's own", ["x", "m", "x*m"], { focal: "x", moderators: [{ variable: "m", values: { by: "own", values: [3, 5.5] } }] }],
  ["a square", ["x", "x*x"], { focal: "x", moderators: [{ variable: "x" }] }],
  ["three ways", ["x", "m", "w", "x*m", "x*w", "m*w", "x*m*w"], { focal: "x", moderators: [{ variable: "m" }, { variable: "w" }] }],
  ["a number by a category", ["x", "g", "x*g"], { focal: "x", moderators: [{ variable: "g" }] }],
  ["a category by a number", ["g", "m", "g*m"], { focal: "g", moderators: [{ variable: "m" }] }],
  ["two categories", ["g", "h", "g*h"], { focal: "g", moderators: [{ variable: "h" }] }],
  ["deviation coding", ["g", "h", "g*h"], { focal: "h", moderators: [{ variable: "g" }] }, { categories: [{ variable: "g", coding: "deviation" }] }],
]; // prettier-ignore

test.each(PROBES)("law: %s, in both metrics", async (_, terms, asked, own = {}) => {
  const spec = askedKind("probe").spec.parse({ probe: { id: "p", ladder: "l", ...asked }, ladder: ladderOf(terms, own) }) as Parameters<typeof analyseProbe>[0]; // prettier-ignore
  const result = analyseProbe(spec, desk);
  if (result.status === "refused") throw new Error(result.refusal.code);
  const of = estimateOf(await ready("probe", spec));
  for (const metric of ["raw", "z"] as const) {
    const reading = readProbe(spec.probe, result.ground, metric);
    reading.places.forEach((place, i) => reading.effects.forEach((effect, e) => close(of(effectFigure(result.ground, 0, effect, place, metric)), reading.found[i]![e]!.estimate))); // prettier-ignore
    for (const d of shownDifferences(reading)) {
      const places = [reading.places[d.first]!, reading.places[d.second]!] as const;
      reading.effects.forEach((effect, e) => close(of(differenceFigure(result.ground, 0, effect, places, metric)), d.found[e]!.estimate));
    }
  }
});

test.each(["mean", "one", "pairs"] as const)("law: predicted means and what they are held against (%s)", async (compare) => {
  for (const by of [null, "h"]) {
    const spec = askedKind("means").spec.parse({ means: { id: "m", ladder: "l", variable: "g", by, compare }, ladder: ladderOf(["x", "g", "h", "g*h"]) }) as Parameters<typeof analyseMeans>[0]; // prettier-ignore
    const told = analyseMeans(spec, desk);
    if (told.status === "refused") throw new Error(told.refusal.code);
    const of = estimateOf(await ready("means", spec));
    for (const cell of told.reading.cells) close(of(predictionFigure(told.ground, 0, cell)), cell.predicted!.estimate);
    for (const c of told.reading.contrasts) close(of(contrastFigure(told.ground, 0, told.reading, c.first, c.second)), c.found!.estimate);
  }
});

test("law: groups in all metrics, and their differences; whole clusters within groups are what is drawn", async () => {
  const spec = (own: object) => askedKind("groups").spec.parse({ groups: { id: "g", ladder: "l", variable: "h" }, ladder: ladderOf(["x", "m", "x*m"], own) }) as Parameters<typeof analyseGroups>[0]; // prettier-ignore
  const result = analyseGroups(spec({}), desk);
  if (result.status === "refused") throw new Error(result.refusal.code);
  const made = await ready("groups", spec({}));
  const estimates = made.estimates();
  const metric = { b: "raw", beta: "all", betaOwn: "own" } as const;
  let seen = 0;
  made.names.forEach((figure, k) => {
    if (typeof figure === "string" || !("group" in figure || "of" in figure)) throw new Error("not of a group");
    if ("of" in figure) {
      const d = result.differences[metric[figure.of]].find((one) => one.column === figure.column && one.first === figure.first && one.second === figure.second)!; // prettier-ignore
      close(estimates[k], d.estimate);
    } else close(estimates[k], result.columns.find((c) => c.column === figure.column)!.found[metric[figure.kind]][figure.group]!.estimate);
    seen++;
  });
  expect(seen).toBe(3 * 3 * 3); // columns, metrics, two groups and their difference
  expect(made.units).toBe(N);
  expect((await ready("groups", spec({ cluster: "team" }))).units).toBe(20); // each team is in one of the two
});

test("intervals of replicates stand in the place of those by theory, and only there; what is being moved keeps its own", async () => {
  const spec = askedKind("probe").spec.parse({ probe: { id: "p", ladder: "l", focal: "x", moderators: [{ variable: "m" }] }, ladder: ladderOf(["x", "m", "x*m"]) }) as Parameters<typeof analyseProbe>[0]; // prettier-ignore
  const result = analyseProbe(spec, desk);
  if (result.status === "refused") throw new Error(result.refusal.code);
  const made = await ready("probe", spec);
  const B = 400;
  const { values } = replicatesOf(made, 5, { first: 0, count: B });
  const spread = { edges: [0, 1], counts: [B] };
  const boot: ReplicateIntervals = {
    replicates: B, redrawn: 0, units: made.units, differences: [],
    intervals: made.names.map((figure, k) => {
      const { lower, upper } = percentileLimits(values.subarray(k * B, (k + 1) * B), 0.95);
      return { figure: figure as Combined, spread, interval: { estimate: 0, lower, upper, method: "percentile" as const, clamped: false, needed: null } };
    }),
  }; // prettier-ignore
  const reading = readProbe(spec.probe, result.ground);
  const drawn = drawnReading(reading, result.ground, 0, "raw", boot);
  drawn.found.forEach(([slope], i) => {
    const theory = reading.found[i]![0]!;
    expect(slope).toMatchObject({ estimate: theory.estimate, se: theory.se, p: theory.p });
    expect(slope!.lower).not.toBe(theory.lower);
    // of well-behaved residuals the two tell nearly the same
    expect(Math.abs(slope!.lower! - theory.lower!)).toBeLessThan(theory.se!);
    expect(Math.abs(slope!.upper! - theory.upper!)).toBeLessThan(theory.se!);
  });
  const moved = readProbe({ ...spec.probe, moderators: [{ variable: "m", values: { by: "own", values: [1.25] } }] }, result.ground);
  expect(drawnReading(moved, result.ground, 0, "raw", boot).found).toEqual(moved.found);
  const means = analyseMeans({ means: { id: "m", ladder: "l", step: null, variable: "m", values: { by: "sd" }, by: null, compare: "mean", against: null }, ladder: spec.ladder }, desk); // prettier-ignore
  if (means.status === "refused") throw new Error(means.refusal.code);
  expect(drawnMeans(means.reading, means.ground, 0, boot)).toEqual(means.reading); // those of another question are not its own
});

test("places of a step with a dropped column are not told from replicates: the reason is", async () => {
  const spec = { probe: { id: "p", ladder: "l", focal: "x", moderators: [{ variable: "m" }] }, ladder: ladderOf(["x", "m", "x*m", "g", "h", "g*h"], { filter: { variable: "g", equals: ["a"] } }) }; // prettier-ignore
  await expect(ready("probe", spec)).resolves.toBeDefined(); // a level nobody has takes no column, and drops none
  const same = { ...DATA, twin: DATA.x };
  const own = sourceOf(same);
  const wider = Study.parse({ ...study, codebook: [...study.codebook, { name: "twin", kind: "number" }] });
  const at = { study: wider, responses: own, columns: new StudyColumns(wider, own), rows: N } as unknown as Desk;
  const of = askedKind("probe");
  const { analysis } = (await of.load()) as { analysis: AnyAnalysis };
  const asked = of.spec.parse({ probe: { id: "p", ladder: "l", focal: "x", moderators: [{ variable: "m" }] }, ladder: ladderOf(["x", "m", "x*m", "twin"]) }); // prettier-ignore
  expect(() => analysis.ready!(asked, at, false)).toThrow(
    expect.objectContaining({ code: "no-replicates", details: { columns: ["twin"] } }),
  );
});

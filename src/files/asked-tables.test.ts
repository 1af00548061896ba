import Papa from "papaparse";
import { analyseGroups } from "@/study/analyse/analyse-groups";
import { analyseMeans } from "@/study/analyse/analyse-means";
import { analyseProbe } from "@/study/analyse/analyse-probe";
import { Groups } from "@/study/model/groups";
import { Ladder } from "@/study/model/ladder";
import { Means } from "@/study/model/means";
import { Probe } from "@/study/model/probe";
import { Study } from "@/study/model/study";
import { StudyColumns } from "@/study/prepare/study-columns";
import { groupsTable } from "@/study/report/ladder/groups-table";
import { meansTable } from "@/study/report/ladder/means-table";
import { sourceOf } from "@/study/test-support/columns";
import { resultsOf } from "@/study/test-support/results";
import { groupsCsv } from "./groups-csv";
import { meansCsv } from "./means-csv";
import { probeCsv } from "./probe-csv";
import { tableAsHtml } from "./table-html";

/** What can be saved of probes, means and groups, held against the results document, which the compute command writes. */
const N = 90;
const wave = (i: number, k: number) => Math.round(1000 * Math.sin((i + 1) * k * 1.7 + k * k)) / 500;
const cells = (f: (i: number) => number | string) => Array.from({ length: N }, (_, i) => String(f(i)));
const source = sourceOf({
  x: cells((i) => wave(i, 1)),
  m: cells((i) => wave(i, 2)),
  g: cells((i) => ["=a", "b", "c"][i % 3]!),
  y: cells((i) => wave(i, 1) * (1 + (i % 3)) + wave(i, 2) + wave(i, 7)),
});
const ladder = Ladder.parse({ id: "l", name: "L", outcome: "y", steps: [{ id: "s", terms: [["x"], ["m"], ["g"], ["x", "m"]].map((components) => ({ components })) }] }); // prettier-ignore
const probe = Probe.parse({ id: "p", ladder: "l", focal: "x", moderators: [{ variable: "m" }] });
const means = Means.parse({ id: "m", ladder: "l", variable: "g", compare: "pairs" });
const groups = Groups.parse({ id: "g", ladder: "l", variable: "g", metric: "raw" });
const study = Study.parse({
  format: "beta-step-study", version: 1, name: "s",
  codebook: ["x", "m", "g", "y"].map((name) => ({ name, kind: name === "g" ? "category" : "number" })),
  ladders: [ladder], probes: [probe], means: [means], groups: [groups],
}); // prettier-ignore
const desk = { study, responses: source, columns: new StudyColumns(study, source) } as unknown as Parameters<typeof analyseProbe>[1];
const rowsOf = (csv: string) => Papa.parse<Record<string, string>>(csv.replace(/^\uFEFF/, ""), { header: true, skipEmptyLines: true }).data;
const NONE = { boot: null, shuffled: null };
const same = (cell: string | undefined, value: number) => expect(Number(cell)).toBe(value);

let document: any;
beforeAll(async () => (document = await resultsOf(study, source)));

test("a probe: slopes, differences and predicted outcomes at full precision", () => {
  const result = analyseProbe({ probe, ladder }, desk);
  if (result.status === "refused") throw new Error(result.refusal.code);
  const rows = rowsOf(probeCsv(result.reading, result));
  const own = document.probes.p;
  same(rows.find((r) => r.what === "effect" && r.at!.startsWith("low"))!.estimate, own.slopes.low.effect.estimate);
  const ends = rows.filter((r) => r.what === "predicted" && r.at === "high").map((r) => Number(r.estimate));
  expect(ends).toEqual(["min", "p5", "p95", "max"].map((end) => own.predicted.high[end].estimate));
});

test("predicted means and their contrasts, as CSV and as a journal prints them", () => {
  const told = analyseMeans({ means, ladder }, desk);
  if (told.status === "refused") throw new Error(told.refusal.code);
  const rows = rowsOf(meansCsv(told));
  const own = document.means.m;
  expect(rows.filter((r) => r.what === "predicted").map((r) => [r.n, Number(r.estimate)])).toEqual(["=a", "b", "c"].map((level) => ["30", own.means[level].estimate])); // prettier-ignore
  same(rows.find((r) => r.at === "c" && r.minus === "b")!.p_holm, own.contrasts["c - b"].p_holm);
  const { head, sections } = meansTable(means, told, "L", (name, level) => level ?? name);
  expect(sections.map((s) => s.rows.length)).toEqual([3, 3]);
  for (const { rows: printed } of sections) for (const row of printed) expect(row).toHaveLength(head.length);
});

test("groups: coefficients, differences the way round in which they are positive, and the tests; signs of formulas set off", () => {
  const result = analyseGroups({ groups, ladder }, desk);
  if (result.status === "refused") throw new Error(result.refusal.code);
  const csv = groupsCsv(groups, result, NONE);
  expect(csv).not.toMatch(/(^|,)=a/m);
  const rows = rowsOf(csv);
  const own = document.groups.g;
  same(rows.find((r) => r.what === "coefficient" && r.column === "x" && r.group === "b")!.estimate, own.groups.b.coef.x.b);
  const between = rows.find((r) => r.what === "difference" && r.column === "x" && [r.group, r.minus].sort().join() === "b,c")!;
  same(between.estimate, Math.abs(own.differences.x["b - c"].difference));
  same(between.p_holm, own.differences.x["b - c"].p_holm_all_shown);
  const chi = rows.find((r) => r.column === "x" && r.what!.includes("chi2"))!;
  same(chi.statistic, own.omnibus.one_term.x.chi2);
  same(rows.find((r) => r.column === "all" && r.what!.includes("(F)"))!.statistic, own.omnibus.pooled_F.F);
  const html = tableAsHtml(groupsTable(groups, result, NONE, "L", (name, level) => level ?? name));
  expect(html).toContain("<i>z</i>\u00a0=\u00a0");
  expect(html).toMatch(/as one model <i>F<\/i>\(\d+, 78\)/);
});

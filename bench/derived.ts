import { ColumnShelf } from "@/compute/column-shelf";
import { randomStream } from "@/core/random/random-stream";
import { DerivedVariable } from "@/study/model/derived";
import type { ResponseColumn } from "@/study/model/response-column";
import { Variable } from "@/study/model/variable";
import { StudyColumns } from "@/study/prepare/study-columns";

/**
 * Twenty derived variables of every kind on so many rows, as a worker works them out, some standing on others: all of them from
 * nothing, and all of them in the next job, which finds them on the shelf.
 *   npx tsx bench/derived.ts [rows] [times]
 */
const rows = Number(process.argv[2] ?? 100_000);
const times = Number(process.argv[3] ?? 5);
const random = randomStream(7);
const numbers = (name: string, of: () => number): ResponseColumn => ({
  name,
  values: Float64Array.from({ length: rows }, of),
  states: Uint8Array.from({ length: rows }, () => (random.below(25) === 0 ? 1 : 0)),
  texts: [],
});
const words = (name: string, texts: string[]): ResponseColumn => ({
  name,
  values: Float64Array.from({ length: rows }, () => random.below(texts.length)),
  states: new Uint8Array(rows).fill(2),
  texts,
});
const days = Array.from({ length: 9000 }, (_, i) => new Date(Date.UTC(1975, 0, 1 + i)).toISOString().slice(0, 10));
const columns = [
  ...Array.from({ length: 6 }, (_, k) => numbers(`x${k + 1}`, () => random.normal() * 10 + 50)),
  ...Array.from({ length: 6 }, (_, k) => numbers(`q${k + 1}`, () => 1 + random.below(7))),
  words("format", ["online", "in person", "blended", "other"]),
  words("born", days),
];
const derived = [
  { name: "d1", recipe: { kind: "z", from: "x1" } },
  { name: "d2", recipe: { kind: "z", from: "x2" } },
  { name: "d3", recipe: { kind: "centre", from: "x3" } },
  { name: "d4", recipe: { kind: "transform", from: "x4", by: "ln" } },
  { name: "d5", recipe: { kind: "transform", from: "x5", by: "root" } },
  { name: "d6", recipe: { kind: "formula", formula: "d1 * d2" } },
  { name: "d7", recipe: { kind: "formula", formula: "(q1 + q2 + q3) / 3" } },
  { name: "d8", recipe: { kind: "formula", formula: "mean(q1, q2, q3, q4, q5, q6)" } },
  { name: "d9", recipe: { kind: "formula", formula: 'if(format = "online", x1, x2) ^ 2 - ln(x3)' } },
  {
    name: "d10",
    recipe: { kind: "weighted", parts: ["q1", "q2", "q3", "q4"].map((variable, i) => ({ variable, weight: 0.1 * (i + 1) })) },
  },
  { name: "d11", recipe: { kind: "ranges", from: "x6", edges: [40, 50, 60], labels: ["a", "b", "c", "d"] } },
  { name: "d12", recipe: { kind: "ranges", from: "d8", edges: [4], labels: ["low", "high"] } },
  {
    name: "d13",
    recipe: { kind: "lookup", from: "format", table: [{ values: ["online", "blended"], to: "some online" }], otherwise: { kind: "keep" } },
  },
  {
    name: "d14",
    recipe: { kind: "lookup", from: "q1", table: [{ values: ["1", "2", "3"], to: "0" }], otherwise: { kind: "value", value: "1" } },
  },
  { name: "d15", recipe: { kind: "indicator", from: "format", equals: ["online"] } },
  { name: "d16", recipe: { kind: "indicator", from: "d13", equals: ["some online"] } },
  {
    name: "d17",
    recipe: { kind: "years", from: "born", order: "year-month-day", count: "completed", to: { kind: "day", day: "2026-11-24" } },
  },
  { name: "d18", recipe: { kind: "years", from: "born", order: "year-month-day", count: "calendar" } },
  { name: "d19", recipe: { kind: "formula", formula: "d17 / 10 + abs(d3) * round(d5, 1)" } },
  { name: "d20", recipe: { kind: "transform", from: "d19", by: "square" } },
].map((d) => DerivedVariable.parse(d));
const kinds: Record<string, string> = { format: "category", born: "date", d11: "category", d12: "category", d13: "category" };
const codebook = [...columns, ...derived].map(({ name }) => Variable.parse({ name, kind: kinds[name] ?? "number" }));
const source = (name: string) => columns.find((c) => c.name === name);

const median = (list: number[]) => [...list].sort((a, b) => a - b)[list.length >> 1]!;
const spent = new Map<string, number[]>();
const measured: number[] = [];
const again: number[] = [];
for (let time = 0; time < times; time++) {
  const shelf = new ColumnShelf();
  const study = { codebook, scales: [], derived };
  const columnsNow = new StudyColumns(study, source, shelf);
  let whole = 0;
  for (const { name } of derived) {
    const from = performance.now();
    columnsNow.column(name);
    const took = performance.now() - from;
    whole += took;
    spent.set(name, [...(spent.get(name) ?? []), took]);
  }
  measured.push(whole);
  const from = performance.now();
  const later = new StudyColumns(study, source, shelf);
  for (const { name } of derived) later.column(name);
  again.push(performance.now() - from);
}
const slowest = [...spent].map(([name, list]) => ({ name, ms: median(list) })).sort((a, b) => b.ms - a.ms);
process.stdout.write(
  `20 derived variables, ${rows} rows: first ${Math.round(measured[0]!)} ms, median ${Math.round(median(measured))} ms, least ${Math.round(Math.min(...measured))} ms; ` +
    `in the next job, kept from the one before, ${median(again).toFixed(1)} ms. Slowest: ${slowest
      .slice(0, 5)
      .map((v) => `${v.name} ${Math.round(v.ms)}`)
      .join(", ")}\n`,
);

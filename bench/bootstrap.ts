import { readFileSync } from "node:fs";
import Papa from "papaparse";
import { bcaLimits, jackknifeAcceleration } from "@/core/resampling/interval-limits";
import { LadderBootstrap } from "@/core/resampling/ladder-bootstrap";
import { ladderModels, type LadderSpec } from "@/core/regression/ladder";
import { randomStream } from "@/core/random/random-stream";

/**
 * `npm run bench:bootstrap [replicates]`: one ladder of the kind of the founders' anchor W1 (n = 1,000, six columns in three steps with a product), whole job
 * with the data in memory on one thread: 10,000 case resamples with every b, β, part correlation, R² and ΔR², jackknife, BCa limits. One line of JSON a round.
 * With a CSV of the anchor's data as second argument that file is taken.
 */
const B = Number(process.argv[2] ?? 10_000);
const file = process.argv[3];
function data(): Map<string, Float64Array> {
  if (file) {
    const rows = Papa.parse<string[]>(readFileSync(file, "utf8"), { skipEmptyLines: true }).data;
    return new Map(rows[0]!.map((name, i) => [name, Float64Array.from(rows.slice(1), (row) => Number(row[i]))]));
  }
  const random = randomStream(1);
  const n = 1000;
  const x = (): Float64Array => Float64Array.from({ length: n }, () => random.normal());
  const all = new Map(["c1", "c2", "a", "b", "d"].map((name) => [name, x()]));
  const [a, b] = [all.get("a")!, all.get("b")!];
  all.set(
    "y",
    a.map((v, i) => 0.4 * v + 0.2 * b[i]! + 0.15 * v * b[i]! + random.normal()),
  );
  return all;
}
const columns = data();
const names = [...columns.keys()].filter((name) => name !== "y");
const spec: LadderSpec = {
  outcome: "y",
  centring: "mean",
  confidence: 0.95,
  steps: [names.slice(0, 2), names.slice(2, 5), [`${names[2]}*${names[3]}`]].map((terms) =>
    terms.map((t) => ({ components: t.split("*") })),
  ),
};
for (let round = 0; round < 5; round++) {
  const from = performance.now();
  const boot = new LadderBootstrap(ladderModels(spec, columns), null);
  const ready = performance.now();
  const { values } = boot.replicates(1, { first: 0, count: B });
  const drawn = performance.now();
  const jackknife = boot.jackknife();
  const left = performance.now();
  const size = boot.figures.length;
  const estimates = boot.estimates();
  for (let at = 0; at < size; at++) {
    const sorted = Float64Array.from({ length: B }, (_, r) => values[r * size + at]!).sort();
    const a = jackknifeAcceleration(Float64Array.from({ length: boot.units }, (_, i) => jackknife[i * size + at]!));
    bcaLimits(sorted, estimates[at]!, a, 0.95);
  }
  const done = performance.now();
  const ms = (x: number) => Math.round(x);
  process.stdout.write(
    `${JSON.stringify({ round, figures: size, ms: ms(done - from), ready: ms(ready - from), replicates: ms(drawn - ready), jackknife: ms(left - drawn), limits: ms(done - left) })}\n`,
  );
}

import { groupedStep } from "@/core/groups/grouped-step";
import { groupModels, shuffledDifferences } from "@/core/groups/shuffled-labels";
import { randomStream } from "@/core/random/random-stream";
import { groupBootstrap, groupFigures } from "@/core/resampling/group-bootstrap";
import { replicatesOf } from "@/core/resampling/resampler";

/**
 * `npm run bench:groups [rounds]`: a comparison of 8 groups with 10 predictors at n = 5,000, all that the page asks for, in turns with the job of W3 (4 groups, 6
 * columns, b and differences): ms a replicate, one thread each. Prints medians and ratios to W3.
 */
const rounds = Number(process.argv[2] ?? 5);
const N = 5000;

function step(groups: number, predictors: number) {
  const random = randomStream(7);
  const labels = Int32Array.from({ length: N }, (_, i) => i % groups);
  const names = Array.from({ length: predictors }, (_, j) => `x${j + 1}`);
  const variables = new Map(names.map((name) => [name, Float64Array.from({ length: N }, () => random.normal())] as const));
  variables.set(
    "y",
    Float64Array.from({ length: N }, (_, i) => variables.get("x1")![i]! * (1 + 0.1 * labels[i]!) + random.normal()),
  );
  const terms = [...names.map((name) => ({ components: [name] })).slice(0, -1), { components: ["x1", "x2"] }];
  return groupedStep({ outcome: "y", centring: "mean", confidence: 0.95 }, terms, variables, labels, groups);
}

const all = (groups: number) => Array.from({ length: groups }, (_, g) => g);
const [small, large] = [step(4, 6), step(8, 10)];
const [few, many] = [groupModels(small, all(4)), groupModels(large, all(8))];
const w3 = groupBootstrap(few, 0, groupFigures(few, 0, ["b"]));
const page = groupBootstrap(many, 0, groupFigures(many, 0));

const B = 1000;
const jobs: Record<string, () => void> = {
  "W3: 4 groups, 6 columns, b and differences": () => replicatesOf(w3, 1, { first: 0, count: B }),
  "8 groups, 10 columns, b and both β, all differences": () => replicatesOf(page, 1, { first: 0, count: B }),
  "8 groups, 10 columns, labels shuffled": () => shuffledDifferences(large, all(8), 1, { first: 0, count: B }),
};
const times = new Map(Object.keys(jobs).map((name) => [name, [] as number[]]));
for (let round = 0; round <= rounds; round++) {
  for (const [name, work] of Object.entries(jobs)) {
    const from = performance.now();
    work();
    if (round > 0) times.get(name)!.push((performance.now() - from) / B);
  }
}
const median = (of: number[]) => of.toSorted((a, b) => a - b)[Math.floor(of.length / 2)]!;
const one = median(times.get(Object.keys(jobs)[0]!)!);
for (const [name, of] of times)
  process.stdout.write(`${name}: ${median(of).toFixed(3)} ms a replicate, ${(median(of) / one).toFixed(2)} × W3\n`);

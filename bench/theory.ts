import { populationOf } from "@/core/planning/population";
import { simulate } from "@/core/planning/simulate";
import { randomStream } from "@/core/random/random-stream";
import { analyseTheory } from "@/study/analyse/analyse-theory";
import { Hypothesis } from "@/study/model/hypothesis";
import { Ladder } from "@/study/model/ladder";
import { Theory } from "@/study/model/theory";
import { cells, deskOf, ladderOf } from "@/study/test-support/desk";
import { inTurns } from "./in-turns";

/** Hypotheses and planning, on one thread: medians of rounds in turns. */
const ROUNDS = 5;
const N = 430;
const stream = randomStream(1);
const names = Array.from({ length: 12 }, (_, k) => `x${k}`);
const data = new Map(names.map((name) => [name, Array.from({ length: N }, () => stream.normal())]));
const y = Array.from({ length: N }, (_, i) => names.reduce((sum, name, k) => sum + (data.get(name)![i]! * (12 - k)) / 30, stream.normal()));
const desk = deskOf({
  y: cells(N, (i) => y[i]!),
  ...Object.fromEntries(names.map((name) => [name, cells(N, (i) => data.get(name)![i]!)])),
});
const ladder = ladderOf(names.slice(0, 4), names.slice(4), ["x0*x1", "x2*x3"]);
const columns = [...names.map((name) => [name]), ["x0", "x1"], ["x2", "x3"]];
const hypotheses = Array.from({ length: 200 }, (_, k) => {
  const column = columns[k % columns.length]!.map((variable) => ({ variable }));
  return Hypothesis.parse({ id: `h${k}`, ladder: "l", rests: { on: "coefficient", column }, direction: "+" });
});
const theory = Theory.parse({ id: "theory", holm: true, delta: 0.1 });
const drawn = Ladder.parse({ ...ladder, intervals: { by: "bca", replicates: 5000 } });
const population = populationOf({ columns: [[0], [1], [2], [3], [2, 3]], tested: 1, r: 0.3, R2: 0.3, change: 0.02 })!;
const TASKS: Record<string, () => unknown> = {
  "200 hypotheses on a ladder of 14 columns, n = 430": () => analyseTheory({ theory, hypotheses, ladders: [ladder] }, desk),
  "one by 5,000 replicates, BCa, the same": () => analyseTheory({ theory, hypotheses: hypotheses.slice(0, 1), ladders: [drawn] }, desk),
  "2,000 samples of n = 300, three steps": () =>
    simulate(population, { n: 300, skew: 0, missing: 0, alpha: 0.05, oneSided: false, seed: 1 }, { first: 0, count: 2000 }),
  "the same, skewed and with missing answers": () =>
    simulate(population, { n: 300, skew: 1, missing: 0.05, alpha: 0.05, oneSided: false, seed: 1 }, { first: 0, count: 2000 }),
};
inTurns(TASKS, ROUNDS);

import { ladderModels, type LadderModels } from "../regression/ladder";
import { type PermutedDifference, permutedDifferences } from "../resampling/label-permutation";
import type { ReplicateRange } from "../resampling/resampler";
import { casesOf, type GroupedStep, variablesOf } from "./grouped-step";

/** Shuffles of the labels of some groups, columns as they entered in the whole sample. @param among groups, ascending, from 0 */
export function shuffledDifferences(
  step: GroupedStep,
  among: readonly number[],
  seed: number,
  range: ReplicateRange,
): PermutedDifference[] {
  const place = new Map(among.map((group, i) => [group, i]));
  const cases = Int32Array.from([...step.labels.keys()].filter((i) => place.has(step.labels[i]!)));
  const labels = cases.map((i) => place.get(step.labels[i]!)!);
  return permutedDifferences(enteredModels(step, cases), 0, labels, seed, range).map((d) => ({
    ...d,
    first: among[d.first]!,
    second: among[d.second]!,
  }));
}

/** The step in each of some groups, by itself, as the bootstrap within groups takes it. */
export function groupModels({ spec, variables, labels, design }: GroupedStep, among: readonly number[]): LadderModels[] {
  // the reference of the whole sample, so that a level's column says the same in each
  const categories = new Map(design.tables.map(({ variable, coding, reference }) => [variable, { coding, reference }]));
  const own = { ...spec, categories, errors: { kind: "classical" } as const };
  return among.map((group) => ladderModels(own, variablesOf(variables, casesOf(labels, group))));
}

function enteredModels({ spec, variables, design }: GroupedStep, cases: Int32Array): LadderModels {
  const entered = new Map(variables);
  for (const { variable, subtracted, dividedBy } of design.codings) {
    entered.set(variable, (variables.get(variable) as Float64Array).map((v) => (v - subtracted) / dividedBy)); // prettier-ignore
  }
  return ladderModels({ ...spec, centring: "raw", errors: { kind: "classical" } }, variablesOf(entered, cases));
}

import { holm } from "@/core/distributions/holm";
import type { Estimate } from "@/core/regression/coefficients";
import type { ProbeGround } from "@/core/regression/probe-ground";
import { predictedAt, predictionContrast } from "@/core/regression/simple-effects";
import type { Means } from "../model/means";
import { type ProbePlace, placesOf } from "./read-probe";

/** A predicted outcome; null: the sample does not hold what it would be predicted from. */
export interface MeansCell extends ProbePlace {
  predicted: Estimate | null;
}

/** One predicted outcome held against another, or against the mean of all. */
export interface MeansContrast {
  /** Places among the cells; null: the mean of all. */
  first: number;
  second: number | null;
  found: Estimate | null;
  /** Adjusted over all that are shown. */
  pHolm: number | null;
}

export interface MeansReading {
  cells: MeansCell[];
  contrasts: MeansContrast[];
  /** Mean of the predicted outcomes, equal weights; null where one is missing. */
  all: number | null;
}

/** Predicted outcomes and what they are held against (docs/methods.md, “Marginal means”); with a second variable, within each of its places. */
export function readMeans(means: Pick<Means, "variable" | "values" | "by" | "compare" | "against">, ground: ProbeGround): MeansReading {
  const { variable, values, by, compare, against } = means;
  const moderators = [...(by === null ? [] : [{ variable: by, values: { by: "sd" as const } }]), { variable, values }];
  const cells = placesOf(ground, moderators).map((place) => ({ ...place, predicted: predictedAt(ground, place.held) }));
  const labelOf = (cell: MeansCell) => cell.at.at(-1)!.label;
  const groupOf = (cell: MeansCell) => (by === null ? "" : cell.at[0]!.label);
  const labels = [...new Set(cells.map(labelOf))];
  const one = against !== null && labels.includes(against) ? against : labels[0]!;
  const pairs = cells.flatMap((first, i): { first: number; second: number | null }[] => {
    if (compare === "mean") return [{ first: i, second: null }];
    return cells.flatMap((second, k) => {
      if (groupOf(first) !== groupOf(second)) return [];
      const wanted = compare === "one" ? labelOf(second) === one && i !== k : k < i;
      return wanted ? [{ first: i, second: k }] : [];
    });
  });
  const share = 1 / cells.length;
  const found = pairs.map(({ first, second }) =>
    predictionContrast(
      ground,
      second === null
        ? cells.map(({ held }, i) => ({ held, weight: (i === first ? 1 : 0) - share }))
        : [
            { held: cells[first]!.held, weight: 1 },
            { held: cells[second]!.held, weight: -1 },
          ],
    ),
  );
  const tested = found.flatMap((f, i) => (f?.p == null ? [] : [{ i, p: f.p }]));
  const adjusted = holm(tested.map(({ p }) => p));
  const byPair = new Map(tested.map(({ i }, k) => [i, adjusted[k]!]));
  const sum = cells.reduce<number | null>(
    (total, { predicted }) => (total === null || predicted === null ? null : total + predicted.estimate),
    0,
  );
  return {
    cells,
    contrasts: pairs.map((pair, i) => ({ ...pair, found: found[i]!, pHolm: byPair.get(i) ?? null })),
    all: sum === null ? null : sum * share,
  };
}

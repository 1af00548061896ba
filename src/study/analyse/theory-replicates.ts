import { replicateEvidence } from "@/core/planning/evidence";
import type { Evidence } from "@/core/planning/verdict";
import type { Figure } from "@/core/resampling/figures/figure";
import type { GroupFigure } from "@/core/resampling/group-bootstrap";
import { accelerationsOf, replicatesOf } from "@/core/resampling/resampler";
import type { Desk, Ready } from "../kinds/kind";
import type { Groups } from "../model/groups";
import type { Ladder } from "../model/ladder";
import { analysis as groupsAnalysis } from "./groups-analysis";
import { NoReplicatesError, type Refusal, refusalOf } from "./refusal";
import { stepReady } from "./replicated-step";

type GroupsFigure = GroupFigure & { groups: Groups };
type Drawn = { evidence: Evidence[]; replicates: number } | { refusal: Refusal };

/**
 * Evidence of some figures of a step from the replicates of its ladder: drawn with its seed, so that they are those of its own intervals.
 * @param step from 1 @param figures of the step, or one of a comparison of its groups
 */
export function drawnOf(ladder: Ladder, step: number, figures: readonly (Figure | GroupsFigure)[], desk: Desk): Drawn {
  const { intervals, seed } = ladder;
  if (intervals.by === "normal") return { evidence: [], replicates: 0 };
  try {
    const { values, estimates, accelerations } = kept(ladder, step, figures, desk, intervals.by, intervals.replicates, seed);
    const evidence = figures.map((_, k) =>
      replicateEvidence(
        values.subarray(k * intervals.replicates, (k + 1) * intervals.replicates),
        { estimate: estimates[k]!, acceleration: accelerations[k]! },
        intervals.by as "bca" | "percentile",
      ),
    );
    return { evidence, replicates: intervals.replicates };
  } catch (error) {
    return { refusal: refusalOf(error) };
  }
}

interface Kept {
  values: Float64Array;
  estimates: Float64Array;
  accelerations: Float64Array;
}

/** What was drawn for the same figures is not drawn again when a level or a claim changes. */
function kept(
  ladder: Ladder,
  step: number,
  figures: readonly (Figure | GroupsFigure)[],
  desk: Desk,
  by: string,
  replicates: number,
  seed: number,
): Kept {
  // prettier-ignore
  const shelf = desk.shelf<Kept>("replicates of hypotheses");
  const key = JSON.stringify([desk.study, { ...ladder, confidence: 0 }, step, figures]);
  const known = shelf.get(key);
  if (known) return known;
  const { ready, places } = prepared(ladder, step, figures, desk);
  const all = replicatesOf(ready, seed, { first: 0, count: replicates }, (done) => desk.progress(done, replicates));
  const estimates = ready.estimates();
  const accelerated = by === "bca" ? accelerationsOf(ready, estimates).figures : new Float64Array(estimates.length);
  const values = new Float64Array(places.length * replicates);
  places.forEach(({ place, sign }, k) => {
    for (let r = 0; r < replicates; r++) values[k * replicates + r] = sign * all.values[place * replicates + r]!;
  });
  const made = {
    values,
    estimates: Float64Array.from(places, ({ place, sign }) => sign * estimates[place]!),
    // the third moment turns with the sign
    accelerations: Float64Array.from(places, ({ place, sign }) => sign * accelerated[place]!),
  };
  shelf.set(key, made);
  return made;
}

function prepared(ladder: Ladder, step: number, figures: readonly (Figure | GroupsFigure)[], desk: Desk) {
  const [first] = figures;
  if (!first || !("groups" in first)) {
    const ready = stepReady({ ladder, step }, desk, () => figures as Figure[]);
    return { ready, places: figures.map((_, place) => ({ place, sign: 1 })) };
  }
  const { groups } = first;
  const ready: Ready = groupsAnalysis.ready!({ groups, ladder }, desk, false);
  const places = (figures as readonly GroupsFigure[]).map((wanted) => {
    const same = (f: Ready["names"][number], turned: boolean) => {
      if (wanted.kind !== "difference" || typeof f === "string" || f.kind !== "difference" || !("of" in f)) return false;
      const pair = turned ? [wanted.second, wanted.first] : [wanted.first, wanted.second];
      return f.of === wanted.of && f.column === wanted.column && f.first === pair[0] && f.second === pair[1];
    };
    const [straight, turned] = [false, true].map((way) => ready.names.findIndex((f) => same(f, way)));
    if (straight! < 0 && turned! < 0) throw new NoReplicatesError({ columns: [wanted.column] });
    return straight! >= 0 ? { place: straight!, sign: 1 } : { place: turned!, sign: -1 };
  });
  return { ready, places };
}

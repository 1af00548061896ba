import { replicateEvidence } from "@/core/planning/evidence";
import type { Evidence } from "@/core/planning/verdict";
import type { Figure } from "@/core/resampling/figures/figure";
import { accelerationsOf, replicatesOf } from "@/core/resampling/resampler";
import type { Desk, Ready } from "../kinds/kind";
import type { Groups } from "../model/groups";
import type { Ladder } from "../model/ladder";
import { analysis as groupsAnalysis } from "./groups-analysis";
import { NoReplicatesError, type Refusal, refusalOf } from "./refusal";
import { stepReady } from "./replicated-step";

/** What replicates of a ladder give: drawn with its seed, so that they are those of its own intervals. */
export interface Draws {
  readonly replicates: number;
  /** Evidence of the figure at a place; the other way round where it is turned. */
  evidence(place: number, turned?: boolean): Evidence;
}

type Drawn = Draws | { refusal: Refusal };

/** All figures that hypotheses on a step rest on, in one go. @param step from 1 */
export function stepDraws(ladder: Ladder, step: number, figures: readonly Figure[], desk: Desk): Drawn {
  return drawn(ladder, `step ${step}`, figures, desk, () => stepReady({ ladder, step }, desk, () => [...figures]));
}

/** A coefficient of one group minus that in another, of a step told by groups. @param first, second groups, from 0 */
export function groupEvidence(
  ladder: Ladder,
  groups: Groups,
  { of, column, first, second }: { of: "b" | "beta"; column: string; first: number; second: number },
  desk: Desk,
): { evidence: Evidence; replicates: number } | { refusal: Refusal } {
  const found = drawn(ladder, `groups ${groups.step} ${groups.variable}`, [], desk, () =>
    groupsAnalysis.ready!({ groups, ladder }, desk, false),
  );
  if ("refusal" in found) return found;
  const [straight, turned] = [[first, second], [second, first]].map(([a, b]) =>
    found.names.findIndex((f) => typeof f !== "string" && f.kind === "difference" && "of" in f && f.of === of && f.column === column && f.first === a && f.second === b)); // prettier-ignore
  if (straight! < 0 && turned! < 0) return { refusal: refusalOf(new NoReplicatesError({ columns: [column] })) };
  const evidence = straight! >= 0 ? found.evidence(straight!) : found.evidence(turned!, true);
  return { evidence, replicates: found.replicates };
}

interface Kept {
  key: string;
  names: Ready["names"];
  values: Float64Array;
  estimates: Float64Array;
  accelerations: Float64Array;
}

/** What was drawn for the same figures is not drawn again when a level or a claim changes; of each step the newest is kept. */
function drawn(
  ladder: Ladder,
  of: string,
  figures: readonly Figure[],
  desk: Desk,
  make: () => Ready,
): (Draws & { names: Ready["names"] }) | { refusal: Refusal } {
  const { intervals, seed } = ladder;
  if (intervals.by === "normal") throw new RangeError("a ladder by normal theory has no replicates");
  const { by, replicates } = intervals;
  const shelf = desk.shelf<Kept>("replicates of hypotheses");
  const place = `${ladder.id} ${of}`;
  const key = JSON.stringify([desk.study, { ...ladder, confidence: 0 }, figures]);
  try {
    const known = shelf.get(place);
    const kept = known?.key === key ? known : draw(make(), key);
    shelf.set(place, kept);
    return {
      names: kept.names,
      replicates,
      evidence(at, turned = false) {
        const sign = turned ? -1 : 1;
        const values = kept.values.subarray(at * replicates, (at + 1) * replicates);
        // the third moment turns with the sign
        const expected = { estimate: sign * kept.estimates[at]!, acceleration: sign * kept.accelerations[at]! };
        return replicateEvidence(turned ? values.map((v) => -v) : values, expected, by);
      },
    };
  } catch (error) {
    return { refusal: refusalOf(error) };
  }

  function draw(ready: Ready, as: string): Kept {
    const { values } = replicatesOf(ready, seed, { first: 0, count: replicates }, (done) => desk.progress(done, replicates));
    const estimates = ready.estimates();
    const accelerations = by === "bca" ? accelerationsOf(ready, estimates).figures : new Float64Array(estimates.length);
    return { key: as, names: ready.names, values, estimates, accelerations };
  }
}

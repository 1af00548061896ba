import { covariance } from "@/core/regression/covariance";
import { type ProbeGround, probeGround } from "@/core/regression/probe-ground";
import type { Figure } from "@/core/resampling/figures/figure";
import { ladderBootstrap } from "@/core/resampling/ladder-bootstrap";
import { drawingOf } from "@/core/resampling/units";
import type { Desk, Ready } from "../kinds/kind";
import type { Ladder } from "../model/ladder";
import type { ReplicateIntervals } from "../model/replicate-intervals";
import { ladderSample, modelsOn } from "../prepare/ladder-models";
import { NoErrorsError, NoReplicatesError } from "./refusal";

/**
 * What is asked of a step, made ready to be resampled.
 * @param of figures, from how the step is probed; the step counted from 0
 * @throws what fitting the ladder throws; NoReplicatesError
 */
export function stepReady(
  { ladder, step: asked }: { ladder: Ladder; step: number | null },
  { columns }: Desk,
  of: (ground: ProbeGround, step: number) => Figure[],
): Ready {
  const models = modelsOn(ladder, ladderSample(ladder, columns));
  const step = Math.min(asked ?? ladder.steps.length, ladder.steps.length) - 1;
  const fit = models.fits[step]!;
  if (fit.dropped.length > 0) throw new NoReplicatesError({ columns: fit.dropped.map(({ column }) => column) });
  const errors = covariance(fit, { kind: "classical" });
  if ("reason" in errors) throw new NoErrorsError({ why: errors.reason });
  const names = of(probeGround(models, step, errors), step);
  // a step beyond the one that is asked for would cost a column each
  const upTo = { ...models, fits: models.fits.slice(0, step + 1) };
  return { ...ladderBootstrap(upTo, drawingOf(models.spec.errors), names), names };
}

/** How replicates were drawn, under the names of docs/results.md. */
export function drawnResults({ intervals, seed }: Ladder, { replicates, redrawn, units }: ReplicateIntervals) {
  return { by: intervals.by, seed, replicates, redrawn, units };
}

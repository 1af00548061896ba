import type { Estimate } from "@/core/regression/coefficients";
import type { EffectAlong, FocalEffect, NoAlong } from "@/core/regression/simple-effects";
import type { Combined } from "@/core/resampling/figures/figure";
import type { Analysis, Desk, WorkedOut } from "../kinds/kind";
import type { Ladder } from "../model/ladder";
import type { Probe } from "../model/probe";
import type { ReplicateIntervals } from "../model/replicate-intervals";
import { fittedAt } from "./analyse-ladder";
import { analyseProbe, type ProbeResult } from "./analyse-probe";
import { combinedIntervals, differenceFigure, effectFigure, probeFigures } from "./probe-figures";
import {
  cellsAt,
  holdingShare,
  pointAt,
  type ProbePlace,
  type ProbeReading,
  readProbe,
  regionShares,
  shownDifferences,
} from "./read-probe";
import { drawnResults, stepReady } from "./replicated-step";
import { sampleResults } from "./sample-results";

type Probed = Extract<ProbeResult, { status: "probed" }>;

/** A probe under the names of docs/results.md. */
function probeResults(probe: Probe, desk: Desk, { intervals }: WorkedOut) {
  const ladder = (desk.objects("ladder") as Ladder[]).find((l) => l.id === probe.ladder)!;
  const { focal, moderators, metric } = probe;
  const settings = { ladder: ladder.id, step: probe.step ?? ladder.steps.length, focal, moderators, metric };
  const found = analyseProbe({ probe, ladder }, desk, fittedAt(desk, ladder));
  const sample = found.sample && sampleResults(found.sample);
  if (found.status === "refused") return { settings, status: "refused" as const, refusal: found.refusal, sample };
  const { ground } = found;
  const reading = readProbe(probe, ground, metric);
  const byEffect = <T, V>(list: readonly T[], make: (one: T) => V) =>
    "level" in reading.effects[0]! ? Object.fromEntries(reading.effects.map((e, i) => [effectName(e), make(list[i]!)])) : make(list[0]!);
  const at = (place: ProbePlace) => Object.fromEntries(place.at.map(({ variable, label, value }) => [variable, value ?? label]));
  return {
    settings,
    status: "probed" as const,
    sample,
    df: ground.of.df,
    errors: ground.of.kind,
    slopes: Object.fromEntries(
      reading.places.map((place, i) => [place.key, { at: at(place), effect: byEffect(reading.found[i]!, estimateResults) }]),
    ),
    differences: Object.fromEntries(
      reading.differences.map((d) => [
        `${reading.places[d.first]!.key} - ${reading.places[d.second]!.key}`,
        byEffect(d.found, estimateResults),
      ]),
    ),
    regions: Object.fromEntries(
      reading.along.map(({ place, along }) => [place.key || "all", byEffect(along, (one) => regionResults(one, found))]),
    ),
    predicted: Object.fromEntries(reading.places.map((place) => [place.key, predictions(probe, found, place)])),
    bootstrap: intervals ? { ...drawnResults(ladder, intervals), ...drawnProbe(probe, reading, found, intervals) } : null,
  };
}

/** The same effects and differences with intervals from replicates; null: not available. */
function drawnProbe({ metric }: Probe, reading: ProbeReading, { ground, step }: Probed, intervals: ReplicateIntervals) {
  const of = combinedIntervals(intervals);
  const { places, effects } = reading;
  const each = (make: (effect: FocalEffect) => Combined) =>
    "level" in effects[0]! ? Object.fromEntries(effects.map((e) => [effectName(e), of(make(e))])) : of(make(effects[0]!));
  return {
    slopes: Object.fromEntries(places.map((place) => [place.key, each((e) => effectFigure(ground, step - 1, e, place, metric))])),
    differences: Object.fromEntries(
      shownDifferences(reading).map(({ first, second }) => {
        const [a, b] = [places[first]!, places[second]!];
        return [`${a.key} - ${b.key}`, each((e) => differenceFigure(ground, step - 1, e, [a, b], metric))];
      }),
    ),
  };
}

const effectName = (effect: FocalEffect) => ("level" in effect ? `${effect.level} - ${effect.minus}` : effect.variable);

function estimateResults(e: Estimate | null) {
  return e && { estimate: e.estimate, se: e.se, t: e.t, p: e.p, lower: e.lower, upper: e.upper };
}

function regionResults(along: EffectAlong | NoAlong, { numbers }: Probed) {
  if ("reason" in along) return { available: false as const, reason: along.reason };
  const values = numbers.get(along.moderator)!.sorted;
  const [min, max] = [values[0]!, values[values.length - 1]!];
  return {
    available: true as const,
    moderator: along.moderator,
    observed_min: min,
    observed_max: max,
    bounds: along.bounds.map((value) => ({ value, inside_range: value >= min && value <= max })),
    holds: along.holds,
    shares: regionShares(along.bounds, values),
    share_holds: holdingShare(along, values),
  };
}

/** Outcomes predicted at the ends, the 5th and the 95th percentile of a number; at each level of a category. */
function predictions({ focal }: Probe, { ground }: Probed, place: ProbePlace) {
  const spread = ground.spreads.get(focal);
  const own = place.at.find((at) => at.variable === focal); // of a square: where it is looked at
  if (own) return { x: own.value, ...estimateResults(pointAt(ground, focal, place, own.value!).predicted) };
  if (!spread) return Object.fromEntries(cellsAt(ground, focal, place).map(({ level, predicted }) => [level, estimateResults(predicted)]));
  const { min, p5, p95, max } = spread;
  return Object.fromEntries(
    Object.entries({ min, p5, p95, max }).map(([name, x]) => [name, { x, ...estimateResults(pointAt(ground, focal, place, x).predicted) }]),
  );
}

export const analysis: Analysis<Probe, { probe: Probe; ladder: Ladder }, ProbeResult> = {
  run: (spec, desk) => analyseProbe(spec, desk),
  results: probeResults,
  ready: ({ probe, ladder }, desk) => stepReady({ ladder, step: probe.step }, desk, (ground, step) => probeFigures(readProbe(probe, ground), ground, step)), // prettier-ignore
};

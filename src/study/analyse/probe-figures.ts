import { type HeldAt, heldAtLevel, NUMERIC_PLACES } from "@/core/regression/design-point";
import type { ProbeGround } from "@/core/regression/probe-ground";
import type { Estimate } from "@/core/regression/coefficients";
import type { FocalEffect } from "@/core/regression/simple-effects";
import { partKey } from "@/core/regression/terms";
import type { Combined } from "@/core/resampling/figures/figure";
import type { Probe } from "../model/probe";
import { ladderFigures, type ReplicateInterval, type ReplicateIntervals } from "../model/replicate-intervals";
import type { MeansReading } from "./read-means";
import { type ModeratorAt, type ProbePlace, type ProbeReading, shownDifferences } from "./read-probe";

/** What the replicates of a probed step are made of: mean ± SD is formed anew in each, percentiles and values of one's own stay (docs/methods.md, “Bootstrap intervals”). */

type Metric = Probe["metric"];
type Part = Combined["parts"][number];

/** An effect at a place. @param step from 0 */
export function effectFigure(ground: ProbeGround, step: number, effect: FocalEffect, place: ProbePlace, metric: Metric): Combined {
  return { kind: "combined", step, parts: effectParts(ground, effect, place, 1), per: perOf(effect, metric) };
}

/** The effect at one place minus that at another. */
export function differenceFigure(
  ground: ProbeGround,
  step: number,
  effect: FocalEffect,
  [first, second]: readonly [ProbePlace, ProbePlace],
  metric: Metric,
): Combined {
  const parts = [...effectParts(ground, effect, first, 1), ...effectParts(ground, effect, second, -1)];
  return { kind: "combined", step, parts, per: perOf(effect, metric) };
}

/** The predicted outcome at a place. */
export function predictionFigure(ground: ProbeGround, step: number, place: ProbePlace): Combined {
  return { kind: "combined", step, parts: [{ weight: 1, slope: null, at: heldOf(ground, place.at) }], per: null };
}

/** One predicted outcome minus another, or minus the mean of all. */
export function contrastFigure(ground: ProbeGround, step: number, { cells }: MeansReading, first: number, second: number | null): Combined {
  const part = (i: number, weight: number): Part => ({ weight, slope: null, at: heldOf(ground, cells[i]!.at) });
  const parts =
    second === null ? cells.map((_, i) => part(i, (i === first ? 1 : 0) - 1 / cells.length)) : [part(first, 1), part(second, -1)];
  return { kind: "combined", step, parts, per: null };
}

/** Everything a probe tells, in both metrics. */
export function probeFigures(reading: ProbeReading, ground: ProbeGround, step: number): Combined[] {
  const { places, effects } = reading;
  return (["raw", "z"] as const).flatMap((metric) =>
    effects.flatMap((effect) => [
      ...places.map((place) => effectFigure(ground, step, effect, place, metric)),
      ...shownDifferences(reading).map(({ first, second }) => differenceFigure(ground, step, effect, [places[first]!, places[second]!], metric)), // prettier-ignore
    ]),
  );
}

/** Everything predicted means tell. */
export function meansFigures(reading: MeansReading, ground: ProbeGround, step: number): Combined[] {
  return [
    ...reading.cells.map((cell) => predictionFigure(ground, step, cell)),
    ...reading.contrasts.map(({ first, second }) => contrastFigure(ground, step, reading, first, second)),
  ];
}

/** Intervals by what they are of. */
export function combinedIntervals(boot: ReplicateIntervals): (figure: Combined) => ReplicateInterval | null {
  const key = ({ step, parts, per }: Combined) => JSON.stringify([step, parts.map(({ weight, slope, at }) => [weight, slope, at.map(({ component, unit, value }) => [component, unit, value])]), per]); // prettier-ignore
  const known = new Map(ladderFigures(boot).flatMap(({ figure, interval }) => (figure.kind === "combined" ? [[key(figure), interval]] : []))); // prettier-ignore
  return (figure) => known.get(key(figure)) ?? null;
}

/** A reading whose intervals are those of replicates, where there are any: what is still being moved keeps its own. */
export function drawnReading(
  reading: ProbeReading,
  ground: ProbeGround,
  step: number,
  metric: Metric,
  boot: ReplicateIntervals,
): ProbeReading {
  const of = combinedIntervals(boot);
  const { places, effects } = reading;
  return {
    ...reading,
    found: reading.found.map((found, i) =>
      found.map((e, k) => limited(e, () => of(effectFigure(ground, step, effects[k]!, places[i]!, metric)))),
    ),
    differences: reading.differences.map((d) => ({
      ...d,
      found: d.found.map((e, k) =>
        limited(e, () => of(differenceFigure(ground, step, effects[k]!, [places[d.first]!, places[d.second]!], metric))),
      ),
    })),
  };
}

/** The same of predicted means. */
export function drawnMeans(reading: MeansReading, ground: ProbeGround, step: number, boot: ReplicateIntervals): MeansReading {
  const of = combinedIntervals(boot);
  return {
    ...reading,
    cells: reading.cells.map((cell) => ({ ...cell, predicted: limited(cell.predicted, () => of(predictionFigure(ground, step, cell))) })),
    contrasts: reading.contrasts.map((c) => ({
      ...c,
      found: limited(c.found, () => of(contrastFigure(ground, step, reading, c.first, c.second))),
    })),
  };
}

function limited(e: Estimate | null, interval: () => ReplicateInterval | null): Estimate | null {
  const drawn = e && interval();
  return drawn ? { ...e, lower: drawn.lower, upper: drawn.upper } : e;
}

function effectParts(ground: ProbeGround, effect: FocalEffect, { at }: ProbePlace, weight: number): Part[] {
  if (!("level" in effect)) return [{ weight, slope: partKey({ variable: effect.variable, level: null }), at: heldOf(ground, at) }];
  const others = heldOf(ground, at.filter(({ variable }) => variable !== effect.variable)); // prettier-ignore
  const heldWith = (level: string) => [...others, ...heldAtLevel(ground.design, effect.variable, level)];
  return [
    { weight, slope: null, at: heldWith(effect.level) },
    { weight: -weight, slope: null, at: heldWith(effect.minus) },
  ];
}

function perOf(effect: FocalEffect, metric: Metric): Combined["per"] {
  if (metric === "raw") return null;
  return { column: "level" in effect ? null : partKey({ variable: effect.variable, level: null }) };
}

function heldOf({ design }: ProbeGround, at: readonly ModeratorAt[]): HeldAt[] {
  return at.flatMap(({ variable, label, value }): HeldAt[] => {
    if (value === null) return heldAtLevel(design, variable, label);
    const component = partKey({ variable, level: null });
    const sds = NUMERIC_PLACES[label as keyof typeof NUMERIC_PLACES] as number | undefined;
    return [sds === undefined ? { component, unit: "raw", value } : { component, unit: "sd", value: sds }];
  });
}

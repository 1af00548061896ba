import { bisectRight } from "d3-array";
import type { Estimate } from "@/core/regression/coefficients";
import type { ProbeGround } from "@/core/regression/probe-ground";
import {
  type EffectAlong,
  effectAlong,
  effectDifference,
  type FocalEffect,
  type Held,
  type NoAlong,
  predictedAt,
  simpleEffect,
} from "@/core/regression/simple-effects";
import type { Probe, ProbedModerator } from "../model/probe";

/** A moderator at one of its places. */
export interface ModeratorAt {
  variable: string;
  /** "low", "mean", "high"; "p16", "p50", "p84"; a number; a level. */
  label: string;
  /** Null for a level. */
  value: number | null;
}

/** All moderators, each at one of its places. */
export interface ProbePlace {
  /** Its name in results: `low`, `knowhow low, breaks high`. */
  key: string;
  at: ModeratorAt[];
  held: Held[];
}

/** What a probe finds, read off a fitted step. Lists of effects: one of a number, a level against the reference each of a category. */
export interface ProbeReading {
  effects: FocalEffect[];
  places: ProbePlace[];
  /** Per place and effect. */
  found: (Estimate | null)[][];
  /** Every two places, the effect at the first minus the effect at the second. */
  differences: { first: number; second: number; found: (Estimate | null)[] }[];
  /** Along the first moderator that is a number, for each place of the others; one effect a list. Empty without one. */
  along: { place: ProbePlace; along: (EffectAlong | NoAlong)[] }[];
}

/**
 * Slopes, differences and regions of a probe (docs/methods.md, “Simple slopes”).
 * @param metric what they are told in; it moves no bound
 */
export function readProbe(probe: Pick<Probe, "focal" | "moderators">, ground: ProbeGround, metric: "raw" | "z" = "raw"): ProbeReading {
  const effects = effectsOf(ground, probe.focal);
  const places = placesOf(ground, probe.moderators);
  const found = places.map(({ held }) => effects.map((effect) => simpleEffect(ground, effect, held, metric)));
  const differences = places.flatMap((a, first) =>
    places.slice(first + 1).map((b, k) => ({
      first,
      second: first + 1 + k,
      found: effects.map((effect) => effectDifference(ground, effect, a.held, b.held, metric)),
    })),
  );
  const along = probe.moderators.find((m) => ground.spreads.has(m.variable))?.variable;
  const others = placesOf(
    ground,
    probe.moderators.filter((m) => m.variable !== along),
  );
  return {
    effects,
    places,
    found,
    differences,
    along:
      along === undefined
        ? []
        : others.map((place) => ({ place, along: effects.map((effect) => effectAlong(ground, effect, along, place.held, metric)) })),
  };
}

/** Differences of more places than this are told of the first and the last alone. */
const MOST_PLACES = 4;

/** The differences that a probe tells. */
export function shownDifferences({ places, differences }: ProbeReading): ProbeReading["differences"] {
  return differences.filter((d) => places.length <= MOST_PLACES || (d.first === 0 && d.second === places.length - 1));
}

/** A slope, or each level of a category against its reference. */
function effectsOf(ground: ProbeGround, focal: string): FocalEffect[] {
  const table = ground.design.tables.find((t) => t.variable === focal);
  if (!table) return [{ variable: focal }];
  return table.levels
    .filter(({ level }) => level !== table.reference)
    .map(({ level }) => ({ variable: focal, level, minus: table.reference! }));
}

/** Every combination of the moderators' places; the first varies slowest. */
export function placesOf(ground: ProbeGround, moderators: readonly ProbedModerator[]): ProbePlace[] {
  const lists = moderators.map((m) => valuesOf(ground, m));
  const combined = lists.reduce<ModeratorAt[][]>((all, list) => all.flatMap((head) => list.map((next) => [...head, next])), [[]]);
  return combined.map((at) => ({
    key: at.map(({ variable, label }) => (at.length === 1 ? label : `${variable} ${label}`)).join(", "),
    at,
    held: at.map(({ variable, label, value }): Held => (value === null ? { variable, level: label } : { variable, value })),
  }));
}

function valuesOf(ground: ProbeGround, { variable, values }: ProbedModerator): ModeratorAt[] {
  const table = ground.design.tables.find((t) => t.variable === variable);
  if (table) return table.levels.map(({ level }) => ({ variable, label: level, value: null }));
  const { centre, sd, p16, p50, p84 } = ground.spreads.get(variable)!;
  const at = (label: string, value: number): ModeratorAt => ({ variable, label, value });
  switch (values.by) {
    case "sd":
      return [at("low", centre - sd), at("mean", centre), at("high", centre + sd)];
    case "percentiles":
      return [at("p16", p16), at("p50", p50), at("p84", p84)];
    case "own":
      return values.values.map((value) => at(String(value), value));
  }
}

/** A predicted outcome at a value of the focal number. */
export interface LinePoint {
  x: number;
  predicted: Estimate | null;
}

/** Predicted outcomes over the observed range of the focal number, at a place. @param points how many, ends included */
export function lineAt(ground: ProbeGround, focal: string, place: ProbePlace, points: number): LinePoint[] {
  const { min, max } = ground.spreads.get(focal)!;
  return Array.from({ length: points }, (_, i) => pointAt(ground, focal, place, min + ((max - min) * i) / (points - 1)));
}

export function pointAt(ground: ProbeGround, focal: string, place: ProbePlace, x: number): LinePoint {
  const others = place.held.filter((at) => at.variable !== focal);
  return { x, predicted: predictedAt(ground, [...others, { variable: focal, value: x }]) };
}

/** Predicted outcomes of a focal category's levels, at a place. */
export function cellsAt(ground: ProbeGround, focal: string, place: ProbePlace): { level: string; predicted: Estimate | null }[] {
  const table = ground.design.tables.find((t) => t.variable === focal);
  return (table?.levels ?? []).map(({ level }) => ({ level, predicted: predictedAt(ground, [...place.held, { variable: focal, level }]) }));
}

/** Shares of the sample below, between and above the bounds of a region. @param sorted the moderator's values, ascending */
export function regionShares(bounds: readonly number[], sorted: Float64Array): number[] {
  const ends = [0, ...bounds.map((bound) => bisectRight(sorted, bound)), sorted.length];
  return ends.slice(1).map((end, i) => (end - ends[i]!) / sorted.length);
}

/** Share of the sample for whom the effect can be told from zero. */
export function holdingShare(along: EffectAlong, sorted: Float64Array): number {
  const shares = regionShares(along.bounds, sorted);
  switch (along.holds) {
    case "everywhere":
      return 1;
    case "nowhere":
      return 0;
    case "between":
      return shares[1]!;
    case "outside":
      return shares[0]! + shares[2]!;
    case "below":
      return shares[0]!;
    case "above":
      return shares[1]!;
  }
}

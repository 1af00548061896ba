import { bisectLeft, bisectRight } from "d3-array";
import type { Estimate } from "@/core/regression/coefficients";
import type { ProbeResult } from "../../analyse/analyse-probe";
import { type ProbePlace, type ProbeReading, shownDifferences } from "../../analyse/read-probe";
import { levelTitle, type Titles } from "../level-title";
import { moderatorPlaceWords, placeName } from "./probe-words";

type Probed = Extract<ProbeResult, { status: "probed" }>;

/** A row of a probe's table: an effect at a place, or one effect minus another. */
export interface ProbeRow {
  kind: "effect" | "difference";
  /** `low, 2.41`; `high − low`. */
  place: string;
  /** `online − in person`; "" for the slope of a number. */
  effect: string;
  /** Respondents near the place: within half an SD of each number, at each level. Null for a difference. */
  near: number | null;
  /** Null: the sample does not hold what it would be told from. */
  found: Estimate | null;
}

/** Effects first, then what they differ by: the later place minus the earlier. */
export function probeRows(reading: ProbeReading, result: Probed, title: Titles): ProbeRow[] {
  const { places, effects } = reading;
  const effectName = effects.map((e) =>
    "level" in e ? `${levelTitle(title, e.variable, e.level)} − ${levelTitle(title, e.variable, e.minus)}` : "",
  );
  const rows = effects.flatMap((_, e) =>
    places.map((place, i): ProbeRow => ({
      kind: "effect",
      place: place.at.length === 1 ? moderatorPlaceWords(place.at[0]!, title) : placeName(place, title),
      effect: effectName[e]!,
      near: respondentsNear(place, result),
      found: reading.found[i]![e]!,
    })),
  );
  const pairs = shownDifferences(reading);
  const differences = effects.flatMap((_, e) =>
    pairs.map((d): ProbeRow => ({
      kind: "difference",
      place: `${placeName(places[d.second]!, title)} − ${placeName(places[d.first]!, title)}`,
      effect: effectName[e]!,
      near: null,
      found: turned(d.found[e]!),
    })),
  );
  return [...rows, ...differences];
}

/** The other way round. */
function turned(e: Estimate | null): Estimate | null {
  const minus = (v: number | null) => (v === null ? null : -v);
  return e && { ...e, estimate: -e.estimate, t: minus(e.t), lower: minus(e.upper), upper: minus(e.lower) };
}

/** Of several moderators there is no count: who is near in all of them is not known here. */
function respondentsNear({ at }: ProbePlace, { numbers, cases, ground }: Probed): number | null {
  if (at.length !== 1) return null;
  const { variable, value, label } = at[0]!;
  if (value === null) return cases.get(variable)?.find((c) => c.level === label)?.cases ?? null;
  const half = ground.spreads.get(variable)!.sd / 2;
  const { sorted } = numbers.get(variable)!;
  return bisectRight(sorted, value + half) - bisectLeft(sorted, value - half);
}

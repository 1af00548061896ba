import type { ProbeResult } from "../../analyse/analyse-probe";
import { lineAt, type ModeratorAt, type ProbeReading } from "../../analyse/read-probe";
import type { Probe } from "../../model/probe";
import { formatCount } from "../format-number";
import type { Titles } from "../level-title";
import { moderatorPlaceName } from "./probe-words";

type Probed = Extract<ProbeResult, { status: "probed" }>;

/** Predicted lines of a probe, named at their ends. */
export interface ProbeLines {
  title: string;
  note: string;
  lines: { name: string; points: { x: number; y: number; lower: number | null; upper: number | null }[] }[];
  /** Between these nine tenths of the respondents lie. */
  thick: [number, number];
}

const POINTS = 33;
const MOST_LINES = 9;

/** The places of one moderator, in order. */
export function distinctPlaces(reading: ProbeReading, variable: string): ModeratorAt[] {
  const all = reading.places.map(({ at }) => at.find((a) => a.variable === variable)!);
  return [...new Map(all.map((a) => [a.label, a])).values()];
}

/**
 * What is predicted along the focal predictor at the places of its first moderator, others at their middle: nine lines would be read by nobody.
 * @returns null where the focal predictor is a category or its own moderator, or nothing can be predicted
 */
export function probeLines(probe: Probe, reading: ProbeReading, { ground }: Probed, title: Titles): ProbeLines | null {
  const spread = ground.spreads.get(probe.focal);
  if (!spread || probe.moderators.some((m) => m.variable === probe.focal)) return null;
  const [first, ...others] = probe.moderators;
  const held = others.map(({ variable }) => {
    const all = distinctPlaces(reading, variable);
    return all[Math.floor((all.length - 1) / 2)]!;
  });
  const places = reading.places.filter(({ at }) => held.every((h) => at.some((a) => a.variable === h.variable && a.label === h.label)));
  const lines = places.slice(0, MOST_LINES).flatMap((place) => {
    const found = lineAt(ground, probe.focal, place, POINTS);
    if (found.some((p) => p.predicted === null)) return [];
    const own = place.at.find((a) => a.variable === first!.variable)!;
    return [{ name: moderatorPlaceName(own, title), points: found.map(({ x, predicted: p }) => ({ x, y: p!.estimate, lower: p!.lower, upper: p!.upper })) }]; // prettier-ignore
  });
  if (lines.length === 0) return null;
  return {
    title: `${title(ground.outcome)} predicted from ${title(probe.focal)}`,
    note: `by ${title(first!.variable)}${held.map((h) => `, ${title(h.variable)} ${moderatorPlaceName(h, title)}`).join("")}; n = ${formatCount(ground.n)}, pale where one in twenty lies`,
    lines,
    thick: [spread.p5, spread.p95],
  };
}

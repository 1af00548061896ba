import { binsOf, type Histogram } from "@/core/describe/histogram";
import type { ProbeGround } from "@/core/regression/probe-ground";
import type { Desk } from "../kinds/kind";
import type { Ladder, LadderTerm } from "../model/ladder";
import type { Probe } from "../model/probe";
import type { AnalysisSample } from "../prepare/analysis-sample";
import type { FittedLadder } from "./analyse-ladder";
import { askStep, casesOf } from "./probed-step";
import { type ProbeReading, readProbe } from "./read-probe";
import { NothingToProbeError, type Refusal } from "./refusal";

/** A probed step: what any place is read off, the reading itself, and how respondents lie along the moderators. */
export type ProbeResult =
  | {
      status: "probed";
      sample: AnalysisSample;
      /** From 1. */
      step: number;
      ground: ProbeGround;
      reading: ProbeReading;
      /** Of the focal and the moderating numbers over the sample, so that they can trade places: their values, ascending, and how they lie. */
      numbers: ReadonlyMap<string, { sorted: Float64Array; histogram: Histogram }>;
      /** Cases by level of the focal and the moderating categories. */
      cases: ReadonlyMap<string, { level: string; cases: number }[]>;
      /** Outcome and focal number of each respondent; null above so many that a picture could show. */
      points: { x: Float64Array; y: Float64Array } | null;
    }
  | { status: "refused"; sample: AnalysisSample | null; refusal: Refusal };

const MOST_POINTS = 5000;
const BARS = 20;

/** Probes a step of a ladder. @param fitted the ladder, where it is fitted already */
export function analyseProbe({ probe, ladder }: { probe: Probe; ladder: Ladder }, desk: Desk, fitted?: FittedLadder): ProbeResult {
  const moderators = probe.moderators.map((m) => m.variable);
  return askStep<ProbeResult>(
    { ladder, step: probe.step },
    desk,
    fitted,
    (terms, step) => {
      if (!moderators.every((name) => modifies(terms, probe.focal, name)))
        throw new NothingToProbeError({ focal: probe.focal, moderators, step });
    },
    ({ sample, models, step, ground }) => {
      const names = [...new Set([probe.focal, ...moderators])];
      const numbers = names.flatMap((name) => {
        const values = models.variables.get(name);
        return values instanceof Float64Array ? [{ name, sorted: values.toSorted() }] : [];
      });
      const focal = models.variables.get(probe.focal);
      return {
        status: "probed",
        sample,
        step,
        ground,
        reading: readProbe(probe, ground),
        numbers: new Map(numbers.map(({ name, sorted }) => [name, { sorted, histogram: binsOf(sorted, BARS) }])),
        cases: casesOf(models, names),
        points: focal instanceof Float64Array && focal.length <= MOST_POINTS ? { x: focal.slice(), y: models.y.slice() } : null,
      };
    },
  );
}

/** True when a term multiplies the focal predictor with a moderator: of a square, with itself. */
function modifies(terms: readonly LadderTerm[], focal: string, moderator: string): boolean {
  return terms.some(({ components }) => {
    const others = components.slice();
    const own = others.indexOf(focal);
    if (own < 0) return false;
    others.splice(own, 1);
    return others.includes(moderator);
  });
}

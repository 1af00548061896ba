import { covariance } from "@/core/regression/covariance";
import { type ProbeGround, probeGround } from "@/core/regression/probe-ground";
import type { Desk } from "../kinds/kind";
import { activeTerms, type Ladder } from "../model/ladder";
import type { Probe } from "../model/probe";
import type { AnalysisSample } from "../prepare/analysis-sample";
import { fitLadderOf, type FittedLadder } from "./analyse-ladder";
import { type ProbeReading, readProbe } from "./read-probe";
import { NoErrorsError, NothingToProbeError, type Refusal, refusalOf } from "./refusal";

/** A probed step: what any place is read off, the reading itself, and how respondents lie along the moderators. */
export type ProbeResult =
  | {
      status: "probed";
      sample: AnalysisSample;
      /** From 1. */
      step: number;
      ground: ProbeGround;
      reading: ProbeReading;
      /** Values of the focal and the moderating numbers over the sample, ascending. */
      sorted: ReadonlyMap<string, Float64Array>;
      /** Cases by level of the focal and the moderating categories. */
      cases: ReadonlyMap<string, { level: string; cases: number }[]>;
      /** Outcome and focal number of each respondent; null above so many that a picture could show. */
      points: { x: Float64Array; y: Float64Array } | null;
    }
  | { status: "refused"; sample: AnalysisSample | null; refusal: Refusal };

const MOST_POINTS = 5000;

/** Probes a step of a ladder. @param fitted the ladder, where it is fitted already */
export function analyseProbe(
  { probe, ladder }: { probe: Probe; ladder: Ladder },
  { study, responses, columns }: Desk,
  fitted?: FittedLadder,
): ProbeResult {
  const found = fitted ?? fitLadderOf(study, ladder, responses, columns);
  if (found.status === "refused") return found;
  const { models, sample } = found;
  const step = Math.min(probe.step ?? ladder.steps.length, ladder.steps.length);
  try {
    const moderators = probe.moderators.map((m) => m.variable);
    const terms = ladder.steps.slice(0, step).flatMap(activeTerms);
    // every moderator must stand in a product with the focal predictor: of a square, twice
    const modified = (name: string) =>
      terms.some(
        ({ components: c }) =>
          c.includes(probe.focal) && (name === probe.focal ? c.filter((x) => x === name).length > 1 : c.includes(name)),
      );
    if (!moderators.every(modified)) throw new NothingToProbeError({ focal: probe.focal, moderators, step });
    const of = covariance(models.fits[step - 1]!, models.spec.errors ?? { kind: "classical" });
    if ("reason" in of) throw new NoErrorsError({ why: of.reason });
    const ground = probeGround(models, step - 1, of);
    const names = [...new Set([probe.focal, ...moderators])];
    const values = (name: string) => models.variables.get(name);
    const focal = values(probe.focal);
    return {
      status: "probed",
      sample,
      step,
      ground,
      reading: readProbe(probe, ground),
      sorted: new Map(
        names.flatMap((name) => {
          const own = values(name);
          return own instanceof Float64Array ? [[name, Float64Array.from(own).sort()] as const] : [];
        }),
      ),
      cases: new Map(
        models.design.tables.flatMap((t) =>
          names.includes(t.variable) ? [[t.variable, t.levels.map(({ level, cases }) => ({ level, cases }))] as const] : [],
        ),
      ),
      points: focal instanceof Float64Array && focal.length <= MOST_POINTS ? { x: focal.slice(), y: models.y.slice() } : null,
    };
  } catch (error) {
    return { status: "refused", sample, refusal: refusalOf(error) };
  }
}

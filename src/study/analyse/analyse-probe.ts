import { binsOf, type Histogram } from "@/core/describe/histogram";
import type { ProbeGround } from "@/core/regression/probe-ground";
import type { Desk } from "../kinds/kind";
import type { Ladder, LadderTerm } from "../model/ladder";
import type { Probe } from "../model/probe";
import type { AnalysisSample } from "../prepare/analysis-sample";
import type { LadderModels } from "@/core/regression/ladder";
import type { FittedLadder } from "./analyse-ladder";
import { cellKey } from "./cell-key";
import type { Mediation } from "./mediation";
import { mediationsAt } from "./mediations";
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
      /** Respondents by focal level and place, where all are categories; null otherwise. By level, then by place. */
      cells: ReadonlyMap<string, number> | null;
      /** Outcome and focal number of each respondent, or above so many how they are spread; null: no number. */
      points: Scatter | null;
      /** Moderators that look like mediators. */
      mediations: Mediation[];
    }
  | { status: "refused"; sample: AnalysisSample | null; refusal: Refusal };

/** Points of a picture, or how many lie in each field of a grid, row after row from the lowest. */
export type Scatter =
  | { x: Float64Array; y: Float64Array }
  | { columns: number; rows: number; counts: Uint32Array; x: readonly [number, number]; y: readonly [number, number] };

const MOST_POINTS = 5000;
const GRID = { columns: 46, rows: 32 };
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
        cells: cellCounts(models, names),
        points: focal instanceof Float64Array ? scatterOf(focal, models.y) : null,
        mediations: mediationsAt(models, step - 1, ground.of, names),
      };
    },
  );
}

/** Respondents by their levels of several categories, under the levels in order; null where one is no category. */
function cellCounts({ variables }: LadderModels, names: readonly string[]): ReadonlyMap<string, number> | null {
  const all = names.map((name) => variables.get(name)!);
  const categories = all.flatMap((of) => ("codes" in of ? [of] : []));
  if (categories.length < all.length) return null;
  const counts = new Map<string, number>();
  for (let i = 0; i < categories[0]!.codes.length; i++) {
    const key = cellKey(categories.map(({ levels, codes }) => levels[codes[i]!]!));
    counts.set(key, (counts.get(key) ?? 0) + 1);
  }
  return counts;
}

function scatterOf(x: Float64Array, y: Float64Array): Scatter {
  if (x.length <= MOST_POINTS) return { x: x.slice(), y: y.slice() };
  const range = (values: Float64Array) => [values.reduce((a, b) => Math.min(a, b)), values.reduce((a, b) => Math.max(a, b))] as const;
  const [rangeX, rangeY] = [range(x), range(y)];
  const { columns, rows } = GRID;
  const counts = new Uint32Array(columns * rows);
  const field = (v: number, [low, high]: readonly [number, number], many: number) => Math.min(many - 1, Math.floor(((v - low) / (high - low || 1)) * many)); // prettier-ignore
  for (let i = 0; i < x.length; i++) counts[field(y[i]!, rangeY, rows) * columns + field(x[i]!, rangeX, columns)]!++;
  return { columns, rows, counts, x: rangeX, y: rangeY };
}

/** True when a term multiplies the focal predictor with a moderator: of a square, with itself. */
export function modifies(terms: readonly LadderTerm[], focal: string, moderator: string): boolean {
  return terms.some(({ components }) => {
    const others = components.slice();
    const own = others.indexOf(focal);
    if (own < 0) return false;
    others.splice(own, 1);
    return others.includes(moderator);
  });
}

import type { ProbeResult } from "@/study/analyse/analyse-probe";
import { cellsAt, pointAt, type ProbeReading } from "@/study/analyse/read-probe";
import { probeRows } from "@/study/report/ladder/probe-rows";
import { csvOf } from "./csv-cells";

const HEAD = ["what", "at", "effect", "near", "estimate", "se", "t", "df", "p", "lower", "upper", "errors"] as const;

/** Effects, differences and predicted outcomes of a probe as CSV, at full precision, under the names that variables have in the study. */
export function probeCsv(reading: ProbeReading, result: Extract<ProbeResult, { status: "probed" }>): string {
  const { ground } = result;
  const { of } = ground;
  const focal = reading.effects[0]!.variable;
  const spread = ground.spreads.get(focal);
  // a category at each of its levels; a number at its ends and where nine tenths of the respondents lie
  const predicted = reading.places.flatMap((place) => {
    if (!spread) return cellsAt(ground, focal, place).map(({ level, predicted: e }) => ({ place, at: level, e }));
    if (place.at.some((at) => at.variable === focal)) return [];
    return [spread.min, spread.p5, spread.p95, spread.max].map((x) => ({
      place,
      at: String(x),
      e: pointAt(ground, focal, place, x).predicted,
    }));
  });
  const rows = probeRows(reading, result, (name, level) => (level == null ? name : `${name}: ${level}`));
  return csvOf([
    HEAD,
    ...rows.map(({ kind, place, effect, near, found }) => [
      kind,
      place,
      effect,
      near,
      ...(found
        ? [found.estimate, found.se, found.t, of.df, found.p, found.lower, found.upper]
        : [null, null, null, null, null, null, null]),
      of.kind,
    ]),
    ...predicted.map(({ place, at, e }) => ["predicted", place.key, at, null, e?.estimate ?? null, e?.se ?? null, null, of.df, null, e?.lower ?? null, e?.upper ?? null, of.kind]), // prettier-ignore
  ]);
}

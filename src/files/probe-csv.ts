import type { ProbeResult } from "@/study/analyse/analyse-probe";
import type { ProbeReading } from "@/study/analyse/read-probe";
import { probeRows } from "@/study/report/ladder/probe-rows";
import { csvOf } from "./csv-cells";

const HEAD = ["what", "at", "effect", "near", "estimate", "se", "t", "df", "p", "lower", "upper", "errors"] as const;

/** Effects and differences of a probe as CSV, at full precision, under the names that variables have in the study. */
export function probeCsv(reading: ProbeReading, result: Extract<ProbeResult, { status: "probed" }>): string {
  const { of } = result.ground;
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
  ]);
}

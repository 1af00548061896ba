import type { ProbeResult } from "../../analyse/analyse-probe";
import type { ProbeReading } from "../../analyse/read-probe";
import type { Probe } from "../../model/probe";
import { decimalsFor, formatCount, formatInterval, formatNumber, formatP, formatPercent, formatShare, listed } from "../format-number";
import type { Titles } from "../level-title";
import type { PrintTable } from "../print-table";
import { plain, SYMBOL, words } from "../words";
import { probeRows } from "./probe-rows";
import { whatTheProbeSays } from "./probe-words";

type Probed = Extract<ProbeResult, { status: "probed" }>;

const ERRORS = { classical: "classical", hc3: "HC3", cluster: "cluster-robust (CR1)" } as const;

/** Slopes and their differences as a journal prints them. */
export function probeTable(probe: Probe, reading: ProbeReading, result: Probed, ladder: string, title: Titles): PrintTable {
  const { ground } = result;
  const names = probe.moderators.map((m) => title(m.variable));
  const rows = probeRows(reading, result, title);
  const sections = (["effect", "difference"] as const).map((kind) => ({
    heading: kind === "effect" ? (names.length === 1 ? names[0]! : "At") : "Differences",
    rows: rows
      .filter((row) => row.kind === kind)
      .map(({ place, effect, near, found }) => {
        const print = (v: number | null) => (probe.metric === "z" ? formatShare(v) : formatNumber(v, decimalsFor(found?.se ?? null)));
        return [
          effect === "" ? place : `${place}: ${effect}`,
          near === null ? "" : formatCount(near),
          print(found?.estimate ?? null),
          print(found?.se ?? null),
          formatNumber(found?.t ?? null),
          formatP(found?.p ?? null),
          formatInterval(found?.lower ?? null, found?.upper ?? null, print),
        ];
      }),
  }));
  const percent = formatPercent(ground.confidence);
  return {
    title: `${title(probe.focal)} and ${title(ground.outcome)} as ${listed(names)} changes (${ladder}, step ${result.step})`,
    head: [
      "Place",
      "near",
      probe.metric === "z" ? "β" : [SYMBOL.b],
      [SYMBOL.SE],
      words`${SYMBOL.t}(${ground.of.df})`,
      [SYMBOL.p],
      `${percent} CI`,
    ],
    sections: sections.filter((s) => s.rows.length > 0),
    note: `${ERRORS[ground.of.kind]} standard errors; other predictors at their means, categories at equal weights. Near: respondents within half an SD, or at the level. ${whatTheProbeSays(probe, reading, result, title).map(plain).join(" ")}`,
  };
}

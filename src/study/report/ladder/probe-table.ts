import type { ProbeResult } from "../../analyse/analyse-probe";
import type { ProbeReading } from "../../analyse/read-probe";
import type { TableOptions } from "../../model/block";
import type { Probe } from "../../model/probe";
import { decimalsFor, formatCount, formatInterval, formatNumber, formatP, formatPercent, formatShare, listed } from "../format-number";
import type { Titles } from "../level-title";
import { STARS, stars } from "../stars";
import type { PrintTable } from "../print-table";
import { plain, SYMBOL, words } from "../words";
import { probeRows } from "./probe-rows";
import { whatTheProbeSays } from "./probe-words";

type Probed = Extract<ProbeResult, { status: "probed" }>;

const ERRORS = { classical: "Classical", hc3: "HC3", cluster: "Cluster-robust (CR1)" } as const;

/** How rows with an estimate each are told: which of SE, interval, p and stars. */
export type TestedOptions = Pick<TableOptions, "spread" | "tests"> & {
  /** False: what it says stands beside the table, and not again below it. */
  said?: boolean;
};
export const ALL_TOLD: TestedOptions = { spread: "both", tests: "p" };

/** Which columns that leaves. */
export const toldColumns = ({ spread, tests }: TestedOptions) => ({
  se: spread === "se" || spread === "both",
  interval: spread === "interval" || spread === "both",
  p: tests === "p" || tests === "both",
  stars: tests === "stars" || tests === "both",
});

/** Slopes and their differences as a journal prints them. */
export function probeTable(
  probe: Probe,
  reading: ProbeReading,
  result: Probed,
  ladder: string,
  title: Titles,
  options: TestedOptions = ALL_TOLD,
): PrintTable {
  const told = toldColumns(options);
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
          `${print(found?.estimate ?? null)}${told.stars ? stars(found?.p ?? null) : ""}`,
          ...(told.se ? [print(found?.se ?? null)] : []),
          formatNumber(found?.t ?? null),
          ...(told.p ? [formatP(found?.p ?? null)] : []),
          ...(told.interval ? [formatInterval(found?.lower ?? null, found?.upper ?? null, print)] : []),
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
      ...(told.se ? [[SYMBOL.SE]] : []),
      words`${SYMBOL.t}(${ground.of.df})`,
      ...(told.p ? [[SYMBOL.p]] : []),
      ...(told.interval ? [`${percent} CI`] : []),
    ],
    sections: sections.filter((s) => s.rows.length > 0),
    note: words`${ERRORS[ground.of.kind]} standard errors; other predictors at their means, categories at equal weights. Near: respondents within half an SD, or at the level.${options.said === false ? "" : ` ${whatTheProbeSays(probe, reading, result, title).map(plain).join(" ")}`}${told.stars ? words` ${STARS}` : ""}`,
  };
}

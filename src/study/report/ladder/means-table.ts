import type { MeansResult } from "../../analyse/analyse-means";
import type { Means } from "../../model/means";
import { decimalsFor, formatInterval, formatNumber, formatP, formatPercent } from "../format-number";
import type { Titles } from "../level-title";
import type { PrintTable } from "../print-table";
import { STARS, stars } from "../stars";
import { plain, SYMBOL, words } from "../words";
import { ALL_TOLD, type TestedOptions, toldColumns } from "./probe-table";
import { cellName, whatTheMeansSay } from "./means-words";

/** Predicted outcomes, then what they are held against, as a journal prints them. */
export function meansTable(
  means: Means,
  told: Extract<MeansResult, { status: "told" }>,
  ladder: string,
  title: Titles,
  options: TestedOptions = ALL_TOLD,
): PrintTable {
  const { reading, ground } = told;
  const of = toldColumns(options);
  const { cells, contrasts } = reading;
  const printed = (e: (typeof contrasts)[number]["found"], holm: number | null) => {
    const print = (v: number | null) => formatNumber(v, decimalsFor(e?.se ?? null));
    const tested = holm === null ? ["", ""] : [formatNumber(e?.t ?? null), formatP(holm)];
    return [
      `${print(e?.estimate ?? null)}${of.stars ? stars(holm) : ""}`,
      ...(of.se ? [print(e?.se ?? null)] : []),
      ...(of.p ? tested : tested.slice(0, 1)),
      ...(of.interval ? [formatInterval(e?.lower ?? null, e?.upper ?? null, print)] : []),
    ];
  };
  return {
    title: `${title(ground.outcome)} predicted for each ${title(means.variable)} (${ladder}, step ${told.step})`,
    head: [
      title(means.variable),
      [SYMBOL.b],
      ...(of.se ? [[SYMBOL.SE]] : []),
      words`${SYMBOL.t}(${ground.of.df})`,
      ...(of.p ? [words`${SYMBOL.p} by Holm`] : []),
      ...(of.interval ? [`${formatPercent(ground.confidence)} CI`] : []),
    ],
    sections: [
      { heading: "Predicted", rows: cells.map((cell) => [cellName(cell, title), ...printed(cell.predicted, null)]) },
      {
        heading: "Differences",
        rows: contrasts.map((c) => [
          `${cellName(cells[c.first]!, title)} − ${c.second === null ? "mean of all" : cellName(cells[c.second]!, title)}`,
          ...printed(c.found, c.pHolm),
        ]),
      },
    ],
    note: words`Numbers at their means, other categories at equal weights.${options.said === false ? "" : ` ${whatTheMeansSay(means, reading, told, title).map(plain).join(" ")}`}${of.stars ? words` ${STARS}` : ""}`,
  };
}

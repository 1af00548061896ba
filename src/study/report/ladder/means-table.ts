import type { MeansResult } from "../../analyse/analyse-means";
import type { Means } from "../../model/means";
import { decimalsFor, formatInterval, formatNumber, formatP, formatPercent } from "../format-number";
import type { Titles } from "../level-title";
import type { PrintTable } from "../print-table";
import { plain, SYMBOL, words } from "../words";
import { cellName, whatTheMeansSay } from "./means-words";

/** Predicted outcomes, then what they are held against, as a journal prints them. */
export function meansTable(means: Means, told: Extract<MeansResult, { status: "told" }>, ladder: string, title: Titles): PrintTable {
  const { reading, ground } = told;
  const { cells, contrasts } = reading;
  const printed = (e: (typeof contrasts)[number]["found"], holm: number | null) => {
    const print = (v: number | null) => formatNumber(v, decimalsFor(e?.se ?? null));
    const tested = holm === null ? ["", ""] : [formatNumber(e?.t ?? null), formatP(holm)];
    return [print(e?.estimate ?? null), print(e?.se ?? null), ...tested, formatInterval(e?.lower ?? null, e?.upper ?? null, print)];
  };
  return {
    title: `${title(ground.outcome)} predicted for each ${title(means.variable)} (${ladder}, step ${told.step})`,
    head: [title(means.variable), [SYMBOL.b], [SYMBOL.SE], words`${SYMBOL.t}(${ground.of.df})`, words`${SYMBOL.p} by Holm`, `${formatPercent(ground.confidence)} CI`], // prettier-ignore
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
    note: `Numbers at their means, other categories at equal weights. ${whatTheMeansSay(means, reading, told, title).map(plain).join(" ")}`,
  };
}

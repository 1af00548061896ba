import type { AddedColumn, AddedResult } from "../../analyse/analyse-added";
import type { Added } from "../../model/added";
import { formatNumber, formatP, formatPercent, formatShare, listed, pStatement } from "../format-number";
import type { Titles } from "../level-title";
import type { PrintTable } from "../print-table";
import { plain, SYMBOL, type Words, words } from "../words";
import { columnTitle } from "./coefficient-words";

type Told = Extract<AddedResult, { status: "told" }>;

/** Below this a bend is taken to be one. */
const BENDS = 0.05;
export const bends = ({ bend }: AddedColumn) => bend !== null && !("reason" in bend) && bend.p < BENDS;

/** What the clouds say: which is steepest, how two rivals compare, which bends. */
export function whatIsAdded(told: Told, as: Added["as"], title: Titles): Words[] {
  const name = (one: AddedColumn) => columnTitle(one.column, told, title);
  const said: Words[] = [];
  const [first, second, ...more] = told.columns;
  if (first && second && more.length === 0) {
    const [steep, flat] = Math.abs(first.slope) >= Math.abs(second.slope) ? [first, second] : [second, first];
    said.push(words`Beside all others one SD of ${name(steep)} goes with ${formatShare(steep.slope)} SD of ${title(told.outcome)} (${pStatement(steep.coefficient.b.p)}), one of ${name(flat)} with ${formatShare(flat.slope)} (${pStatement(flat.coefficient.b.p)}).`); // prettier-ignore
  } else {
    const steep = told.columns.reduce((a, b) => (Math.abs(b.slope) > Math.abs(a.slope) ? b : a));
    said.push(words`Steepest beside all others is ${name(steep)}: one SD of it goes with ${formatShare(steep.slope)} SD of ${title(told.outcome)} (${pStatement(steep.coefficient.b.p)}).`); // prettier-ignore
  }
  const narrow = told.columns.filter((one) => one.ownSd < 0.5);
  if (as === "added" && narrow.length > 0)
    said.push(`Of ${listed(narrow.map((one) => `${name(one)} (${formatPercent(one.ownSd)})`))} the others leave less than half of an SD: its cloud is narrow and its slope uncertain.`); // prettier-ignore
  const bent = told.columns.filter(bends);
  const tested = told.columns.some((one) => one.bend !== null && !("reason" in one.bend));
  if (bent.length > 0)
    said.push(words`${listed(bent.map(name))} ${bent.length === 1 ? "bends" : "bend"}: ${joinedBends(bent)}. A square, or a logarithm, may tell it better than a straight line.`); // prettier-ignore
  else if (tested) said.push("No square of a predictor would add anything sure: straight lines will do.");
  return said;
}

const joinedBends = (bent: readonly AddedColumn[]): Words =>
  bent.reduce<Words>((all, { bend }, k) => {
    if (bend === null || "reason" in bend) return all;
    return words`${all}${k > 0 ? "; " : ""}its square would add something (${SYMBOL.F}(1, ${bend.df[1]}) = ${formatNumber(bend.F)}, ${pStatement(bend.p)}), opening ${bend.upwards ? "upwards" : "downwards"}`;
  }, "");

/** The numbers beside the clouds. */
export function addedTable(told: Told, as: Added["as"], ladder: string, title: Titles): PrintTable {
  return {
    title: `What each term adds beside all others (${ladder}, step ${told.step})`,
    head: ["Term", [SYMBOL.b], "slope in SD", "partial", "SD left", [SYMBOL.p], "bend F", [SYMBOL.p]],
    sections: [
      {
        heading: "",
        rows: told.columns.map((one) => {
          const { b, partial } = one.coefficient;
          const bend = one.bend === null || "reason" in one.bend ? null : one.bend;
          return [
            columnTitle(one.column, told, title),
            formatNumber(b.estimate),
            formatShare(one.slope),
            formatShare(partial),
            formatShare(one.ownSd),
            formatP(b.p),
            bend ? formatNumber(bend.F) : "–",
            bend ? formatP(bend.p) : "–",
          ];
        }),
      },
    ],
    note: whatIsAdded(told, as, title).map(plain).join(" "),
  };
}

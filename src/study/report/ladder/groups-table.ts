import type { Groups } from "../../model/groups";
import { formatInterval, fStatement, pStatement, formatNumber, formatP, formatPercent, formatShare } from "../format-number";
import type { Titles } from "../level-title";
import type { PrintTable } from "../print-table";
import { plain, SYMBOL, type Words, words } from "../words";
import { columnTitle } from "./coefficient-words";
import { type Compared, groupsRows, type GroupsBeside, toldDifferences } from "./groups-rows";
import { groupName, METRIC_WORDS, printIn, whatTheGroupsSay } from "./groups-words";

const ERRORS = { classical: "Classical", hc3: "HC3", cluster: "Cluster-robust (CR1)" } as const;

/**
 * Coefficients of every group beside each other with the surest difference, then every difference, as a journal prints them.
 * @param said false: what they say stands beside the table, and not again below it
 */
export function groupsTable(
  groups: Groups,
  result: Compared,
  beside: GroupsBeside,
  ladder: string,
  title: Titles,
  said = true,
): PrintTable {
  const print = printIn(groups.metric);
  const name = (g: number) => groupName(result.groups[g]!.levels, groups.variable, title);
  const rows = groupsRows(result, groups.metric, beside, title);
  const all = toldDifferences(result, groups.metric, beside);
  const pad = (cells: Words[]): Words[] => [...cells, ...Array.from({ length: Math.max(0, result.groups.length + 1 - cells.length) }, () => "")]; // prettier-ignore
  const shuffled = (p: number | null) => (p === null ? "" : words`, ${SYMBOL.p} by ${beside.shuffled!.of} shuffles ${formatP(p)}`);
  const differences = all.map((d) =>
    pad([
      `${rows.find((row) => row.column === d.column)!.name}: ${name(d.first)} − ${name(d.second)}`,
      words`${print(d.estimate)} ${formatInterval(d.lower, d.upper, print)}, ${SYMBOL.z} = ${formatNumber(d.z)}, ${SYMBOL.p} by Holm ${formatP(d.pHolm)}${shuffled(d.pShuffled)}`,
    ]),
  );
  return {
    title: `${title(result.outcome)} by groups of ${title(groups.variable)} (${ladder}, step ${result.step})`,
    head: ["Term", ...result.groups.map((_, g) => name(g))],
    sections: [
      {
        heading: METRIC_WORDS[groups.metric],
        rows: [
          ...rows.map((row) => [row.name, ...row.found.map((e) => (e ? `${print(e.estimate)} ${formatInterval(e.lower, e.upper, print)}` : "–"))]), // prettier-ignore
          [[SYMBOL.N], ...result.groups.map((g) => String(g.cases))],
          [words`${{ text: "R", as: "italic" }}²`, ...result.groups.map((g) => formatShare(g.fitted?.R2 ?? null))],
        ],
      },
      { heading: "Differences", rows: differences },
      {
        heading: "Alike in all groups?",
        rows: [
          ...result.terms.map(({ term, alike, crossed }) => ({ name: columnTitle(term, result, title), alike, crossed })),
          { name: "All together", alike: result.alike, crossed: result.pooled },
        ].map(({ name: of, alike, crossed }) =>
          pad([
            of,
            alike.p === null ? "–" : words`χ²(${alike.df}) = ${formatNumber(alike.chi2)}, ${pStatement(alike.p)}`,
            crossed?.F == null ? "–" : words`as one model ${fStatement(crossed.F, crossed.df, crossed.p)}`,
          ]),
        ),
      },
    ],
    note: `${ERRORS[result.errors]} standard errors; ${formatPercent(result.confidence)} intervals in brackets${beside.boot ? `, from ${beside.boot.replicates} replicates within groups` : ""}; centred by the means of all.${said ? ` ${whatTheGroupsSay(groups, result, beside, title).map(plain).join(" ")}` : ""}`,
  };
}

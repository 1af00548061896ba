import { correlationAt, type LookPart, type LookTable } from "../analyse/analyse-look";
import type { Look } from "../model/look";
import { formatCount, formatInterval, formatMean, formatNumber, formatP, formatPercent, formatShare, formatValue } from "./format-number";
import { levelTitle, type Titles } from "./level-title";
import { columnName, type Looked } from "./look-words";
import type { PrintTable } from "./print-table";
import { STARS, stars } from "./stars";
import { SYMBOL, type Words, words } from "./words";

/** What stands in one cell below or above the diagonal; "" where there is nothing. */
export function cellWords(
  table: LookTable | null,
  i: number,
  j: number,
  told: Look["told"],
  controls = 0,
): { r: string; more: string; value: number; n: number; p: number | null } | null {
  if (!table) return null;
  const test = correlationAt(table, i, j, controls);
  if (!test) return null;
  const at = i * Math.sqrt(table.r.length) + j;
  const p = Number.isNaN(table.p[at]!) ? null : table.p[at]!;
  const more = told === "stars" ? stars(p) : told === "exact" ? (p === null ? "" : p < 0.001 ? "p < .001" : `p = ${formatP(p)}`) : formatInterval(test.lower, test.upper, formatShare); // prettier-ignore
  return { r: formatShare(test.r), value: test.r, more, n: test.n, p };
}

/** The tables below and above the diagonal: everybody or a level, and what was chosen. */
export function tablesOf(look: Look, found: Looked): { below: LookPart; above: LookTable | null; aboveControls: number } {
  const level = (name: string | null) => found.groups.find((g) => g.level === name);
  const below = (look.below !== null && level(look.below)) || found;
  const above = look.above.by === "level" ? (level(look.above.level)?.table ?? null) : look.above.by === "partial" ? found.partial : null;
  return { below, above, aboveControls: look.above.by === "partial" ? found.controls : 0 };
}

/** Means, SDs, reliabilities and correlations as a journal prints them; by group one section each. */
export function lookTable(look: Look, found: Looked, title: Titles): PrintTable {
  const { below, above, aboveControls } = tablesOf(look, found);
  const numbers = found.columns.map((_, i) => String(i + 1));
  const section = (part: LookPart, over: LookTable | null): Words[][] =>
    part.columns.map((c, i) => {
      const d = c.description;
      const reliability = look.diagonal === "nothing" ? null : c[look.diagonal];
      const cells = part.columns.map((_, j): Words => {
        if (j === i) return reliability === null ? "–" : `(${formatShare(reliability)})`;
        const cell = j < i ? cellWords(part.table, i, j, look.told) : cellWords(over, i, j, look.told, aboveControls);
        return cell ? `${cell.r}${look.told === "stars" ? cell.more : ` ${cell.more}`}` : "";
      });
      return [`${i + 1} ${columnName(c, title)}`, formatCount(d.n), formatMean(d.mean, d.sd), formatNumber(d.sd), c.possible ? `${formatValue(c.possible.low)}–${formatValue(c.possible.high)}` : "", d.min === null ? "" : `${formatValue(d.min)}–${formatValue(d.max)}`, ...cells]; // prettier-ignore
    });
  const who = look.below === null ? "All respondents" : levelTitle(title, look.by ?? "", look.below);
  const others = look.below === null ? found.groups : [];
  const kind = found.correlation === "pearson" ? words`Pearson's ${SYMBOL.r}` : "Spearman's ρ";
  const diagonal = { alpha: "α in the diagonal", omega: "ω in the diagonal", nothing: "" }[look.diagonal];
  return {
    title: found.groups.length > 0 && look.below === null ? `${look.name}, by ${title(look.by!)}` : look.name,
    head: ["Variable", [SYMBOL.N], [SYMBOL.M], [SYMBOL.SD], "Possible", "Observed", ...numbers],
    sections: [
      { heading: who, rows: section(below, above) },
      ...others.map((group) => ({ heading: levelTitle(title, look.by!, group.level), rows: section(group, null) })),
    ],
    note: words`${kind} below the diagonal${diagonal === "" ? "" : `, ${diagonal}`}${above ? `, ${aboveWords(look, title)} above it` : ""}. ${look.cases === "pairwise" ? "Each pair over the respondents who have both." : `${formatCount(found.rows)} respondents who have all.`} ${look.told === "stars" ? STARS : look.told === "interval" ? `${formatPercent(found.confidence)} intervals in brackets.` : ""}${found.columns.some((c) => c.zeroOne) && found.columns.some((c) => !c.zeroOne) ? words` With a 0/1 (a level counts 1, the others 0) ${SYMBOL.r} is point-biserial.` : ""}`, // prettier-ignore
  };
}

/** `with Age held constant`; `online`. */
export function aboveWords(look: Look, title: Titles): string {
  if (look.above.by === "level") return levelTitle(title, look.by ?? "", look.above.level);
  return `partial correlations given ${look.controls.map((name) => title(name)).join(", ")}`;
}

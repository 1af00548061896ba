import type { Entering, ImportanceResult, TermImportance } from "../../analyse/analyse-importance";
import type { ImportanceIntervals } from "../../analyse/joined-importance";
import { formatCount, formatInterval, formatPercent, formatShare } from "../format-number";
import { termTitle, type Titles } from "../level-title";
import type { PrintTable } from "../print-table";
import { plain, R2, SYMBOL, type Words, words } from "../words";

type Told = Extract<ImportanceResult, { status: "told" }>;

/** A term, or a step by its name. */
export const enteringTitle = (one: Entering, title: Titles) =>
  "term" in one ? termTitle(one.term, title) : `Step ${one.step}${one.name === "" ? "" : `, ${one.name}`}`;

/** Terms with the largest share first. */
export const byShare = (terms: readonly TermImportance[]) => [...terms].sort((a, b) => b.share - a.share);

/** What the shares say: how R² is dealt out, and what stands in another order by another measure. */
export function whatImportanceSays(told: Told, title: Titles): Words[] {
  const { terms, of, controls } = told;
  const sorted = byShare(terms);
  const first = sorted[0]!;
  const sum = of.R2 - of.controlsR2;
  const beyond = controls === 0 ? "" : ` beyond the controls (${formatShare(of.controlsR2, 3)})`;
  const said: Words[] = [
    words`${R2} = ${formatShare(of.R2, 3)}; ${formatShare(sum, 3)} of it is dealt out${beyond}. ${enteringTitle(first.entering, title)} has the largest share, ${formatShare(first.share, 3)}${first.ofSum === null ? "" : ` (${(first.ofSum * 100).toFixed(0)} %)`}.`,
  ];
  const strongest = terms.filter((term) => term.beta !== null).sort((a, b) => Math.abs(b.beta!) - Math.abs(a.beta!))[0];
  if (strongest && strongest !== first && first.beta !== null)
    said.push(words`By β it is ${enteringTitle(strongest.entering, title)} (${formatShare(strongest.beta)}): β holds all others constant, the share is what a term adds on average, whatever else is in.`); // prettier-ignore
  said.push(
    of.drawn
      ? [`Averaged over ${formatCount(of.orders)} orders of entry drawn at random: there are too many terms to take them all.`]
      : [`Averaged over ${of.orders === 1 ? "the only order" : `all ${formatCount(of.orders)} orders`} of entry${terms.some(({ entering }) => "term" in entering && entering.term.components.length > 1) ? "; a product only after its parts" : ""}.`], // prettier-ignore
  );
  return said;
}

/** Shares beside what else is called importance, as a journal prints them. */
export function importanceTable(told: Told, ladder: string, title: Titles, intervals: ImportanceIntervals | null = null): PrintTable {
  const limits = (key: string) => {
    const at = intervals?.terms.indexOf(key) ?? -1;
    return at < 0 ? "" : formatInterval(intervals!.lower[at]!, intervals!.upper[at]!, (v) => formatShare(v, 3));
  };
  const drawn = intervals
    ? ` Intervals: ${formatPercent(intervals.confidence)}, percentiles of ${formatCount(intervals.resamples)} resamples.`
    : "";
  const { terms, of } = told;
  return {
    title: `Share of R² of each term (${ladder}, step ${told.step})`,
    head: [
      "Term",
      words`Share of ${R2}`,
      ...(intervals ? [`${formatPercent(intervals.confidence)} interval`] : []),
      "%",
      [SYMBOL.r],
      "Part",
      "β",
    ],
    sections: [
      {
        heading: "",
        rows: [
          ...byShare(terms).map((term) => [
            enteringTitle(term.entering, title),
            formatShare(term.share, 3),
            ...(intervals ? [limits(term.key)] : []),
            term.ofSum === null ? "" : (term.ofSum * 100).toFixed(1),
            formatShare(term.zeroOrder),
            formatShare(term.part),
            formatShare(term.beta),
          ]),
          ["Sum", formatShare(of.R2 - of.controlsR2, 3), ...(intervals ? [""] : []), "100.0", "", "", ""],
        ],
      },
    ],
    note: whatImportanceSays(told, title).map(plain).join(" ") + drawn,
  };
}

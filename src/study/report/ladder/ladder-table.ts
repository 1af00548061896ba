import type { CodingTable } from "@/core/regression/categories";
import type { LadderFit } from "@/core/regression/ladder";
import type { Ladder } from "../../model/ladder";
import type { AnalysisSample } from "../../prepare/analysis-sample";
import { decimalsFor, formatCount, formatInterval, formatNumber, formatP, formatPercent, formatShare, fStatement } from "../format-number";
import type { PrintTable } from "../print-table";
import { DELTA_R2, R2, SR2, SYMBOL, words } from "../words";
import { columnTitle } from "./coefficient-words";
import { levelTitle, type Titles } from "../level-title";

/** What the coefficients of a category compare, in words. */
export function codingWords(table: CodingTable, title: Titles): string {
  const reference = levelTitle(title, table.variable, table.reference);
  return table.coding === "deviation"
    ? `each level against the mean of all levels (${reference} has no column)`
    : `each level against ${reference}`;
}

/** The standard errors a ladder was tested with. */
export function errorWords(fit: LadderFit): string {
  switch (fit.errors) {
    case "classical":
      return "classical standard errors";
    case "hc3":
      return "HC3 standard errors";
    case "cluster":
      return `cluster-robust standard errors (${fit.steps.at(-1)!.clusters ?? 1} clusters)`;
  }
}

/** All steps of a ladder that are not switched off, one section a step: coefficients, then R², ΔR² and F change. */
export function ladderTable(ladder: Ladder, fit: LadderFit, sample: AnalysisSample, title: Titles): PrintTable {
  const percent = formatPercent(ladder.confidence);
  const number = (value: number | null, se: number | null) => formatNumber(value, decimalsFor(se));
  const sections = fit.steps.flatMap((step, k) => {
    const { name, off } = ladder.steps[k]!;
    if (off) return [];
    const { model, change } = step;
    const test = change.F === null ? "" : words`, ${fStatement(change.F, change.df, change.p)}`;
    return {
      heading: words`Step ${k + 1}${name === "" ? "" : `: ${name}`}. ${R2} = ${formatShare(model.R2, 3)}, ${DELTA_R2} = ${formatShare(change.change, 3)}${test}`,
      rows: step.coefficients.map((c) => [
        columnTitle(c.column, fit, title),
        number(c.b.estimate, c.b.se),
        number(c.b.se, c.b.se),
        formatInterval(c.b.lower, c.b.upper, (v) => number(v, c.b.se)),
        formatShare(c.beta?.estimate ?? null),
        formatNumber(c.b.t),
        formatP(c.b.p),
        formatShare(c.part ** 2, 3),
      ]),
    };
  });
  const hasProducts = fit.codings.length > 0;
  const centred = { mean: "mean-centred", z: "z-scored", raw: "entered as they are" }[ladder.centring];
  return {
    title: words`Hierarchical regression of ${title(fit.outcome)} (${SYMBOL.N} = ${fit.n})`,
    head: ["Term", [SYMBOL.b], [SYMBOL.SE], words`${percent} CI of ${SYMBOL.b}`, "β", [SYMBOL.t], [SYMBOL.p], SR2],
    sections,
    note: [
      `${sample.used} of ${sample.rows} respondents, the same in every step.`,
      hasProducts
        ? `Variables that are part of a product are ${centred}; β from products of z-scores, which are not standardized again.`
        : "",
      ...fit.tables.map((t) => `${title(t.variable)}: ${codingWords(t, title)}.`),
      `Least squares with ${errorWords(fit)}.`,
      ladder.intervals.by === "normal"
        ? ""
        : `Intervals by ${ladder.intervals.by === "bca" ? "BCa" : "percentile"} bootstrap, ${formatCount(ladder.intervals.replicates)} replicates, seed ${ladder.seed}.`,
    ]
      .filter((s) => s !== "")
      .join(" "),
  };
}

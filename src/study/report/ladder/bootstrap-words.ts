import type { LadderFit } from "@/core/regression/ladder";
import { type BetaDifference, ladderFigures, type ReplicateIntervals } from "../../model/replicate-intervals";
import { type Ladder, REPLICATES } from "../../model/ladder";
import { type Words, words as said } from "../words";
import { counted, formatCount, formatInterval, formatShare, pStatement } from "../format-number";
import { columnTitle } from "./coefficient-words";
import type { Titles } from "../level-title";

/** Over this share of redrawn resamples a caution is due. */
const MANY_REDRAWN = 0.05;

/** Below this many units BCa limits of a ΔR² near 0 are not to be trusted (docs/methods.md, bench/coverage.ts). */
const SMALL = 200;

/** Up to two digits: the limits themselves move a little with the replicates. */
function roundUp(count: number): number {
  const unit = 10 ** Math.max(0, Math.floor(Math.log10(count)) - 1);
  return Math.ceil(count / unit) * unit;
}

/** How the intervals came about, and what to know of them. */
export function bootstrapWords({ intervals, cluster, seed }: Ladder, of: ReplicateIntervals): string[] {
  const method = intervals.by === "percentile" ? "Percentile" : "BCa";
  const units = cluster === null ? counted(of.units, "respondent") : `${counted(of.units, "whole cluster")}`;
  const words = [
    `${method} intervals from ${formatCount(of.replicates)} resamples of ${units}, seed ${seed}; means, SDs, z-scores and products are formed anew in each. p of coefficients and steps stays that of normal theory.`,
  ];
  const share = of.redrawn / (of.redrawn + of.replicates);
  if (of.redrawn > 0) {
    words.push(
      `${counted(of.redrawn, "resample was", "resamples were")} drawn again because a column vanished in ${of.redrawn === 1 ? "it" : "them"}${share > MANY_REDRAWN ? `, ${formatShare(share * 100, 0)} % of all: the ladder asks much of its smallest groups` : ""}.`,
    );
  }
  const percentile = of.intervals.filter(({ interval }) => intervals.by === "bca" && interval.method === "percentile").length;
  if (percentile > 0) words.push(`BCa limits are not defined for ${counted(percentile, "figure")}; percentile limits stand there.`);
  const clamped = of.intervals.filter(({ interval }) => interval.clamped);
  if (clamped.length > 0) {
    const needed = clamped.map(({ interval }) => interval.needed ?? Infinity).reduce((most, n) => Math.max(most, n));
    const enough =
      needed <= REPLICATES.most ? `About ${formatCount(roundUp(needed))} would tell it.` : "More than can be drawn would be needed.";
    words.push(
      `${counted(clamped.length, "interval ends", "intervals end")} at an outermost replicate: there are too few to tell the limit. ${enough}`,
    );
  }
  if (intervals.by === "bca" && of.units < SMALL && ladderFigures(of).some(({ figure }) => figure.kind === "dR2" && figure.step > 0)) {
    words.push(
      `From fewer than ${SMALL} ${cluster === null ? "respondents" : "clusters"} BCa intervals of a ΔR² near 0 end too low too often; percentile intervals hold better there.`,
    );
  }
  return words;
}

/** The difference between two β, whichever way round it was drawn. */
export function differenceOf(of: ReplicateIntervals, first: string, second: string): BetaDifference | null {
  const found = of.differences.find((d) => d.first === first && d.second === second);
  if (found) return found;
  const turned = of.differences.find((d) => d.first === second && d.second === first);
  return turned ? { ...turned, first, second, estimate: -turned.estimate, lower: -turned.upper, upper: -turned.lower } : null;
}

/** A difference in a plain sentence. Associational. */
export function differenceSentence(d: BetaDifference, fit: Pick<LadderFit, "parts">, title: Titles, percent: string): Words {
  const [larger, smaller] = d.estimate >= 0 ? [d.first, d.second] : [d.second, d.first];
  const interval = said`${percent} interval of the difference ${formatInterval(d.lower, d.upper, formatShare)}, ${pStatement(d.p)}`;
  const sure = d.lower > 0 || d.upper < 0;
  return sure
    ? said`The β of ${columnTitle(larger, fit, title)} is larger than that of ${columnTitle(smaller, fit, title)} by ${formatShare(Math.abs(d.estimate))} (${interval}).`
    : said`The two β differ by ${formatShare(Math.abs(d.estimate))}, which these data do not tell from no difference (${interval}).`;
}

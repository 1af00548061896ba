import type { Stand, Test, Waits } from "../../analyse/analyse-theory";
import { hasDirection, type Hypothesis } from "../../model/hypothesis";
import type { Ladder } from "../../model/ladder";
import type { Theory } from "../../model/theory";
import { formatCount, formatInterval, formatLevel, formatNumber, formatP, formatPercent, formatPlain, formatShare, fStatement, pStatement } from "../format-number"; // prettier-ignore
import { levelTitle, type Titles } from "../level-title";
import { refusalWords } from "../refusals";
import { SYMBOL, type Words, words } from "../words";
import { stoodWords } from "./hypothesis-words";

/** True when its estimate cannot be beyond 1 by its nature, or nearly so: it is printed without a leading zero. */
function isShare({ rests }: Hypothesis): boolean {
  if ("metric" in rests) return rests.metric === "beta";
  return ["change", "difference", "correlation"].includes(rests.on);
}

function testStatement(test: Test, p: number): Words {
  switch (test.by) {
    case "F":
      return fStatement(test.F, test.df, p);
    case "chi2":
      return words`χ²(${test.df}) = ${formatNumber(test.chi2)}, ${pStatement(p)}`;
    case "replicates":
      return words`${pStatement(p)} by ${formatCount(test.replicates)} replicates`;
    case "t":
      return pStatement(p);
  }
}

/** Estimate, interval, test. */
export function evidenceWords(stand: Stand, h: Hypothesis): Words {
  const { estimate, interval, test, p, pHolm } = stand;
  if (estimate === null || test === null || p === null) return "";
  const format = (v: number | null) => (isShare(h) ? formatShare(v, h.rests.on === "change" ? 3 : 2) : formatNumber(v));
  const limits = interval ? ` ${formatInterval(interval.lower, interval.upper, format)}` : "";
  const number = test.by === "chi2" ? "" : `${format(estimate)}${limits}, `;
  return words`${number}${testStatement(test, p)}${pHolm === null ? "" : words` (Holm ${formatP(pHolm)})`}`;
}

const LACKING = {
  off: "The term it rests on is switched off.",
  later: "The term it rests on comes in a later step.",
  removed: "The term it rests on is not in the ladder any more.",
  level: "The level it rests on has no column of its own: nobody in the sample has it, or it is the reference.",
  dropped: "The column it rests on can be told from no other: it was dropped.",
} as const;

/** Why it cannot be tested yet. */
export function waitsWords(waits: Waits, title: Titles): string {
  switch (waits.for) {
    case "open":
      return "It does not say yet on which number it rests. Say what you expect before you do: while nobody has looked at the ladder, its direction then counts.";
    case "path":
      return "A path through something else is not tested here: that the one goes with the other, and the other with the outcome, are hypotheses of their own.";
    case "ladder":
      return "Its ladder is not there.";
    case "step":
      return `Its ladder has no step ${waits.step}.`;
    case "coefficient":
      return LACKING[waits.why];
    case "product":
      return `The step has no product of ${title(waits.focal)} and ${title(waits.moderator)}.`;
    case "level":
      return `Nobody in the sample has ${levelTitle(title, waits.variable, waits.level) || "this level"}.`;
    case "name":
      return `The step does not hold ${title(waits.name)} as a category.`;
    case "filter":
      return "The filter of its respondents is not there any more.";
    case "smallest-effect":
      return "No difference that matters: then say which would matter.";
    case "test":
      return "There is no test of it: the step fits perfectly, its errors are not available, or the relation is not a line.";
    case "refused":
      return refusalWords(waits.refusal, title).what;
  }
}

/** What a verdict means, in full. */
export function verdictSays(stand: Stand, h: Hypothesis, { alpha }: Theory, title: Titles): Words[] {
  const { verdict, delta, waits, interval, test } = stand;
  const line = formatLevel(alpha);
  const size = isShare(h) ? formatShare(delta) : formatPlain(delta);
  const say: Record<Stand["verdict"], Words> = {
    "not testable yet": waits ? waitsWords(waits, title) : "",
    supported:
      h.claim === "equivalence"
        ? words`Two one-sided tests hold: it lies between −${size} and ${size}.`
        : words`${SYMBOL.p} lies below ${line}${h.direction === "none" ? "" : ", on the side that was expected"}.`,
    "opposite direction": words`It is told from 0 (two-sided ${SYMBOL.p} < ${line}), and on the other side than was expected.`,
    "practically nothing": `Its interval lies inside what would not matter (±${size}): if there is an effect, it is a small one.`,
    "too uncertain to say": h.claim === "equivalence" ? `The interval holds both what would not matter and the smallest effect that would (±${size}): the data do not decide.` : `It is not told from what was to be ruled out, nor from the smallest effect that would matter (±${size}): the data do not decide.`, // prettier-ignore
    "not supported":
      h.claim === "equivalence"
        ? `It lies beyond ±${size}.`
        : words`${SYMBOL.p} does not lie below ${line}. That is not evidence for no effect.`,
  };
  const said: Words[] = [say[verdict]];
  if (verdict === "not testable yet") return said;
  if (stand.would !== null) said.push(`About ${formatCount(roughly(stand.would))} respondents would (power .80).`);
  if (h.direction !== "none" && h.claim !== "equivalence" && hasDirection(h.rests))
    said.push(h.before ? "The direction stood before the result was first looked at: one-sided." : "The direction was set after the result could be seen: two-sided."); // prettier-ignore
  if (h.rests.on === "region") said.push("Tested at both ends, each at the full level: between them the relation is a line. Shown is the end nearer to 0, with limits that hold both."); // prettier-ignore
  if (h.rests.on === "groups" && test?.by === "t") said.push("Groups are independent samples, so the difference is tested by z.");
  if (test?.by === "replicates") said.push(words`${SYMBOL.p} and interval are read from the ${formatCount(test.replicates)} replicates of its ladder.`); // prettier-ignore
  if (stand.exploratory) said.push("Exploratory: a search on the same respondents has chosen it. Only others can confirm it.");
  if (interval) said.push(`The interval is two-sided, at ${formatPercent(1 - alpha)}.`);
  return said;
}

/** When it took on what it says, and each change that was made after its result had been seen, with what it said before. */
export function changesSay(h: Hypothesis, ladders: readonly Ladder[], title: Titles): string[] {
  const said = h.since === null ? [] : [`It says this since ${dayOf(h.since)}${h.before ? ", before its result was looked at" : ""}.`];
  const after = h.changes.map(({ at, was }) => `Changed after its result was seen, on ${dayOf(at)}. Before: ${stoodWords(was, ladders, title)}.`); // prettier-ignore
  return [...said, ...after];
}

/** `28 Nov 2026`. */
export function dayOf(at: string): string {
  return new Date(at).toLocaleDateString("en-GB", { dateStyle: "medium" });
}

/** Two digits are enough of a number that stands on assumptions. */
function roughly(n: number): number {
  const unit = 10 ** Math.max(0, Math.floor(Math.log10(n)) - 1);
  return Math.ceil(n / unit) * unit;
}

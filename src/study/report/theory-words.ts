import type { Stand, Waits } from "../analyse/analyse-theory";
import { columnKey, type Part } from "@/core/regression/terms";
import { activeTerms, type Ladder } from "../model/ladder";
import { codesOf, type Hypothesis } from "../model/hypothesis";
import type { Theory } from "../model/theory";
import { formatInterval, formatNumber, formatP, formatPercent, formatShare, fStatement, listed, pStatement } from "./format-number";
import { partsTitle } from "./ladder/coefficient-words";
import type { Titles } from "./level-title";
import type { PrintTable } from "./print-table";
import { refusalWords } from "./refusals";
import { DELTA_R2, SYMBOL, type Words, words } from "./words";

/** What a claim expects, as one choice: direction and kind together. */
export const EXPECTATIONS = {
  "effect +": "to lie above 0",
  "effect -": "to lie below 0",
  "effect none": "to differ from 0",
  "beyond +": "to lie above the smallest effect that matters",
  "beyond -": "to lie below minus the smallest effect that matters",
  "beyond none": "to lie beyond the smallest effect that matters, either way",
  "equivalence none": "to make no difference that matters",
} as const;
export type Expectation = keyof typeof EXPECTATIONS;
export const expectationOf = ({ claim, direction }: Pick<Hypothesis, "claim" | "direction">) => (claim === "equivalence" ? "equivalence none" : `${claim} ${direction}`) as Expectation; // prettier-ignore

type Ladders = readonly Ladder[];
const ladderOf = (h: Hypothesis, ladders: Ladders) => ladders.find((l) => l.id === h.ladder) ?? null;

/** The sentence of a hypothesis: its own words, or those that its settings make. */
export function hypothesisSentence(h: Hypothesis, ladders: Ladders, title: Titles): string {
  if (h.text !== "") return h.text;
  const ladder = ladderOf(h, ladders);
  if (!ladder || ladder.outcome === null || h.rests.on === "open") return "Still open: what should predict what?";
  const outcome = title(ladder.outcome);
  const at = Math.min(h.step ?? ladder.steps.length, ladder.steps.length);
  if (h.rests.on === "change") {
    const terms = activeTerms(ladder.steps[at - 1]!).map(({ components }) => components.map((name) => title(name)).join(" × "));
    return `${listed(terms) || `Step ${at}`} ${terms.length === 1 ? "adds" : "together add"} to what predicts ${outcome}`;
  }
  const parts: readonly Part[] = h.rests.column;
  const [first, second, ...more] = parts;
  if (second) {
    const what = more.length > 0 ? partsTitle(parts.slice(1), title) : title(second.variable, second.level);
    const verb = h.claim === "equivalence" ? "does not change" : h.direction === "+" ? "strengthens" : h.direction === "-" ? "weakens" : "changes"; // prettier-ignore
    return `${what} ${verb} what ${title(first!.variable, first!.level)} does for ${outcome}`;
  }
  const who = title(first!.variable, first!.level);
  const beyond = h.claim === "beyond" ? ", more than what would not matter" : "";
  if (h.claim === "equivalence") return `${who} makes no difference that matters for ${outcome}`;
  if (h.direction === "none") return `${who} makes a difference for ${outcome}${beyond}`;
  return `${who} goes with ${h.direction === "+" ? "more" : "less"} ${outcome}${beyond}`;
}

/** What it rests on, short. */
export function restsWords(h: Hypothesis, ladders: Ladders, title: Titles): Words {
  const ladder = ladderOf(h, ladders);
  if (!ladder || h.rests.on === "open") return "nothing yet";
  const step = `step ${Math.min(h.step ?? ladder.steps.length, ladder.steps.length)}`;
  if (h.rests.on === "change") return words`${DELTA_R2}, ${step}`;
  return words`${h.rests.metric === "beta" ? "β" : [SYMBOL.b]} of ${partsTitle(h.rests.column, title)}, ${step}`;
}

/** Estimate, interval, test. */
export function evidenceWords(stand: Stand, h: Hypothesis): Words {
  const { estimate, interval, test, p, pHolm } = stand;
  if (estimate === null || test === null || p === null) return "";
  const share = h.rests.on !== "coefficient" || h.rests.metric === "beta";
  const format = (v: number | null) => (share ? formatShare(v, h.rests.on === "change" ? 3 : 2) : formatNumber(v));
  const limits = interval ? ` ${formatInterval(interval.lower, interval.upper, format)}` : "";
  const tested = "F" in test ? fStatement(test.F, test.df, p) : pStatement(p);
  return words`${format(estimate)}${limits}, ${tested}${pHolm === null ? "" : words` (Holm ${formatP(pHolm)})`}`;
}

/** Why it cannot be tested yet. */
export function waitsWords(waits: Waits, title: Titles): string {
  switch (waits.for) {
    case "open":
      return "It does not say yet on which number it rests. Say what you expect before you do: while nobody has looked at the ladder, its direction then counts.";
    case "ladder":
      return "Its ladder is not there.";
    case "step":
      return `Its ladder has no step ${waits.step}.`;
    case "coefficient":
      return "The step has no such coefficient.";
    case "smallest-effect":
      return "No difference that matters: then say which would matter.";
    case "test":
      return "There is no test of it: the step fits perfectly, or its errors are not available.";
    case "refused":
      return refusalWords(waits.refusal, title).what;
  }
}

/** What a verdict means, in full. */
export function verdictSays(stand: Stand, h: Hypothesis, { alpha }: Theory, title: Titles): Words[] {
  const { verdict, delta, waits, interval } = stand;
  const line = formatShare(alpha);
  const size = formatShare(delta);
  const say: Record<Stand["verdict"], Words> = {
    "not testable yet": waits ? waitsWords(waits, title) : "",
    supported:
      h.claim === "equivalence"
        ? words`Two one-sided tests hold: it lies between −${size} and ${size}.`
        : words`${SYMBOL.p} lies below ${line}${h.rests.on === "change" || h.direction === "none" ? "" : ", on the side that was expected"}.`,
    "opposite direction": words`It is told from 0 (two-sided ${SYMBOL.p} < ${line}), and on the other side than was expected.`,
    "practically nothing": `Its interval lies inside what would not matter (±${size}): if there is an effect, it is a small one.`,
    "too uncertain to say": h.claim === "equivalence" ? `The interval holds both what would not matter and the smallest effect that would (±${size}): the data do not decide.` : `It is not told from what was to be ruled out, nor from the smallest effect that would matter (±${size}): the data do not decide.`, // prettier-ignore
    "not supported":
      h.claim === "equivalence"
        ? `It lies beyond ±${size}.`
        : words`${SYMBOL.p} does not lie below ${line}. That is not evidence for no effect.`,
  };
  const said: Words[] = [say[verdict]];
  if (h.direction !== "none" && h.rests.on === "coefficient" && h.claim !== "equivalence")
    said.push(h.before ? "The direction stood before the result was first looked at: one-sided." : "The direction was set after the result could be seen: two-sided."); // prettier-ignore
  if (stand.exploratory) said.push("Exploratory: a search on the same respondents has chosen it. Only others can confirm it.");
  if (interval) said.push(`The interval is two-sided, at ${formatPercent(1 - alpha)}.`);
  return said;
}

/** All of them with evidence and verdict, as a journal prints them. */
export function theoryTable(
  { hypotheses, ladders }: { hypotheses: readonly Hypothesis[]; ladders: Ladders },
  stands: ReadonlyMap<string, Stand>,
  theory: Theory,
  title: Titles,
): PrintTable {
  const codes = codesOf(hypotheses);
  return {
    title: "Hypotheses and how they stand",
    head: ["", "Hypothesis", "Rests on", "Evidence", "Verdict"],
    sections: [
      {
        heading: "",
        rows: hypotheses.map((h, k) => {
          const stand = stands.get(h.id);
          return [codes[k]!, hypothesisSentence(h, ladders, title), restsWords(h, ladders, title), stand ? evidenceWords(stand, h) : "", stand ? `${stand.verdict}${stand.exploratory ? ", exploratory" : ""}` : ""]; // prettier-ignore
        }),
      },
    ],
    note: `α = ${formatShare(theory.alpha)}${theory.holm ? ", Holm over the family" : ", each by itself"}${theory.delta > 0 ? `; below |β| = ${formatShare(theory.delta)} nothing would matter` : ""}. One-sided only where the direction stood before the result was looked at.`,
  };
}

/** What a hypothesis about a ladder can rest on, as choices: its key is that of `restsKey`. */
export const restsChoices = (columns: readonly (readonly Part[])[], title: Titles) => [
  { value: "change", label: "what the step adds" },
  ...columns.map((parts) => ({ value: `c ${columnKey(parts)}`, label: `the coefficient of ${partsTitle(parts, title)}` })),
];

/** The choice that a hypothesis has made. */
export const restsKey = (h: Hypothesis) => (h.rests.on === "coefficient" ? `c ${columnKey(h.rests.column)}` : h.rests.on);

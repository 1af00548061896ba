import { columnKey, type Part } from "@/core/regression/terms";
import { activeTerms, type Ladder } from "../../model/ladder";
import { codesOf, type HeldPlace, type Hypothesis, numberKey } from "../../model/hypothesis";
import { formatPlain, listed } from "../format-number";
import { partsTitle } from "../ladder/coefficient-words";
import { levelTitle, type Titles } from "../level-title";
import { DELTA_R2, SYMBOL, type Words, words } from "../words";

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
const ladderOf = (h: Pick<Hypothesis, "ladder">, ladders: Ladders) => ladders.find((l) => l.id === h.ladder) ?? null;

/** `low (mean − SD)`, `2.5`, `online`. */
export function heldWords(at: HeldPlace, moderator: string, title: Titles): string {
  if ("level" in at) return levelTitle(title, moderator, at.level);
  if ("value" in at) return formatPlain(at.value);
  return { low: "low (mean − SD)", mean: "at its mean", high: "high (mean + SD)" }[at.place];
}

/** `from 2 to 4`, `from 2 on`, `up to 4`, `at every value that was observed`. */
export function rangeWords({ from, to }: { from: number | null; to: number | null }): string {
  if (from !== null && to !== null) return `from ${formatPlain(from)} to ${formatPlain(to)}`;
  if (from !== null) return `from ${formatPlain(from)} on`;
  return to !== null ? `up to ${formatPlain(to)}` : "at every value that was observed";
}

/** The sentence of a hypothesis: its own words, or those that its settings make. */
export function hypothesisSentence(h: Hypothesis, ladders: Ladders, title: Titles): string {
  return h.text !== "" ? h.text : settingsSentence(h, ladders, title);
}

/** What somebody does to an outcome, as it is expected. */
function effectWords(who: string, { claim, direction }: Pick<Hypothesis, "claim" | "direction">, outcome: string): string {
  const beyond = claim === "beyond" ? ", more than what would not matter" : "";
  if (claim === "equivalence") return `${who} makes no difference that matters for ${outcome}`;
  if (direction === "none") return `${who} makes a difference for ${outcome}${beyond}`;
  return `${who} goes with ${direction === "+" ? "more" : "less"} ${outcome}${beyond}`;
}

/** Two that are set against each other: `of` is more in one than in the other. */
function betweenWords(of: string, { claim, direction }: Pick<Hypothesis, "claim" | "direction">, first: string, second: string): string {
  const beyond = claim === "beyond" ? ", by more than what would not matter" : "";
  if (claim === "equivalence") return `${of} does not differ between ${first} and ${second} in a way that matters`;
  if (direction === "none") return `${of} differs between ${first} and ${second}${beyond}`;
  return `${of} is ${direction === "+" ? "more" : "less"} in ${first} than in ${second}${beyond}`;
}

function settingsSentence(
  h: Pick<Hypothesis, "rests" | "ladder" | "step" | "claim" | "direction">,
  ladders: Ladders,
  title: Titles,
): string {
  // prettier-ignore
  const { rests } = h;
  if (rests.on === "correlation") return correlationSentence(h, rests, title);
  const ladder = ladderOf(h, ladders);
  if (!ladder || ladder.outcome === null || rests.on === "open") return "Still open: what should predict what?";
  const outcome = title(ladder.outcome);
  switch (rests.on) {
    case "change": {
      const at = Math.min(h.step ?? ladder.steps.length, ladder.steps.length);
      const terms = activeTerms(ladder.steps[at - 1]!).map(({ components }) => components.map((name) => title(name)).join(" × "));
      return `${listed(terms) || `Step ${at}`} ${terms.length === 1 ? "adds" : "together add"} to what predicts ${outcome}`;
    }
    case "difference": {
      const [first, second] = [partsTitle(rests.first, title), partsTitle(rests.second, title)];
      if (h.claim === "equivalence") return `${first} counts as much as ${second} for ${outcome}`;
      const beyond = h.claim === "beyond" ? ", by more than what would not matter" : "";
      return `${first} counts ${{ "+": "more", "-": "less", none: "otherwise" }[h.direction]} than ${second} for ${outcome}${beyond}`;
    }
    case "slope":
      return `${effectWords(title(rests.focal.variable, rests.focal.level), h, outcome)} where ${title(rests.moderator)} is ${heldWords(rests.at, rests.moderator, title)}`; // prettier-ignore
    case "region":
      return `${effectWords(title(rests.focal.variable, rests.focal.level), h, outcome)}, ${title(rests.moderator)} ${rangeWords(rests)}`;
    case "groups": {
      const what = `What ${partsTitle(rests.column, title)} does for ${outcome}`;
      if (rests.first === null || rests.second === null) return `${what} differs between the groups of ${title(rests.variable)}`;
      const [first, second] = [rests.first, rests.second].map((level) => levelTitle(title, rests.variable, level));
      return betweenWords(what, h, first!, second!);
    }
    case "means": {
      const [first, second] = [rests.first, rests.second].map((level) => levelTitle(title, rests.variable, level));
      return betweenWords(`Predicted ${outcome}`, h, first!, second!);
    }
    case "indirect":
      return `${title(rests.from)} works on ${outcome} through ${title(rests.through)}`;
    default:
      return coefficientSentence(h, rests.column, outcome, title);
  }
}

function correlationSentence(h: Pick<Hypothesis, "claim" | "direction">, { x, y }: { x: string; y: string }, title: Titles): string {
  if (h.claim === "equivalence") return `${title(x)} and ${title(y)} do not go together in a way that matters`;
  const beyond = h.claim === "beyond" ? ", more than what would not matter" : "";
  if (h.direction === "none") return `${title(x)} and ${title(y)} go together${beyond}`;
  return `More ${title(x)} goes with ${h.direction === "+" ? "more" : "less"} ${title(y)}${beyond}`;
}

function coefficientSentence(h: Pick<Hypothesis, "claim" | "direction">, parts: readonly Part[], outcome: string, title: Titles): string {
  const [first, second, ...more] = parts;
  const who = title(first!.variable, first!.level);
  if (!second) return effectWords(who, h, outcome);
  const what = more.length > 0 ? partsTitle(parts.slice(1), title) : title(second.variable, second.level);
  const verb = h.claim === "equivalence" ? "does not change" : h.direction === "+" ? "strengthens" : h.direction === "-" ? "weakens" : "changes"; // prettier-ignore
  return `${what} ${verb} what ${who} does for ${outcome}`;
}

/** What it rests on, short. */
export function restsWords(h: Pick<Hypothesis, "rests" | "ladder" | "step">, ladders: Ladders, title: Titles): Words {
  const { rests } = h;
  if (rests.on === "correlation") return words`${SYMBOL.r} of ${title(rests.x)} and ${title(rests.y)}`;
  const ladder = ladderOf(h, ladders);
  if (!ladder || rests.on === "open") return "nothing yet";
  const step = `step ${Math.min(h.step ?? ladder.steps.length, ladder.steps.length)}`;
  const metric = "metric" in rests && rests.metric === "b" ? [SYMBOL.b] : "β";
  const focal = "focal" in rests ? title(rests.focal.variable, rests.focal.level) : "";
  switch (rests.on) {
    case "change":
      return words`${DELTA_R2}, ${step}`;
    case "coefficient":
      return words`${metric} of ${partsTitle(rests.column, title)}, ${step}`;
    case "difference":
      return words`β of ${partsTitle(rests.first, title)} − β of ${partsTitle(rests.second, title)}, ${step}`;
    case "slope":
      return words`slope of ${focal}, ${title(rests.moderator)} ${heldWords(rests.at, rests.moderator, title)}, ${step}`;
    case "region":
      return words`slope of ${focal}, ${title(rests.moderator)} ${rangeWords(rests)}, ${step}`;
    case "groups": {
      const of = words`${metric} of ${partsTitle(rests.column, title)}`;
      if (rests.first === null || rests.second === null) return words`${of} over all groups of ${title(rests.variable)}, ${step}`;
      return words`${of}, ${levelTitle(title, rests.variable, rests.first)} − ${levelTitle(title, rests.variable, rests.second)}, ${step}`;
    }
    case "means":
      return words`predicted, ${levelTitle(title, rests.variable, rests.first)} − ${levelTitle(title, rests.variable, rests.second)}, ${step}`;
    case "indirect":
      return "a path, tested by nothing here";
  }
}

/** So many contradictions are told. */
const MOST_TOLD = 6;

/** Two hypotheses that cannot both hold, a sentence each; of many the first. */
export function contradictions(hypotheses: readonly Hypothesis[], ladders: Ladders): string[] {
  const codes = codesOf(hypotheses);
  const same = new Map<string, number[]>();
  hypotheses.forEach((h, k) => {
    const key = numberKey(h, ladderOf(h, ladders)?.steps.length ?? Infinity);
    if (key === null) return;
    same.set(key, [...(same.get(key) ?? []), k]);
  });
  const told: { first: number; said: string }[] = [];
  for (const places of same.values())
    places.forEach((i, k) => {
      for (const j of places.slice(k + 1)) {
        const [a, b] = [hypotheses[i]!, hypotheses[j]!];
        const opposed = a.direction !== "none" && b.direction !== "none" && a.direction !== b.direction;
        const none = (a.claim === "equivalence") !== (b.claim === "equivalence");
        if (none || opposed) told.push({ first: i, said: `${codes[i]!} and ${codes[j]!} contradict each other: ${none ? "one expects a difference, the other none that matters" : "one expects above 0, the other below"}.` }); // prettier-ignore
      }
    });
  const said = told.sort((a, b) => a.first - b.first).map((one) => one.said);
  return said.length <= MOST_TOLD ? said : [...said.slice(0, MOST_TOLD), `And ${said.length - MOST_TOLD} further pairs do.`];
}

/** What a hypothesis about a ladder can rest on, as choices: its key is that of `restsKey`. */
export const restsChoices = (columns: readonly (readonly Part[])[], title: Titles) => [
  { value: "change", label: "what the step adds" },
  ...columns.map((parts) => ({ value: `c ${columnKey(parts)}`, label: `the coefficient of ${partsTitle(parts, title)}` })),
];

/** The choice that a hypothesis has made. */
export const restsKey = (h: Pick<Hypothesis, "rests">) => (h.rests.on === "coefficient" ? `c ${columnKey(h.rests.column)}` : h.rests.on);

/** What was expected of what, of a hypothesis as it stood once. */
export const stoodWords = (was: Pick<Hypothesis, "rests" | "ladder" | "step" | "claim" | "direction">, ladders: Ladders, title: Titles) =>
  settingsSentence(was, ladders, title);

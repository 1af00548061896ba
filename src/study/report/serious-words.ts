import type { Screen, Seriousness } from "../analyse/responses/seriousness";
import type { Edit } from "../model/edit";
import type { Condition, RespondentFilter } from "../model/respondent-filter";
import type { Study } from "../model/study";
import { CHECK_WORDS, findingWords, fixesOf } from "./check-words";
import { counted, formatCount, formatPlain, listed } from "./format-number";

type Title = (name: string) => string;
const seen = (values: readonly { value: string; count: number }[]) => listed(values.slice(0, 5).map((v) => `“${v.value}” (${v.count})`));

/** What a screen is about, and why it matters. */
export function screenTitle(screen: Screen): { title: string; why: string } {
  switch (screen.kind) {
    case "progress":
    case "finished":
      return {
        title: "Did not reach the end",
        why: "Who stops in the middle leaves scales half answered, and often was not reading any more.",
      };
    case "duration":
      return { title: "Took hardly any time", why: "Nobody reads all questions in so short a time: such answers lower every correlation." };
    case "consent":
      return { title: "Gave no consent", why: "Their answers may not be used." };
    case "preview":
      return { title: "Test runs and previews", why: "They are the researchers’ own clicks, not respondents." };
    case "attention":
      return {
        title: "Chose another answer than they were asked to",
        why: "Who does not read this question may not have read the others.",
      };
    case "finding":
      return CHECK_WORDS[screen.finding.check];
  }
}

/** What a screen has found, without its bound. */
export function screenWords(screen: Screen, title: Title): string {
  const who = counted(screen.rows.length, "respondent");
  switch (screen.kind) {
    case "progress":
      return screen.rows.length === 0 ? `All have at least ${formatPlain(screen.below)}.` : `${who} stopped earlier.`;
    case "duration":
      return `Half took ${formatPlain(Number(screen.median.toPrecision(3)))} or less. ${screen.rows.length === 0 ? "Nobody was" : `${who} ${screen.rows.length === 1 ? "was" : "were"}`} faster than that bound.`;
    case "finished":
      return `${who} ${screen.rows.length === 1 ? "is" : "are"} not among those with ${listed(screen.given.map((one) => `“${one}”`))} in ${title(screen.variable)}.`;
    case "consent":
      return `${who} did not answer ${listed(screen.given.map((one) => `“${one}”`))} to ${title(screen.variable)}${screen.refused.length > 0 ? `: ${seen(screen.refused)}` : ""}.`;
    case "preview":
      return `${title(screen.variable)} is ${seen(screen.values)}.`;
    case "attention":
      return `${screen.variable} asks for “${screen.asked}”; ${screen.rows.length === 0 ? "everybody who answered chose it" : `chosen were ${seen(screen.others)}`}.`;
    case "finding":
      return findingWords(screen.finding, title);
  }
}

/** The filter that leaves them out, by the bound and not by their rows, so that it holds for later waves as well. */
export function screenFilter(screen: Screen, study: Study, title: Title): Edit[] {
  if (screen.kind === "finding") return fixesOf(screen.finding, study)[0]?.edits ?? [];
  const made = (id: string, name: string, reason: string, condition: Condition): Edit[] => {
    const free = study.filters.some((f) => f.id === id) ? `${id}_${study.filters.length + 1}` : id;
    const to: RespondentFilter = { id: free, name, reason, everywhere: true, conditions: [condition] };
    return [{ subject: "filter", id: free, to }];
  };
  const { variable } = screen;
  switch (screen.kind) {
    case "progress":
      return made("reached_the_end", "Reached the end", `did not reach ${formatPlain(screen.below)} in ${title(variable)}`, notBelow(variable, screen.below, screen.rows)); // prettier-ignore
    case "duration":
      return made("took_time", "Took enough time", `took less than ${formatPlain(screen.below)} (${title(variable)})`, notBelow(variable, screen.below, screen.rows)); // prettier-ignore
    case "finished":
      return made("finished", "Finished", `did not finish (${title(variable)})`, {
        kind: "values",
        variable,
        equals: screen.given,
        not: false,
      });
    case "consent":
      return made("consent", "Consent given", "gave no consent", { kind: "values", variable, equals: screen.given, not: false });
    case "preview":
      return made("real_responses", "Real responses", "were test runs or previews", { kind: "values", variable, equals: screen.values.map((v) => v.value), not: true }); // prettier-ignore
    case "attention":
      return made(`attention_${study.filters.length + 1}`, `Read what ${variable} asks`.slice(0, 200), `chose another answer than “${screen.asked}”, which was asked for`, { kind: "values", variable, equals: screen.others.map((v) => v.value), not: true }); // prettier-ignore
  }
}

/** Who has no number is not told to have a low one. */
function notBelow(variable: string, below: number, rows: number[]): Condition {
  const plain = /^[\p{L}_][\p{L}\d_]*$/u.test(variable);
  return plain ? { kind: "formula", formula: `answered(${variable}) = 0 or ${variable} >= ${below}` } : { kind: "not-rows", rows };
}

/** The sentence of a method section: how many there were, who was left out and why, and how many remained. */
export function flowSentence({ rows, flow, kept }: Pick<Seriousness, "rows" | "flow" | "kept">): string {
  const out = flow.filter((one) => one.leftOut > 0);
  if (out.length === 0) return `All ${formatCount(rows)} respondents were kept.`;
  const parts = out.map(({ name, reason, leftOut }, i) => `${formatCount(leftOut)} ${i === 0 ? `${leftOut === 1 ? "respondent was" : "respondents were"} left out` : leftOut === 1 ? "was" : "were"} (${(reason || name).replace(/[.\s]+$/, "")})`); // prettier-ignore
  return `Of ${counted(rows, "respondent")}, ${listed(parts)}; ${formatCount(kept)} remained.`;
}

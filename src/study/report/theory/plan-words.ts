import type { PlanResult } from "../../analyse/plan-analysis";
import type { DerivedVariable } from "../../model/derived";
import { codesOf, type Hypothesis, type Tested } from "../../model/hypothesis";
import type { CaseFilter, Ladder } from "../../model/ladder";
import type { Deviation, Plan, PlanDocument } from "../../model/plan";
import type { Condition, RespondentFilter } from "../../model/respondent-filter";
import type { Scale } from "../../model/scale";
import { titleOf } from "../../model/study";
import type { Variable } from "../../model/variable";
import { formatCount, formatLevel, formatPercent, formatPlain, formatShare, listed } from "../format-number";
import type { PrintTable } from "../print-table";
import { conditionWords, recipeWords } from "../recipe-words";
import { filterWords } from "../sample-words";
import { hypothesisSentence, stoodWords } from "./hypothesis-words";
import { dayOf } from "./verdict-words";

const ABOUT_WORDS: Record<Deviation["about"], string> = {
  sample: "Who is in",
  coding: "How answers are read",
  items: "Items",
  terms: "Terms",
  errors: "Errors and intervals",
  hypotheses: "Hypotheses",
  level: "Level and family",
};

/** One deviation as a row: what it is about, of what, what was planned, what was done. */
export interface DeviationRow {
  about: string;
  of: string;
  planned: string;
  done: string;
}

const NOT_PLANNED = "not planned";
const GONE = "not done";

/** Deviations in words; each side in the words of its own document. */
export function deviationRows(all: readonly Deviation[], planned: PlanDocument, done: PlanDocument): DeviationRow[] {
  const names = (document: PlanDocument) => (name: string, level?: string | null) => titleOf(document, name, level);
  return all.map((d) => {
    const side = (value: unknown, document: PlanDocument, none: string) => (value === null && d.field === "" ? none : valueWords(d, value, document, names(document))); // prettier-ignore
    return {
      about: ABOUT_WORDS[d.about],
      of: ofWords(d, d.planned === null && d.field === "" ? done : planned, names(planned)),
      planned: side(d.planned, planned, NOT_PLANNED),
      done: side(d.done, done, GONE),
    };
  });
}

type Names = (name: string, level?: string | null) => string;

function ofWords(d: Deviation, document: PlanDocument, title: Names): string {
  const field = d.field === "" || ["conditions", "recipe", "tested", "items", "sample"].includes(d.field) ? "" : `, ${FIELDS[d.field] ?? d.field}`; // prettier-ignore
  switch (d.kind) {
    case "variable":
    case "derived":
      return `${title(d.id)}${field}`;
    case "scale":
      return `${document.scales.find((s) => s.id === d.id)?.name ?? d.id}${field}`;
    case "ladder":
      return `${document.ladders.find((l) => l.id === d.id)?.name ?? d.id}${field}`;
    case "filter":
      return `${document.filters.find((f) => f.id === d.id)?.name ?? d.id}${field}`;
    case "hypothesis":
      return `${codesOf(document.hypotheses)[document.hypotheses.findIndex((h) => h.id === d.id)] ?? d.id}${field}`;
    case "theory":
      return FIELDS[d.field] ?? d.field;
  }
}

const FIELDS: Readonly<Record<string, string>> = {
  alpha: "α",
  holm: "correction",
  delta: "smallest effect",
  answeredShare: "answers that are needed",
  alsoComplete: "also complete",
  everywhere: "where it holds",
  range: "declared answers",
  missing: "codes for missing",
  kind: "kind",
  standardizeIndicators: "columns of categories as z-scores",
  weigh: "what weights count",
};

function valueWords(d: Deviation, value: unknown, document: PlanDocument, title: Names): string {
  const of = `${d.kind} ${d.field}`;
  switch (of) {
    case "filter ":
      return conditionsWords((value as RespondentFilter).conditions, title);
    case "filter conditions":
      return conditionsWords(value as Condition[], title);
    case "filter everywhere":
      return value === true ? "for the whole study" : "where it is chosen";
    case "variable ":
      return "in the codebook";
    case "variable range": {
      const range = value as Variable["range"];
      return range ? `${formatPlain(range.low)} to ${formatPlain(range.high)}` : "any";
    }
    case "derived ":
      return recipeWords((value as DerivedVariable).recipe, title);
    case "derived recipe":
      return recipeWords(value as DerivedVariable["recipe"], title);
    case "scale ":
      return itemsWords((value as Scale).items);
    case "scale items":
      return itemsWords(value as Scale["items"]);
    case "scale answeredShare":
      return `at least ${formatPercent(value as number)}`;
    case "ladder ":
      return (value as Ladder).steps.map((step) => termsWords(step.terms.filter((t) => !t.off).map((t) => t.components), title)).join("; then "); // prettier-ignore
    case "ladder outcome":
      return value === null ? "none" : title(value as string);
    case "ladder sample": {
      const { filter, respondents } = value as { filter: CaseFilter | null; respondents: string | null };
      return filterWords(document, filter, respondents);
    }
    case "ladder intervals": {
      const how = value as Ladder["intervals"];
      return how.by === "normal"
        ? "normal theory"
        : `${how.by === "bca" ? "BCa" : "percentile"}, ${formatCount(how.replicates)} replicates`;
    }
    case "ladder confidence":
      return formatPercent(value as number);
    case "ladder errors":
      return value === "hc3" ? "HC3" : "classical";
    case "ladder cluster":
      return value === null ? "none" : `clusters of ${title(value as string)}`;
    case "ladder categories":
      return listed((value as Ladder["categories"]).map((c) => `${title(c.variable)} ${c.coding}${c.reference === null ? "" : ` against ${c.reference}`}`)) || "as usual"; // prettier-ignore
    case "ladder search":
      return value === null ? "written" : "chosen by a search";
    case "hypothesis ":
      return hypothesisSentence(value as Hypothesis, document.ladders, title);
    case "hypothesis tested":
      return testedWords(value as Tested, document, title);
    case "hypothesis family":
      return value === true ? "in the family" : "by itself";
    case "theory holm":
      return value === true ? "Holm over the family" : "each by itself";
    case "theory alpha":
      return formatLevel(value as number);
    case "theory delta":
      return value === 0 ? "none" : formatShare(value as number);
    default:
      return d.kind === "ladder" && d.field.startsWith("step ") ? stepWords(value, title) : plainWords(value);
  }
}

const conditionsWords = (conditions: readonly Condition[], title: Names) => `keeps those ${listed(conditions.map((c) => conditionWords(c, title)))}`; // prettier-ignore
const itemsWords = (items: readonly { variable: string; reversed: boolean }[]) => items.map(({ variable, reversed }) => `${variable}${reversed ? " (reversed)" : ""}`).join(", "); // prettier-ignore
const termsWords = (terms: readonly (readonly string[])[], title: Names) => terms.map((components) => components.map((name) => title(name)).join(" × ")).join(", ") || "nothing"; // prettier-ignore
const stepWords = (value: unknown, title: Names) => (value === null ? "no such step" : termsWords(value as string[][], title));

function testedWords(was: Tested, document: PlanDocument, title: Names): string {
  const step = was.step === null ? "last step" : `step ${was.step}`;
  const size = was.delta === null ? "" : `, smallest effect ${formatPlain(was.delta)}`;
  return `${stoodWords(was, document.ladders, title)} (${was.ladder === null ? "no ladder" : step}${size})`;
}

function plainWords(value: unknown): string {
  if (value === null || value === undefined) return "nothing";
  if (Array.isArray(value)) return value.length === 0 ? "none" : value.map(String).join(", ");
  return typeof value === "string" || typeof value === "number" || typeof value === "boolean" ? String(value) : "otherwise";
}

/** What a plan is, in a sentence. */
export function planSays({ at, rows, sha256 }: Plan, found: PlanResult | null): string {
  const when = rows === 0 ? "before there were any answers" : `when ${formatCount(rows)} rows of answers were there`;
  const holds = found === null || found.holds ? "" : " It does not say what it said then: its sum does not match.";
  return `Fixed on ${dayOf(at)}, ${when}; SHA-256 ${sha256.slice(0, 16)}….${holds}`;
}

/** What was done otherwise than planned, as a journal prints it. */
export function deviationTable(plan: Plan, rows: readonly DeviationRow[]): PrintTable {
  return {
    title: "Deviations from the plan",
    head: ["About", "Of", "Planned", "Done"],
    sections: [{ heading: "", rows: rows.map(({ about, of, planned, done }) => [about, of, planned, done]) }],
    note: `${rows.length === 0 ? "None. " : ""}Plan of ${dayOf(plan.at)}, SHA-256 ${plan.sha256}.`,
  };
}

import type { CheckKind, Finding } from "../analyse/responses/findings";
import { correctionId } from "../model/correction";
import type { Edit } from "../model/edit";
import type { RespondentFilter } from "../model/respondent-filter";
import type { Study } from "../model/study";
import type { Variable } from "../model/variable";
import { counted, listed } from "./format-number";

/** A way to mend what a check has found: recorded steps, all reversible. */
export interface Fix {
  label: string;
  edits: Edit[];
}

/** What a check looks for, and why it matters. */
export const CHECK_WORDS: Record<CheckKind, { title: string; why: string }> = {
  "missing-like": {
    title: "Values that look like codes for a missing answer",
    why: "Counted as answers, they shift every mean, reverse-keyed item and coefficient they touch.",
  },
  "outside-range": {
    title: "Answers outside the declared range",
    why: "They cannot have been given: a slip of typing, or a range that is declared too narrow.",
  },
  "words-in-numbers": {
    title: "Words where numbers are wanted",
    why: "They count as missing, so these respondents drop out wherever the variable is used.",
  },
  "same-code": {
    title: "Respondents with the same code",
    why: "Someone who is there twice counts twice: standard errors come out too small.",
  },
  "same-answers": {
    title: "Respondents with every answer the same as another's",
    why: "So many equal answers are no chance: the same person, or a row that was copied.",
  },
  "straight-line": {
    title: "Respondents who gave one and the same answer throughout",
    why: "Answers given without reading raise some correlations and lower others, most of all with reverse-keyed items.",
  },
  "nothing-answered": {
    title: "Respondents who answered nothing",
    why: "They add to the count of respondents and to nothing else.",
  },
  "no-variation": {
    title: "Variables without variation",
    why: "What is the same for all explains nothing and cannot be correlated.",
  },
  "undeclared-levels": {
    title: "Answers that are no declared level",
    why: "A slip of spelling becomes a group of its own.",
  },
  "unused-levels": {
    title: "Levels that nobody has",
    why: "They take no column of a model; as a reference they would compare with nobody.",
  },
  "small-levels": {
    title: "Levels with few respondents",
    why: "A coefficient that rests on a handful of people says more about them than about the level.",
  },
  "unreadable-dates": {
    title: "Dates that are written in another way than the rest",
    why: "They have no year that could be counted from.",
  },
  "unmet-codes": {
    title: "Codes for a missing answer that no cell has",
    why: "A slip in the code, or written otherwise than in the file: what it was meant for counts as an answer.",
  },
  "idle-corrections": {
    title: "Corrections that do not fit their cell",
    why: "The cell reads otherwise than what the correction was written against, so it reads as in the file.",
  },
};

/** What was found in one variable, in a sentence, without naming a respondent. */
export function findingWords(f: Finding, title: (name: string) => string): string {
  const name = f.variable === null ? "" : title(f.variable);
  const values = listed(f.values.slice(0, 6).map(({ value, count }) => `${shown(value)} (${count})`)) + (f.values.length > 6 ? " …" : "");
  switch (f.check) {
    case "same-code":
      return `${name}: ${counted(f.groups.length, "code stands", "codes stand")} more than once; ${counted(f.count, "respondent")} too many.`;
    case "same-answers":
      return `${counted(f.groups.length, "group")} of respondents with the same answers; ${counted(f.count, "respondent")} too many.`;
    case "straight-line":
    case "nothing-answered":
      return `${counted(f.count, "respondent")}.`;
    case "no-variation":
      return f.values.length === 0
        ? `${name} holds no answer at all.`
        : `${name} is ${shown(f.values[0]!.value)} for all ${f.count} who answered.`;
    case "idle-corrections":
      return `${name}: ${counted(f.count, "correction")}.`;
    case "unused-levels":
    case "unmet-codes":
      return `${name}: ${listed(f.values.map((v) => shown(v.value)))}.`;
    default:
      return `${name}: ${values}.`;
  }
}

const shown = (value: string) => value.replace(/^-(?=\d)/, "−");

/** The ways to mend a finding. */
export function fixesOf(f: Finding, study: Study): Fix[] {
  const variable = study.codebook.find((v) => v.name === f.variable);
  switch (f.check) {
    case "missing-like":
    case "words-in-numbers":
    case "unreadable-dates":
      return variable ? [countAsMissing(variable, f)] : [];
    case "outside-range":
      return variable ? [countAsMissing(variable, f), emptyCells(variable, f, study)] : [];
    case "same-code":
    case "same-answers":
      return [leaveOut(study, "duplicates", "Duplicates", "The same respondent a second time.", f, "Leave the later ones out")];
    case "straight-line":
      return [leaveOut(study, "straight_line", "One answer throughout", "The same answer to every item.", f, "Leave them out")];
    case "nothing-answered":
      return [leaveOut(study, "nothing_answered", "Nothing answered", "Not one item answered.", f, "Leave them out")];
    case "no-variation":
      return variable && variable.kind !== "text"
        ? [
            {
              label: "Keep it as text, offered nowhere",
              edits: [{ subject: "variable", id: variable.name, to: { ...variable, kind: "text" } }],
            },
          ]
        : [];
    case "undeclared-levels":
      if (!variable) return [];
      return [
        {
          label: f.values.length === 1 ? "Make it a level" : "Make them levels",
          edits: [
            {
              subject: "variable",
              id: variable.name,
              to: { ...variable, levels: [...variable.levels, ...f.values.map(({ value }) => ({ value, label: "" }))] },
            },
          ],
        },
        countAsMissing(variable, f),
      ];
    case "unused-levels":
      return variable
        ? [
            {
              label: f.values.length === 1 ? "Take the level out" : "Take the levels out",
              edits: [
                {
                  subject: "variable",
                  id: variable.name,
                  to: { ...variable, levels: variable.levels.filter((l) => !f.values.some((v) => v.value === l.value)) },
                },
              ],
            },
          ]
        : [];
    case "unmet-codes":
      return variable
        ? [
            {
              label: f.values.length === 1 ? "Take the code out" : "Take the codes out",
              edits: [
                {
                  subject: "variable",
                  id: variable.name,
                  to: { ...variable, missing: variable.missing.filter((code) => !f.values.some((v) => v.value === code)) },
                },
              ],
            },
          ]
        : [];
    case "idle-corrections":
      return [
        {
          label: f.count === 1 ? "Take the correction back" : "Take these corrections back",
          edits: study.corrections
            .filter((c) => c.variable === f.variable && f.rows.includes(c.row))
            .map((c): Edit => ({ subject: "correction", id: correctionId(c), to: null })),
        },
      ];
    case "small-levels":
      return []; // combining levels makes a new variable: the sheet opens its recipe
  }
}

function countAsMissing(variable: Variable, f: Finding): Fix {
  const codes = f.values.map((v) => v.value).filter((code) => !variable.missing.includes(code));
  const words = f.values.slice(0, 3).map((v) => shown(v.value));
  return {
    label: `Count ${listed(words)}${f.values.length > 3 ? ` and ${f.values.length - 3} more` : ""} as missing`,
    edits: [{ subject: "variable", id: variable.name, to: { ...variable, missing: [...variable.missing, ...codes] } }],
  };
}

/** Each cell made empty by a correction of its own, so that other respondents' same answers stay. */
function emptyCells(variable: Variable, f: Finding, study: Study): Fix {
  const single = f.values.length === 1 ? f.values[0]!.value : null;
  const open = f.rows.filter((row) => !study.corrections.some((c) => c.row === row && c.variable === variable.name));
  const edits =
    single === null
      ? []
      : open.map((row): Edit => {
          const correction = { variable: variable.name, row, from: single, to: null, note: "outside the declared range" };
          return { subject: "correction", id: correctionId(correction), to: correction };
        });
  return { label: `Empty ${edits.length === 1 ? "this cell" : `these ${edits.length} cells`}`, edits };
}

/** Respondents left out of the whole study by one filter, which grows when more are found. */
function leaveOut(study: Study, id: string, name: string, reason: string, f: Finding, label: string): Fix {
  // a filter of the same id that holds only where it is chosen is another's
  const known = study.filters.find((filter) => filter.id === id && filter.everywhere);
  if (!known && study.filters.some((filter) => filter.id === id)) return leaveOut(study, `${id}_all`, name, reason, f, label);
  const rows = new Set(f.rows);
  for (const condition of known?.conditions ?? []) if (condition.kind === "not-rows") condition.rows.forEach((row) => rows.add(row));
  const others = (known?.conditions ?? []).filter((c) => c.kind !== "not-rows");
  const to: RespondentFilter = {
    id,
    name: known?.name ?? name,
    reason: known?.reason ?? reason,
    everywhere: true,
    conditions: [...others, { kind: "not-rows", rows: [...rows].sort((a, b) => a - b) }],
  };
  return { label, edits: [{ subject: "filter", id, to }] };
}

const ALL_WORDS: Partial<Record<CheckKind, string>> = {
  "missing-like": "Count all of these as missing",
  "words-in-numbers": "Count all of these as missing",
  "outside-range": "Count all of these as missing",
  "unreadable-dates": "Count all of these as missing",
  "unused-levels": "Take all of these levels out",
  "undeclared-levels": "Make all of these levels",
  "no-variation": "Keep all of these as text, offered nowhere",
};

/** The first fix of several findings as one: edits of one object are put together. Null where there is no such fix. */
export function fixAll(findings: readonly Finding[], study: Study): Fix | null {
  let current = study;
  const edits = new Map<string, Edit>();
  for (const f of findings) {
    const fix = fixesOf(f, current)[0];
    for (const edit of fix?.edits ?? []) {
      if (edit.subject === "variable" && edit.to) {
        const to = edit.to;
        current = { ...current, codebook: current.codebook.map((v) => (v.name === edit.id ? to : v)) };
      }
      if (edit.subject === "filter" && edit.to) {
        const to = edit.to;
        current = { ...current, filters: [...current.filters.filter((x) => x.id !== edit.id), to] };
      }
      edits.set("id" in edit ? `${edit.subject} ${edit.id}` : edit.subject, edit);
    }
  }
  const label = ALL_WORDS[findings[0]!.check];
  if (edits.size === 0 || label === undefined) return null;
  const values = [...new Set(findings.flatMap((f) => f.values.map((v) => shown(v.value))))];
  const which = values.length === 0 ? "" : `: ${listed(values.slice(0, 6))}${values.length > 6 ? ` and ${values.length - 6} more` : ""}`;
  return { label: `${label}${which} (${counted(findings.length, "variable")})`, edits: [...edits.values()] };
}

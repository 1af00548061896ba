import { newId } from "@/study/model/new-id";
import type { Recipe } from "@/study/model/derived";
import type { Edit } from "@/study/model/edit";
import type { Ladder } from "@/study/model/ladder";
import { RespondentFilter } from "@/study/model/respondent-filter";
import { type Study, titleOf } from "@/study/model/study";
import { Variable } from "@/study/model/variable";
import type { LadderFix } from "@/study/report/ladder/ladder-fix";
import { addStep, addTerm, codeCategory, removeTerm, replaceTerm, switchTerm } from "./ladder-edits";

/** What a remedy comes to: changes of the study, all or none, or a place to look at. */
export type Mending = { edits: Edit[] } | { row: number } | { missing: true };

/** Carries a remedy out on paper. */
export function mend(fix: LadderFix, study: Study, ladder: Ladder): Mending {
  const change = (to: Ladder): Edit => ({ subject: "ladder", id: ladder.id, to });
  switch (fix.do) {
    case "add-term":
      return { edits: [change(addTerm(ladder, fix.step - 1, fix.components))] };
    case "remove-term":
      return { edits: [change(removeTerm(ladder, fix.step - 1, fix))] };
    case "replace-term":
      return { edits: [change(replaceTerm(ladder, fix.step - 1, fix, fix.by))] };
    case "switch-off":
      return { edits: [change(switchTerm(ladder, { step: fix.step - 1, components: fix.components }))] };
    case "replace-name":
      return { edits: [change(replaceName(ladder, fix.name, fix.by))] };
    case "square": {
      const last = ladder.steps.at(-1)!;
      const wider = last.terms.length === 0 ? ladder : addStep(ladder);
      return { edits: [change(addTerm(wider, wider.steps.length - 1, [fix.variable, fix.variable]))] };
    }
    case "logarithm":
      return { edits: logarithm(study, ladder, fix.variable, fix.lowest) };
    case "centre":
      return { edits: [change({ ...ladder, centring: "mean" })] };
    case "classical-errors":
      return { edits: [change({ ...ladder, errors: "classical", cluster: null })] };
    case "reference": {
      const coding = ladder.categories.find((c) => c.variable === fix.variable)?.coding ?? "indicator";
      return { edits: [change(codeCategory(ladder, { variable: fix.variable, coding, reference: fix.reference }))] };
    }
    case "kind":
      return { edits: variableEdit(study, fix.variable, (v) => ({ ...v, kind: fix.kind })) };
    case "drop-level":
      return { edits: variableEdit(study, fix.variable, (v) => ({ ...v, levels: v.levels.filter((l) => !fix.levels.includes(l.value)) })) };
    case "leave-out-level": {
      const name = `Without ${titleOf(study, fix.variable, fix.level)}`;
      const condition = { kind: "values" as const, variable: fix.variable, equals: [fix.level], not: true };
      return { edits: leaveOut(study, ladder, name, "Too few respondents for a coefficient of its own.", condition) };
    }
    case "leave-out-rows": {
      const name = `Without row ${fix.rows.join(", ")}`;
      return { edits: leaveOut(study, ladder, name, `Looked at in the ladder ${ladder.name}.`, { kind: "not-rows", rows: fix.rows }) };
    }
    case "combine-levels":
      return { edits: combineLevels(study, ladder, fix.variable, fix.levels) };
    case "see-row":
      return { row: fix.row };
    case "see-missing":
      return { missing: true };
  }
}

function replaceName(ladder: Ladder, name: string, by: string): Ladder {
  const steps = ladder.steps.map((step) => ({
    ...step,
    terms: step.terms.map((t) => ({ ...t, components: t.components.map((c) => (c === name ? by : c)) })),
  }));
  return { ...ladder, steps };
}

function variableEdit(study: Study, name: string, change: (variable: Variable) => Variable): Edit[] {
  const variable = study.codebook.find((v) => v.name === name);
  return variable ? [{ subject: "variable", id: name, to: change(variable) }] : [];
}

/** A filter of its own, which this ladder then goes by, with all that chose its respondents before: nobody leaves the study. */
function leaveOut(study: Study, ladder: Ladder, name: string, reason: string, condition: RespondentFilter["conditions"][number]): Edit[] {
  const taken = study.filters.map((f) => f.id);
  const id = newId(name, taken);
  const own = ladder.filter
    ? [{ kind: "values" as const, variable: ladder.filter.variable, equals: ladder.filter.equals, not: false }]
    : [];
  const named = study.filters.find((f) => f.id === ladder.respondents && !f.everywhere);
  const conditions = [...(named?.conditions ?? []), ...own, condition];
  const why = named ? `${reason} Besides whom “${named.name}” leaves out.` : reason;
  const to = RespondentFilter.parse({ id, name: name.slice(0, 200), reason: why.slice(0, 2000), conditions });
  return [
    { subject: "filter", id, to },
    { subject: "ladder", id: ladder.id, to: { ...ladder, filter: null, respondents: id } },
  ];
}

/** The logarithm of a variable in its place; of one that goes down to 0 or below, counted from 1 at its lowest. */
function logarithm(study: Study, ladder: Ladder, variable: string, lowest: number): Edit[] {
  const name = newId(`ln ${variable}`, [...study.codebook.map((v) => v.name), ...study.scales.map((s) => s.id)]);
  const from = lowest > 0 ? `{${variable}}` : `{${variable}} + ${1 - lowest}`;
  const to = Variable.parse({ name, label: `Logarithm of ${titleOf(study, variable)}`.slice(0, 2000), kind: "number" });
  return [
    { subject: "variable", id: name, to, at: study.codebook.length },
    { subject: "derived", id: name, to: { name, recipe: { kind: "formula", formula: `ln(${from})` } } },
    { subject: "ladder", id: ladder.id, to: replaceName(ladder, variable, name) },
  ];
}

/** A category in which some levels are one, in the place of the first. */
function combineLevels(study: Study, ladder: Ladder, variable: string, levels: readonly string[]): Edit[] {
  const row = study.codebook.find((v) => v.name === variable);
  if (!row) return [];
  const name = newId(`${variable} combined`, [...study.codebook.map((v) => v.name), ...study.scales.map((s) => s.id)]);
  const joined = levels.map((value) => row.levels.find((l) => l.value === value)?.label || value).join(" or ");
  const kept = row.levels.filter((l) => !levels.includes(l.value));
  const recipe: Recipe = {
    kind: "lookup",
    from: variable,
    table: [{ values: [...levels], to: joined }],
    otherwise: { kind: "keep" },
  };
  const to = Variable.parse({
    name,
    label: `${row.label || variable}, combined`.slice(0, 2000),
    kind: "category",
    levels: [...kept, { value: joined, label: "" }],
  });
  return [
    { subject: "variable", id: name, to, at: study.codebook.length },
    { subject: "derived", id: name, to: { name, recipe } },
    {
      subject: "ladder",
      id: ladder.id,
      to: replaceName({ ...ladder, categories: ladder.categories.filter((c) => c.variable !== variable) }, variable, name),
    },
  ];
}

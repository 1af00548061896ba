import type { LadderFit } from "@/core/regression/ladder";
import type { Part } from "@/core/regression/terms";
import type { Edit } from "@/study/model/edit";
import { ColumnParts } from "@/study/model/column-parts";
import { Hypothesis } from "@/study/model/hypothesis";
import { activeTerms, type Ladder } from "@/study/model/ladder";
import { newId } from "@/study/model/new-id";
import type { Study } from "@/study/model/study";
import { THEORY, Theory } from "@/study/model/theory";

/** Settings that decide what is tested: a change of one after the result was seen is not one that stood before. */
const TESTED = ["ladder", "step", "rests", "direction", "claim", "delta"] as const satisfies readonly (keyof Hypothesis)[];

/** The edits that make a hypothesis, with the study's level and family where there are none yet. */
export function newHypothesis(study: Study, own: Partial<Hypothesis>, seen: boolean): { id: string; edits: Edit[] } {
  const id = newId(`h${study.hypotheses.length + 1}`, study.hypotheses.map((h) => h.id)); // prettier-ignore
  const to = Hypothesis.parse({ ...own, id, before: !seen });
  const level: Edit[] = study.theories.length > 0 ? [] : [{ subject: "theory", id: THEORY, to: Theory.parse({ id: THEORY }) }];
  return { id, edits: [...level, { subject: "hypothesis", id, to }] };
}

/** The same hypothesis with something changed. @param seen its result was looked at before */
export function changed(h: Hypothesis, to: Partial<Hypothesis>, seen: boolean): Hypothesis {
  const next = { ...h, ...to };
  const same = TESTED.every((key) => JSON.stringify(h[key]) === JSON.stringify(next[key]));
  return { ...next, before: same ? h.before : !seen };
}

/** One place further up (−1) or down (1), as one change. */
export function moved(hypotheses: readonly Hypothesis[], at: number, by: -1 | 1): Edit[] {
  const to = at + by;
  if (to < 0 || to >= hypotheses.length) return [];
  const h = hypotheses[at]!;
  return [
    { subject: "hypothesis", id: h.id, to: null },
    { subject: "hypothesis", id: h.id, to: h, at: to },
  ];
}

/** Columns of a ladder up to a step that a hypothesis can rest on: from its fit, or from its terms where there is none. */
export function testableColumns(ladder: Ladder, step: number, fit: LadderFit | null): readonly (readonly Part[])[] {
  if (fit) return (fit.steps[step - 1]?.coefficients ?? []).map((c) => fit.parts.get(c.column)!);
  return ladder.steps.slice(0, step).flatMap(activeTerms).map(({ components }) => components.map((variable) => ({ variable, level: null }))); // prettier-ignore
}

/** A coefficient as what a hypothesis rests on. */
export const restsOnColumn = (parts: readonly Part[]) => ({
  on: "coefficient" as const,
  column: ColumnParts.parse(parts),
  metric: "beta" as const,
});

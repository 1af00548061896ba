import { importance, type Importance as Shares } from "@/core/comparison/importance";
import { standardDeviation } from "@/core/describe/standard-deviation";
import { outcomeCorrelations } from "@/core/regression/least-squares";
import type { LadderModels } from "@/core/regression/ladder";
import { type Term, termIdentity, termName } from "@/core/regression/terms";
import { searchGround, type SearchTerm } from "@/core/search/search-ground";
import type { Desk } from "../kinds/kind";
import type { Importance } from "../model/importance";
import { activeTerms, type Ladder } from "../model/ladder";
import type { AnalysisSample } from "../prepare/analysis-sample";
import { type FittedLadder, fitLadderOf } from "./analyse-ladder";
import { NothingToShareError, type Refusal, refusalOf } from "./refusal";

/** A term with its share, and what else is said of its importance. */
export interface TermImportance {
  term: Term;
  key: string;
  /** Of R², averaged over the orders. */
  share: number;
  /** Of what all terms explain beyond the controls; null where they explain nothing. */
  ofSum: number | null;
  /** Of a term of one column: with the outcome by itself, beyond all others, and β. Null otherwise. */
  zeroOrder: number | null;
  part: number | null;
  beta: number | null;
}

export type ImportanceResult =
  | {
      status: "told";
      sample: AnalysisSample;
      /** From 1; the steps that are controls. */
      step: number;
      controls: number;
      of: Omit<Shares, "shares">;
      terms: TermImportance[];
    }
  | { status: "refused"; sample: AnalysisSample | null; refusal: Refusal };

/** @param fitted the ladder, where it is fitted already */
export function analyseImportance(
  { importance: asked, ladder }: { importance: Importance; ladder: Ladder },
  { study, responses, columns }: Desk,
  fitted?: FittedLadder,
): ImportanceResult {
  const found = fitted ?? fitLadderOf(study, ladder, responses, columns);
  if (found.status === "refused") return found;
  const { models, sample } = found;
  const step = Math.min(asked.step ?? ladder.steps.length, ladder.steps.length);
  const controls = Math.min(asked.controls, step - 1);
  try {
    const ground = groundOf(models, ladder, step, controls);
    if (ground.terms.length === 0) throw new NothingToShareError({ step });
    const parents = ground.entering.map((term) =>
      term.components.length === 1 ? [] : ground.entering.flatMap((other, at) => (other !== term && isPart(other, term) ? [at] : [])),
    );
    const { shares, ...of } = importance(ground, parents, asked.seed);
    const fit = models.fits[step - 1]!;
    const zeroOrder = outcomeCorrelations(fit);
    const sd = standardDeviation(models.y);
    const sum = of.R2 - of.controlsR2;
    const terms = ground.entering.map((term, at): TermImportance => {
      const own = models.design.columns.filter((column) => termIdentity(column.term) === termIdentity(term));
      const k = own.length === 1 ? fit.columns.indexOf(own[0]!.name) : -1;
      const plain = term.components.length === 1;
      return {
        term,
        key: termName(term),
        share: shares[at]!,
        ofSum: sum > 0 ? shares[at]! / sum : null,
        zeroOrder: k < 0 ? null : zeroOrder[k]!,
        part: k < 0 ? null : fit.part[k]!,
        beta: k < 0 || !plain ? null : (fit.slopes[k]! * standardDeviation(own[0]!.values)) / sd,
      };
    });
    return { status: "told", sample, step, controls, of, terms };
  } catch (error) {
    return { status: "refused", sample, refusal: refusalOf(error) };
  }
}

/** True when all that a term is made of is in the other, and the other holds more. */
function isPart(part: Term, whole: Term): boolean {
  const left = [...whole.components];
  for (const one of part.components) {
    const at = left.indexOf(one);
    if (at < 0) return false;
    left.splice(at, 1);
  }
  return left.length > 0;
}

/** The columns of a step: those of the first steps as controls, the others by term. */
function groundOf({ design, spec, y }: LadderModels, ladder: Ladder, step: number, controls: number) {
  const active = ladder.steps.map(activeTerms);
  const columnsOf = (term: Term) => design.columns.filter((column) => termIdentity(column.term) === termIdentity(term));
  const first = active.slice(0, controls).flat();
  const entering = active.slice(controls, step).flat();
  const candidates: SearchTerm[] = entering.map((term) => ({ name: termName(term), columns: columnsOf(term) }));
  return { ...searchGround(first.flatMap(columnsOf), candidates, { name: spec.outcome, values: y }), entering };
}

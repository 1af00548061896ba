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

/** What enters as one: a term, or a step (from 1) with its name. */
export type Entering = { term: Term } | { step: number; name: string };

/** A term with its share, and what else is said of its importance. */
export interface TermImportance {
  entering: Entering;
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

export interface ImportanceQuestion {
  importance: Importance;
  ladder: Ladder;
}

/** @param fitted the ladder, where it is fitted already */
export function analyseImportance(question: ImportanceQuestion, desk: Desk, fitted?: FittedLadder): ImportanceResult {
  const prepared = prepareImportance(question, desk, fitted);
  if ("status" in prepared) return prepared;
  const { models, sample, step, controls, ground, entering, parents } = prepared;
  try {
    const { shares, ...of } = importance(ground, parents, question.importance.seed);
    const fit = models.fits[step - 1]!;
    const zeroOrder = outcomeCorrelations(fit);
    const sd = standardDeviation(models.y);
    const sum = of.R2 - of.controlsR2;
    const terms = entering.map((one, at): TermImportance => {
      const own = "term" in one ? columnsOf(models, one.term) : [];
      const k = own.length === 1 ? fit.columns.indexOf(own[0]!.name) : -1;
      const plain = "term" in one && one.term.components.length === 1;
      return {
        entering: one,
        key: keyOf(one),
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

const keyOf = (one: Entering) => ("term" in one ? termName(one.term) : `step ${one.step}`);
const columnsOf = ({ design }: LadderModels, term: Term) => design.columns.filter((column) => termIdentity(column.term) === termIdentity(term)); // prettier-ignore

/** The ground that shares and their resamples stand on; a refusal is returned. */
export function prepareImportance(
  { importance: asked, ladder }: ImportanceQuestion,
  { study, responses, columns }: Desk,
  fitted?: FittedLadder,
) {
  const found = fitted ?? fitLadderOf(study, ladder, responses, columns);
  if (found.status === "refused") return found;
  const { models, sample } = found;
  const step = Math.min(asked.step ?? ladder.steps.length, ladder.steps.length);
  const controls = Math.min(asked.controls, step - 1);
  try {
    const active = ladder.steps.map(activeTerms);
    const blocks = enteringOf(ladder, asked, controls, step);
    const candidates: SearchTerm[] = blocks.map(({ one, terms }) => ({ name: keyOf(one), columns: terms.flatMap((term) => columnsOf(models, term)) })); // prettier-ignore
    const first = active.slice(0, controls).flat();
    const ground = searchGround(first.flatMap((term) => columnsOf(models, term)), candidates, { name: models.spec.outcome, values: models.y }); // prettier-ignore
    if (ground.terms.length === 0) throw new NothingToShareError({ step });
    const parents = blocks.map(({ terms }, at) =>
      blocks.flatMap((other, k) =>
        (k < at || asked.together === "terms") && k !== at && other.terms.some((part) => terms.some((whole) => isPart(part, whole)))
          ? [k]
          : [],
      ),
    );
    return { models, sample, step, controls, ground, entering: blocks.map(({ one }) => one), parents };
  } catch (error) {
    return { status: "refused" as const, sample, refusal: refusalOf(error) };
  }
}

/** Terms one by one, or step by step those that hold any. */
function enteringOf(ladder: Ladder, { together }: Importance, controls: number, step: number): { one: Entering; terms: Term[] }[] {
  const steps = ladder.steps.slice(controls, step).map((one, k) => ({ step: controls + k + 1, name: one.name, terms: activeTerms(one) }));
  if (together === "terms") return steps.flatMap(({ terms }) => terms.map((term) => ({ one: { term }, terms: [term] })));
  return steps.filter(({ terms }) => terms.length > 0).map(({ step: at, name, terms }) => ({ one: { step: at, name }, terms })); // prettier-ignore
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

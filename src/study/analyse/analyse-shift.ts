import { pOfCorrelation } from "@/core/regression/suppression";
import type { Coefficient } from "@/core/regression/coefficients";
import { ladderTables, termsUpTo } from "@/core/regression/ladder";
import { takenOver } from "@/core/regression/taken-over";
import { columnKey, type Part, type Term, termIdentity, termName } from "@/core/regression/terms";
import { standardDeviation } from "@/core/describe/standard-deviation";
import type { Desk } from "../kinds/kind";
import type { Ladder } from "../model/ladder";
import type { Shift } from "../model/shift";
import type { AnalysisSample } from "../prepare/analysis-sample";
import { fitLadderOf } from "./analyse-ladder";
import { NothingNewError, NotInBothStepsError, type Refusal, refusalOf } from "./refusal";

/** A term that entered, and what it has to do with the change. */
export interface ShiftNewcomer {
  term: Term;
  key: string;
  /** What it takes from the coefficient (b before − b after), and the same in SDs; null where the coefficient has no β. */
  taken: number;
  takenBeta: number | null;
  /** Of the whole change; null where nothing changed. */
  share: number | null;
  /** b of the predictor when only this newcomer stays out. */
  without: number;
  /** Of a newcomer of one column: its correlation with the outcome with p, and its own β; null otherwise. */
  zeroOrder: number | null;
  pOfZeroOrder: number | null;
  beta: number | null;
  /** Of the whole term in the later step. */
  p: number | null;
}

/**
 * What the change looks like: shared with the newcomers, hidden before they were in (and by its kind; "unnamed" where none of them fits), turned, or no more than its
 * own uncertainty.
 */
export type ShiftPattern = "small" | "overlap" | "classical" | "reciprocal" | "negative" | "unnamed";

export type ShiftResult =
  | {
      status: "told";
      sample: AnalysisSample;
      /** The later step, from 2. */
      step: number;
      column: string;
      parts: ReadonlyMap<string, readonly Part[]>;
      before: Coefficient;
      after: Coefficient;
      newcomers: ShiftNewcomer[];
      pattern: ShiftPattern;
      /** Newcomers that take a third or more of it and count themselves: it may work through them, or both may come from something else. */
      through: string[];
      /** A product with the predictor is among them: its coefficient then means another thing. */
      conditional: boolean;
    }
  | { status: "refused"; sample: AnalysisSample | null; refusal: Refusal };

const NEAR_ZERO = 0.1;
const COUNTS = 0.05;
const THIRD = 1 / 3;

/** @param step the later one; a coefficient that is in it and in the one before */
export function analyseShift({ shift, ladder }: { shift: Shift; ladder: Ladder }, { study, responses, columns }: Desk): ShiftResult {
  const found = fitLadderOf(study, ladder, responses, columns);
  if (found.status === "refused") return found;
  const { models, sample } = found;
  const step = Math.min(shift.step ?? ladder.steps.length, ladder.steps.length);
  try {
    if (step < 2) throw new NothingNewError({ step });
    const tables = ladderTables(models);
    const [fitBefore, fitAfter] = [models.fits[step - 2]!, models.fits[step - 1]!];
    const column = columnKey(shift.column);
    const [before, after] = [tables.steps[step - 2]!, tables.steps[step - 1]!].map((one) =>
      one.coefficients.find((c) => c.column === column),
    );
    if (!before || !after) throw new NotInBothStepsError({ column: shift.column, step });
    const earlier = new Set(termsUpTo(models, step - 2).map(termIdentity));
    const terms = termsUpTo(models, step - 1).filter((term) => !earlier.has(termIdentity(term)));
    const columnsOf = (term: Term) => models.design.columns.filter((one) => termIdentity(one.term) === termIdentity(term));
    const entering = terms.filter((term) => columnsOf(term).some(({ name }) => fitAfter.columns.includes(name)));
    if (entering.length === 0) throw new NothingNewError({ step });
    const news = takenOver(fitBefore, fitAfter, column, entering.map((term) => columnsOf(term).map(({ name }) => name))); // prettier-ignore
    const change = before.b.estimate - after.b.estimate;
    const own = models.design.columns.find(({ name }) => name === column)!;
    const inSd = before.beta === null || shift.column.length > 1 ? null : standardDeviation(own.values) / standardDeviation(models.y);
    const told = tables.steps[step - 1]!;
    const newcomers = entering.map((term, k): ShiftNewcomer => {
      const [only, ...more] = told.coefficients.filter((c) => c.term === termName(term));
      const single = only && more.length === 0 ? only : null;
      const { taken, without } = news[k]!;
      return {
        term,
        key: termName(term),
        taken,
        takenBeta: inSd === null ? null : taken * inSd,
        share: change === 0 ? null : taken / change,
        without,
        zeroOrder: single?.zeroOrder ?? null,
        pOfZeroOrder: single?.zeroOrder == null ? null : pOfCorrelation(single.zeroOrder, told.model.n),
        beta: single?.beta?.estimate ?? null,
        p: single ? single.b.p : (told.terms.find((one) => one.term === termName(term))?.p ?? null),
      };
    });
    const pattern = patternOf(before, after, newcomers);
    const through =
      pattern === "overlap" ? newcomers.filter((n) => n.share! >= THIRD && n.p !== null && n.p < COUNTS).map((n) => n.key) : [];
    const variables = new Set(shift.column.map(({ variable }) => variable));
    const conditional = entering.some(({ components }) => components.length > 1 && components.some((name) => variables.has(name)));
    return { status: "told", sample, step, column, parts: tables.parts, before, after, newcomers, pattern, through, conditional };
  } catch (error) {
    return { status: "refused", sample, refusal: refusalOf(error) };
  }
}

/** Sources: Conger (1974), Educational and Psychological Measurement 34, 35–46; Tzelgov & Henik (1991), Psychological Bulletin 109, 524–536. */
function patternOf(before: Coefficient, after: Coefficient, newcomers: readonly ShiftNewcomer[]): ShiftPattern {
  const [was, is] = [before.b.estimate, after.b.estimate];
  if (before.b.se === null || Math.abs(was - is) <= before.b.se) return "small";
  const counts = (p: number | null) => p !== null && p < COUNTS;
  if (Math.sign(was) !== Math.sign(is) && counts(after.b.p)) return "negative";
  if (Math.abs(is) < Math.abs(was)) return "overlap";
  // who uncovered most of it
  const main = newcomers.reduce((a, b) => (Math.abs(b.taken) > Math.abs(a.taken) ? b : a));
  const { zeroOrder: r, beta } = main;
  if (r === null || beta === null) return "unnamed";
  if (Math.abs(r) < NEAR_ZERO && !counts(main.pOfZeroOrder)) return "classical";
  if (Math.sign(r) !== Math.sign(beta)) return "negative";
  const own = after.beta !== null && after.zeroOrder !== null && Math.abs(after.beta.estimate) > Math.abs(after.zeroOrder);
  return own && Math.abs(beta) > Math.abs(r) ? "reciprocal" : "unnamed";
}

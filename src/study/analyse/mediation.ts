import type { ProductPair } from "./predictor-looks";

/** A moderator that takes over part of the other's coefficient while the product adds nothing: perhaps it is a mediator. */
export interface Mediation {
  readonly term: string;
  /** The predictor, and what takes over from it. */
  readonly x: string;
  readonly m: string;
  /** Their correlation. */
  readonly r: number;
  /** b of the predictor before and after the other has entered. */
  readonly before: number;
  readonly after: number;
  /** p of the product. */
  readonly p: number;
}

/** r from which two predictors of a product go together enough to ask which comes from which. */
const TOGETHER = 0.3;
/** Share of its b that a predictor must lose to the other. */
const TAKEN_OVER = 1 / 3;

/**
 * @param stepOf step in which a variable enters, from 0; −1: none
 * @param bOf b of a column in a step; null where it has none
 * @param p of the product in the step that is looked at
 */
export function mediationOf(
  { term, names, r }: ProductPair,
  stepOf: (name: string) => number,
  bOf: (name: string, step: number) => number | null,
  p: number | null,
): Mediation | null {
  if (Math.abs(r) < TOGETHER || p === null || p < 0.05) return null;
  // the one that enters later, after the other has been seen without it
  const [x, m] = stepOf(names[0]) <= stepOf(names[1]) ? names : [names[1], names[0]];
  const [from, to] = [stepOf(x), stepOf(m)];
  if (from < 0 || from === to) return null;
  const [before, after] = [bOf(x, to - 1), bOf(x, to)];
  if (before === null || after === null || Math.abs(after) > (1 - TAKEN_OVER) * Math.abs(before)) return null;
  return { term, x, m, r, before, after, p };
}

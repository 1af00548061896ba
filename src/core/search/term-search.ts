import { fUpperTail } from "../distributions/f-distribution";
import { explainedBy } from "./explained";
import { adjusted, type Searchable } from "./search-ground";

/** By which terms move. */
export type TermRule = { by: "aic" } | { by: "p"; enter: number; leave: number };

/** The test of a whole term in the model that holds it. */
export interface TermTest {
  F: number;
  df1: number;
  df2: number;
  p: number;
}

/** What a move was chosen from: AIC after it, or the test, by term in the order given. */
export interface Considered {
  enter: Record<string, number | TermTest>;
  leave: Record<string, number | TermTest>;
}

export interface SearchedModel {
  /** Terms in the order given. */
  terms: string[];
  /** Columns besides the controls. */
  columns: number;
  R2: number;
  adjR2: number | null;
  AIC: number;
}

export interface Move extends SearchedModel, TermTest {
  action: "enters" | "leaves";
  term: string;
  considered: Considered;
}

export interface TermSearch {
  start: SearchedModel;
  moves: Move[];
  /** What was looked at when nothing moved any more. */
  last: Considered;
  /** Why it ended. */
  ended: "nothing-better" | "seen-before";
}

/** Limits that would let a term go in and out for ever. */
export class LimitsCrossError extends RangeError {
  readonly code = "limits-cross";
}

/** AIC falls by more than this, or it does not fall. */
const LEAST_GAIN = 1e-9;
/** More moves than any search makes. */
const MOST_MOVES = 1000;

/**
 * Forward or stepwise search of whole terms, the controls always in (docs/methods.md, “Searching”). Ties go to the order given.
 * @throws LimitsCrossError when 'to leave' lies below 'to enter'
 */
export function searchTerms(ground: Searchable, rule: TermRule, stepwise: boolean): TermSearch {
  if (rule.by === "p" && rule.leave < rule.enter) throw new LimitsCrossError("to leave lies below to enter");
  const all = ground.terms.map((_, at) => at);
  let held: number[] = [];
  const moves: Move[] = [];
  const seen = new Set([""]);
  const start = modelOf(ground, held);
  let last: Considered = { enter: {}, leave: {} };
  for (let round = 0; round < MOST_MOVES; round++) {
    const move = rule.by === "aic" ? byAic() : byP();
    if (move === "seen") return { start, moves, last, ended: "seen-before" };
    if (!move) break;
  }
  return { start, moves, last, ended: "nothing-better" };

  /** The best of all single entries, and removals where it goes both ways. */
  function byAic(): boolean {
    const now = modelOf(ground, held);
    const considered: Considered = { enter: {}, leave: {} };
    let best: { set: number[]; at: number; AIC: number; action: Move["action"] } | null = null;
    for (const at of all) {
      const inside = held.includes(at);
      if (inside && !stepwise) continue;
      const set = inside ? held.filter((one) => one !== at) : inOrder([...held, at]);
      if (!inside && !canEnter(set)) continue;
      const { AIC } = modelOf(ground, set);
      considered[inside ? "leave" : "enter"][ground.terms[at]!.name] = AIC;
      if (!best || AIC < best.AIC) best = { set, at, AIC, action: inside ? "leaves" : "enters" };
    }
    if (!best || !(now.AIC - best.AIC > LEAST_GAIN)) {
      last = considered;
      return false;
    }
    take(best.set, best.at, best.action, considered);
    return true;
  }

  /** The smallest p enters; before the next, the largest leave one by one. */
  function byP(): boolean | "seen" {
    const { enter, leave } = rule as Extract<TermRule, { by: "p" }>;
    const entering: Considered = { enter: {}, leave: {} };
    let best: { at: number; test: TermTest } | null = null;
    for (const at of all) {
      if (held.includes(at) || !canEnter(inOrder([...held, at]))) continue;
      const test = testOf(ground, inOrder([...held, at]), at);
      entering.enter[ground.terms[at]!.name] = test;
      if (!best || test.p < best.test.p) best = { at, test };
    }
    last = entering;
    if (!best || !(best.test.p < enter)) return false;
    take(inOrder([...held, best.at]), best.at, "enters", entering);
    if (!stepwise) return true;
    for (;;) {
      const leaving: Considered = { enter: {}, leave: {} };
      let worst: { at: number; test: TermTest } | null = null;
      for (const at of held) {
        const test = testOf(ground, held, at);
        leaving.leave[ground.terms[at]!.name] = test;
        if (!worst || test.p > worst.test.p) worst = { at, test };
      }
      if (!worst || !(worst.test.p > leave)) break;
      take(
        held.filter((one) => one !== worst.at),
        worst.at,
        "leaves",
        leaving,
      );
    }
    const key = held.join(" ");
    if (seen.has(key)) return "seen";
    seen.add(key);
    return true;
  }

  function take(set: number[], at: number, action: Move["action"], considered: Considered): void {
    const test = testOf(ground, action === "enters" ? set : held, at);
    held = set;
    moves.push({ action, term: ground.terms[at]!.name, ...test, ...modelOf(ground, set), considered });
  }

  function canEnter(set: number[]): boolean {
    const rank = explainedBy(ground, columnsOf(ground, set)).rank;
    const before = explainedBy(ground, columnsOf(ground, held)).rank;
    return rank > before && ground.n - 1 - ground.controls - rank >= 1;
  }
}

const inOrder = (set: number[]) => [...set].sort((a, b) => a - b);
const columnsOf = (ground: Searchable, set: readonly number[]) => set.flatMap((at) => ground.terms[at]!.columns);

/** A model by its terms: controls and these. */
function modelOf(ground: Searchable, set: readonly number[]): SearchedModel {
  const { share, rank } = explainedBy(ground, columnsOf(ground, set));
  const { n, controls, controlsR2, rest } = ground;
  const ss = rest * (1 - share);
  const k = controls + rank + 2;
  const R2 = controlsR2 + (1 - controlsR2) * share;
  return {
    terms: set.map((at) => ground.terms[at]!.name),
    columns: rank,
    R2,
    adjR2: adjusted(ground, R2, rank),
    AIC: n * (Math.log(2 * Math.PI) + Math.log(ss / n) + 1) + 2 * k,
  };
}

/** F of a term in the model that holds it. */
function testOf(ground: Searchable, set: readonly number[], at: number): TermTest {
  const full = explainedBy(ground, columnsOf(ground, set));
  const without = explainedBy(
    ground,
    columnsOf(
      ground,
      set.filter((one) => one !== at),
    ),
  );
  const df1 = full.rank - without.rank;
  const df2 = ground.n - 1 - ground.controls - full.rank;
  if (df1 === 0) return { F: 0, df1, df2, p: 1 };
  const F = (full.share - without.share) / df1 / ((1 - full.share) / df2);
  return { F, df1, df2, p: fUpperTail(F, df1, df2) };
}

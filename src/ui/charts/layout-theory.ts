import type { Claimed, TheoryPicture } from "@/study/report/theory/theory-picture";
import { wrapped } from "./wrapped";

/** How a verdict is stroked: told apart by its dash and the word at its end. */
export const STROKES: Readonly<Record<string, { width: number; dash: string }>> = {
  supported: { width: 3, dash: "" },
  "not supported": { width: 1.4, dash: "10 4 2 4" },
  "opposite direction": { width: 3, dash: "2 3" },
  "too uncertain to say": { width: 1.8, dash: "8 5" },
  "practically nothing": { width: 1.8, dash: "2 5" },
  "not testable yet": { width: 1, dash: "" },
};

const ROW = 46;
export const TOP = 40;
export const LEFT = 312;
export const EDGE = 594;
export const WIDTH = 800;
/** A line of what is claimed. */
export const LINE = 15;

/** Room that the words of a wedge take beside its line: the longest verdict. */
export const WEDGE_WORDS = 138;

/** Lines that the claims of a thread take at its end: one each, and one for where. */
export const linesOf = (claims: readonly Claimed[]) => claims.reduce((sum, { where }) => sum + (where === "" ? 1 : 2), 0);

/** Letters of a line beside a bracket, and of one of a predictor's name: the two stand side by side. */
const STEP_LETTERS = 20;
const NAME_LETTERS = 19;
/** A line of a predictor's name. */
export const NAME_LINE = 16;

/** A predictor's name as it stands before its thread. */
export const nameLines = (name: string) => wrapped(name, NAME_LETTERS, 3);

/** What is said beside a step's bracket, line by line: its name; what is claimed of it, and the verdict on that. */
export function stepLines({ name, claim }: TheoryPicture["steps"][number]): {
  name: string[];
  adds: string;
  verdict: string;
  apart: boolean;
} {
  const adds = claim ? `${claim.code} adds` : "";
  const verdict = claim?.verdict ?? "";
  return { name: wrapped(name, STEP_LETTERS, 2), adds, verdict, apart: adds.length + 1 + verdict.length > STEP_LETTERS };
}

/** From the first to the last thread of each step, in places from 0; steps without a thread are left out. */
export function brackets({ steps, threads }: TheoryPicture): { step: number; from: number; to: number }[] {
  return steps.flatMap((_, step) => {
    const own = threads.flatMap((thread, at) => (thread.step === step ? [at] : []));
    return own.length === 0 ? [] : [{ step, from: own[0]!, to: own.at(-1)! }];
  });
}

/** Middle and edges of every thread: as high as its name and what is claimed of it, and those of a step together as what is said of the step. */
export function rowsOf(picture: TheoryPicture): { top: number; middle: number; foot: number }[] {
  const heights = picture.threads.map(({ name, claims }) =>
    Math.max(ROW, linesOf(claims) * LINE + 16, nameLines(name).length * NAME_LINE + 14),
  );
  for (const { step, from, to } of brackets(picture)) {
    const { name, adds, apart } = stepLines(picture.steps[step]!);
    const words = (name.length + (adds === "" ? 0 : apart ? 2 : 1)) * LINE + 12;
    const room = heights.slice(from, to + 1).reduce((sum, height) => sum + height, 0);
    for (let k = from; k <= to; k++) heights[k]! += Math.max(0, words - room) / (to - from + 1);
  }
  let top = TOP;
  return heights.map((height) => {
    const row = { top, middle: top + height / 2, foot: top + height };
    top += height;
    return row;
  });
}

export const heightOf = (picture: TheoryPicture) => (rowsOf(picture).at(-1)?.foot ?? TOP + ROW) + 34;

/** Where wedges and ties stand along the threads, so that none stands on another. */
export function wedgePlaces(count: number): number[] {
  return Array.from({ length: count }, (_, k) => LEFT + 60 + ((EDGE - LEFT - 140) * (k + 0.5)) / Math.max(1, count));
}

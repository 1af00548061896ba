import type { Claimed, TheoryPicture } from "@/study/report/theory/theory-picture";

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
export const LEFT = 300;
export const EDGE = 590;
export const WIDTH = 800;
/** A line of what is claimed. */
export const LINE = 15;

/** Room that the words of a wedge take beside its line: the longest verdict. */
export const WEDGE_WORDS = 138;

/** Lines that the claims of a thread take at its end: one each, and one for where. */
export const linesOf = (claims: readonly Claimed[]) => claims.reduce((sum, { where }) => sum + (where === "" ? 1 : 2), 0);

/** Middle and edges of every thread: as high as what is claimed of it. */
export function rowsOf({ threads }: TheoryPicture): { top: number; middle: number; foot: number }[] {
  let top = TOP;
  return threads.map(({ claims }) => {
    const height = Math.max(ROW, linesOf(claims) * LINE + 16);
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

/** From the first to the last thread of each step, in places from 0; steps without a thread are left out. */
export function brackets({ steps, threads }: TheoryPicture): { step: number; from: number; to: number }[] {
  return steps.flatMap((_, step) => {
    const own = threads.flatMap((thread, at) => (thread.step === step ? [at] : []));
    return own.length === 0 ? [] : [{ step, from: own[0]!, to: own.at(-1)! }];
  });
}

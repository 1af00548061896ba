import { SYMBOL, type Words, words } from "./words";

/** Stars as journals set them. */
export const stars = (p: number | null) => (p === null ? "" : p < 0.001 ? "***" : p < 0.01 ? "**" : p < 0.05 ? "*" : "");

/** What they stand for, in a note. */
export const STARS: Words = words`*\u00a0${SYMBOL.p} < .05, **\u00a0${SYMBOL.p} < .01, ***\u00a0${SYMBOL.p} < .001.`;

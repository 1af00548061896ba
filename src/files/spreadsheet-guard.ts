/** A mark of ours in the description of a data package: formulas in its table are set off. */
export const GUARD = "formulas-set-off";

/** What a spreadsheet takes for the beginning of a formula, with the apostrophes that set it off. */
const FORMULA = /^'*[=+\-@\t\r]/;
const GUARDED = /^'+[=+\-@\t\r]/;

/**
 * A text set off with an apostrophe where a spreadsheet would carry it out as a formula. Numbers stay as they are. Every text comes back from `unguarded` as it was:
 * one that has apostrophes before such a sign already gets one more.
 */
export function guarded(text: string): string {
  return FORMULA.test(text) && !isNumber(text) ? `'${text}` : text;
}

/** A guarded text as it was. */
export function unguarded(text: string): string {
  return GUARDED.test(text) ? text.slice(1) : text;
}

function isNumber(text: string): boolean {
  return /^[+-]?(\d+([.,]\d*)?|[.,]\d+)([eE][+-]?\d+)?$/.test(text);
}

/** The mark before the fraction of a number. */
export type DecimalMark = "." | ",";

const NUMBER = /^[-+]?(?:\d+\.?\d*|\.\d+)(?:[eE][-+]?\d+)?$/;

/**
 * A cell as a number, or null when it is words. Kept as words, so that nothing is lost: a leading zero (a code, as
 * `007`), a whole number beyond 2⁵³ that double precision does not hold to the last digit (another code), a number too large for double precision.
 */
export function cellNumber(cell: string, decimal: DecimalMark): number | null {
  const plain = decimal === "," ? cell.replace(",", ".") : cell;
  if (!NUMBER.test(plain) || (decimal === "," && cell.includes("."))) return null;
  if (/^[-+]?0\d/.test(plain)) return null;
  const value = Number(plain);
  if (!Number.isFinite(value)) return null;
  if (/^[-+]?\d+$/.test(plain) && !Number.isSafeInteger(value) && BigInt(plain.replace("+", "")) !== BigInt(value)) return null;
  return value === 0 ? 0 : value;
}

/**
 * A value that a study names – a missing code, a level, the side of a recode table, a correction – as the number it means: read as the reader of that file
 * reads a cell, or as this program writes numbers, whatever mark the file has. Null: words, as `007` is.
 */
export function writtenNumber(written: string, decimal: DecimalMark): number | null {
  const text = written.trim();
  return cellNumber(text, decimal) ?? (decimal === "." ? null : cellNumber(text, "."));
}

/** What cells that such a value means may hold: its text and, where it is a number, that number. */
export function cellsMeant(written: string, decimal: DecimalMark): (string | number)[] {
  const number = writtenNumber(written, decimal);
  return number === null ? [written] : [written, number];
}

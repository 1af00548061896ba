const NUMBER = /^[-+]?(?:\d+\.?\d*|\.\d+)(?:[eE][-+]?\d+)?$/;

/**
 * A cell as a number, or null when it is words. Kept as words, so that nothing is lost: a leading zero (a code, as
 * `007`), a whole number beyond 2⁵³ (another code), a number too large for double precision.
 */
export function cellNumber(cell: string, decimal: "." | ","): number | null {
  const plain = decimal === "," ? cell.replace(",", ".") : cell;
  if (!NUMBER.test(plain) || (decimal === "," && cell.includes("."))) return null;
  if (/^[-+]?0\d/.test(plain)) return null;
  const value = Number(plain);
  if (!Number.isFinite(value)) return null;
  if (/^[-+]?\d+$/.test(plain) && !Number.isSafeInteger(value)) return null;
  return value === 0 ? 0 : value;
}

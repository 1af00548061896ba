/** A number as people write it: minus or hyphen, point or comma. Null when it is none. */
export function readNumber(typed: string): number | null {
  const text = typed.trim().replace("−", "-").replace(",", ".");
  const value = Number(text);
  return text === "" || !Number.isFinite(value) ? null : value;
}

/**
 * A term of a ladder: one variable, or a product of two or more (a square names its variable twice).
 * A category among the components makes a term of several columns.
 */
export interface Term {
  readonly components: readonly string[];
}

/** One of the things a column is made of: a numeric variable, or a level of a category. */
export interface Part {
  readonly variable: string;
  /** Null for a numeric variable. */
  readonly level: string | null;
}

/** A variable's name as keys hold it: in quotes where it could be taken for something else. */
function quoted(variable: string): string {
  return /[*[\]"]/.test(variable) || variable === "(Intercept)" ? JSON.stringify(variable) : variable;
}

/** The key of a component: `hours`, `ticket[day]`. Two different ones never share a key. */
export function partKey({ variable, level }: Part): string {
  if (level === null) return quoted(variable);
  return `${quoted(variable)}[${/[\]"]/.test(level) ? JSON.stringify(level) : level}]`;
}

/** The key of a column, its name in results: `hours*knowhow`. It is never taken apart again: what a column is made of goes with it as parts. */
export function columnKey(parts: readonly Part[]): string {
  return parts.map(partKey).join("*");
}

/** What a term is made of, whatever columns it has. */
export function termParts({ components }: Term): Part[] {
  return components.map((variable) => ({ variable, level: null }));
}

/** The key of a term, its name in results: `hours`, `hours*knowhow`. Order as written. */
export function termName(term: Term): string {
  return columnKey(termParts(term));
}

/** The same for both orders of writing: tells `a*b` and `b*a` to be one term. */
export function termIdentity(term: Term): string {
  return JSON.stringify([...term.components].sort());
}

/** What every term and every column is made of, by its key. */
export function partsByKey(
  terms: readonly Term[],
  columns: readonly { name: string; components: readonly Part[] }[],
): ReadonlyMap<string, readonly Part[]> {
  return new Map([
    ...terms.map((term) => [termName(term), termParts(term)] as const),
    ...columns.map((c) => [c.name, c.components.map(({ variable, level }): Part => ({ variable, level }))] as const),
  ]);
}

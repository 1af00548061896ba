/**
 * A term of a ladder: one variable, or a product of two or more (a square names its variable twice).
 * A category among the components makes a term of several columns.
 */
export interface Term {
  readonly components: readonly string[];
}

/** The stable name of a term's column in results: `hours`, `hours*knowhow`. Order as written. */
export function termName(term: Term): string {
  return term.components.join("*");
}

/** The same for both orders of writing: tells `a*b` and `b*a` to be one term. */
export function termIdentity(term: Term): string {
  return JSON.stringify([...term.components].sort());
}

import { type Term, termIdentity, termName } from "./terms";

/** A product stands in a step although a lower-order term it is built from does not stand there or earlier. */
export interface MarginalityFault {
  /** Step of the product, from 1. */
  step: number;
  product: string;
  missing: Term;
}

/**
 * Every lower-order term that a product lacks, step by step.
 * @param steps the terms each step adds, in order
 * Source: Nelder (1977), Journal of the Royal Statistical Society A 140(1), 48–77.
 */
export function marginalityFaults(steps: readonly (readonly Term[])[]): MarginalityFault[] {
  const faults: MarginalityFault[] = [];
  const present = new Set<string>();
  steps.forEach((terms, index) => {
    for (const term of terms) present.add(termIdentity(term));
    for (const term of terms) {
      for (const missing of lowerOrderTerms(term)) {
        if (!present.has(termIdentity(missing))) faults.push({ step: index + 1, product: termName(term), missing });
      }
    }
  });
  return faults;
}

/** All distinct non-empty proper subsets of a product's components, smallest first. */
export function lowerOrderTerms(term: Term): Term[] {
  const { components } = term;
  const found = new Map<string, Term>();
  for (let subset = 1; subset < 2 ** components.length - 1; subset++) {
    const lower = { components: components.filter((_, i) => subset & (1 << i)) };
    found.set(termIdentity(lower), lower);
  }
  return [...found.values()].sort((a, b) => a.components.length - b.components.length);
}

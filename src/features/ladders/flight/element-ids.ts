import { termIdentity } from "@/core/regression/terms";

/** The element of a chip, by which it is found again after it has moved. */
export function chipId(step: number, term: { components: readonly string[] }): string {
  return `chip ${step} ${termIdentity(term)}`;
}

/** The element of a step's heading. */
export const stepButtonId = (stepId: string) => `heading ${stepId}`;

import { fUpperTail } from "../distributions/f-distribution";
import type { DesignColumn } from "./design-matrix";
import type { Fit } from "./least-squares";
import { type Term, termName } from "./terms";
import { type JointTest, whitenedBlock } from "./wald-test";

/** What a whole term brings when it leaves the step last: the hypothesis that all its coefficients are 0. */
export interface TermTest extends JointTest {
  term: string;
  /** Drop in SSE when the term's columns leave, squared outcome units; null when it has no column. */
  ss: number | null;
  /** True when a product of the step contains it: the test then depends on coding and centring. */
  conditional: boolean;
}

/** The terms of a step in order, each with the positions of its kept columns in the fit's basis. */
export function termPositions(columns: readonly DesignColumn[], terms: readonly Term[], fit: Fit): { term: Term; positions: number[] }[] {
  const { kept } = fit.basis;
  return terms.map((term) => ({
    term,
    positions: kept.flatMap((k, at) => (k > 0 && columns[k - 1]!.term === term ? [at] : [])),
  }));
}

/**
 * The test of every term of a step (docs/methods.md, “Categories”). A term without a column of its own has none.
 * @param terms all terms up to this step
 */
export function termTests(columns: readonly DesignColumn[], terms: readonly Term[], fit: Fit): TermTest[] {
  return termPositions(columns, terms, fit).map(({ term, positions }) => {
    const m = positions.length;
    const df = [m, fit.dfResidual] as const;
    const shared = { term: termName(term), df, conditional: terms.some((other) => containsAsPart(other, term)) };
    if (m === 0) return { ...shared, ss: null, F: null, p: null, reason: "no-columns" };
    const scaled = whitenedBlock(fit, positions).u.reduce((sum, v) => sum + v * v, 0);
    const ss = scaled / fit.exact.scale / fit.exact.scale;
    if (fit.perfect) return { ...shared, ss, F: null, p: null, reason: "perfect-fit" };
    const F = scaled / m / (fit.exact.residual[0] / fit.dfResidual);
    return { ...shared, ss, F, p: fUpperTail(F, m, fit.dfResidual), reason: null };
  });
}

/** True when `product` is formed from all components of `part` and more. */
function containsAsPart(product: Term, part: Term): boolean {
  if (product.components.length <= part.components.length) return false;
  const left = [...product.components];
  return part.components.every((component) => {
    const at = left.indexOf(component);
    if (at < 0) return false;
    left.splice(at, 1);
    return true;
  });
}

import { isConstant } from "../describe/constant";
import { mean } from "../describe/mean";
import { standardDeviation } from "../describe/standard-deviation";
import { DuplicateTermError, UnknownVariableError } from "../errors";
import { type Term, termIdentity, termName } from "./terms";

/** How a numeric variable that is part of a product enters, in its own column as well as in the product. */
export type Centring = "mean" | "z" | "raw";

/** One column of the design, without the intercept. */
export interface DesignColumn {
  /** As termName gives it. */
  readonly name: string;
  readonly term: Term;
  readonly values: Float64Array;
}

/** What was taken from a variable, and what it was then divided by, before it entered. */
export interface Coding {
  readonly variable: string;
  readonly subtracted: number;
  readonly dividedBy: number;
}

export interface DesignMatrix {
  /** All columns, step after step. */
  readonly columns: readonly DesignColumn[];
  /** Number of columns after each step. */
  readonly widths: readonly number[];
  /** Variables that do not enter as they are. */
  readonly codings: readonly Coding[];
}

/**
 * The columns of a whole ladder from its terms (contract section 2): products of the components' columns,
 * numeric components of any product centred in their own column too, in every step; other predictors raw.
 * @param steps the terms each step adds
 * @param variables complete columns of the analysis sample, length n ≥ 2
 * @param everything true z-scores every variable, product component or not (the standardized metric of section 4)
 * @throws UnknownVariableError, DuplicateTermError, TooFewCasesError
 */
export function designMatrix(
  steps: readonly (readonly Term[])[],
  variables: ReadonlyMap<string, Float64Array>,
  centring: Centring,
  everything = false,
): DesignMatrix {
  const inProducts = new Set(steps.flat().flatMap((t) => (t.components.length > 1 ? t.components : [])));
  const coded = new Map<string, Float64Array>();
  const codings: Coding[] = [];
  const column = (variable: string): Float64Array => {
    const known = coded.get(variable);
    if (known) return known;
    const raw = variables.get(variable);
    if (!raw) throw new UnknownVariableError({ variable });
    let values = raw;
    if (everything || (inProducts.has(variable) && centring !== "raw")) {
      const subtracted = mean(raw);
      const dividedBy = (everything || centring === "z") && !isConstant(raw) ? standardDeviation(raw) : 1;
      values = raw.map((x) => (x - subtracted) / dividedBy);
      codings.push({ variable, subtracted, dividedBy });
    }
    coded.set(variable, values);
    return values;
  };

  const seen = new Set<string>();
  const columns: DesignColumn[] = [];
  const widths = steps.map((terms) => {
    for (const term of terms) {
      const identity = termIdentity(term);
      if (seen.has(identity)) throw new DuplicateTermError({ term: termName(term) });
      seen.add(identity);
      const [first, ...others] = term.components.map(column);
      const values = others.length === 0 ? first! : first!.map((x, i) => others.reduce((product, c) => product * c[i]!, x));
      columns.push({ name: termName(term), term, values });
    }
    return columns.length;
  });
  return { columns, widths, codings };
}

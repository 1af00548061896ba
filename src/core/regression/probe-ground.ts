import { mean } from "../describe/mean";
import { quantile } from "../describe/quantile";
import { standardDeviation } from "../describe/standard-deviation";
import type { CombinedFit, Covariance } from "./covariance";
import type { PlacedColumn, PlacedDesign } from "./design-point";
import type { LadderModels } from "./ladder";

/** How the values of a number lie, in the sample. */
export interface Spread {
  centre: number;
  sd: number;
  min: number;
  max: number;
  /** Quantiles of type 7. */
  p5: number;
  p16: number;
  p50: number;
  p84: number;
  p95: number;
}

/** A step as its predictors are probed: small, so that it crosses to the page, where a place is read off it as fast as it is moved. */
export interface ProbeGround {
  outcome: string;
  outcomeSd: number;
  n: number;
  confidence: number;
  fit: CombinedFit;
  of: Covariance;
  design: PlacedDesign & { readonly columns: readonly PlacedColumn[] };
  /** Of every number in the step. */
  spreads: ReadonlyMap<string, Spread>;
}

/** @param k step, from 0 @param of covariance of that step's coefficients */
export function probeGround(models: LadderModels, k: number, of: Covariance): ProbeGround {
  const { n, perfect, basis } = models.fits[k]!;
  const { width, kept, triangle, solution, dependent, design } = basis;
  const scaled = ({ centre, scale }: { centre: number; scale: number }) => ({ centre, scale });
  const columns = models.design.columns.slice(0, width).map(({ components }) => ({
    components: components.map(({ name, variable, level }) => ({ name, variable, level })),
  }));
  const variables = new Set(columns.flatMap(({ components }) => components.map((c) => c.variable)));
  const numbers = [...variables].flatMap((name) => {
    const values = models.variables.get(name);
    return values instanceof Float64Array ? [[name, spreadOf(values)] as const] : [];
  });
  return {
    outcome: models.spec.outcome,
    outcomeSd: standardDeviation(models.y),
    n,
    confidence: models.spec.confidence,
    fit: {
      n,
      perfect,
      basis: {
        width,
        kept,
        triangle,
        solution,
        dependent,
        design: { columns: design.columns.slice(0, width).map(scaled), outcome: scaled(design.outcome) },
      },
    },
    of,
    design: { columns, codings: models.design.codings, tables: models.design.tables },
    spreads: new Map(numbers),
  };
}

function spreadOf(values: Float64Array): Spread {
  const sorted = Float64Array.from(values).sort();
  const at = (share: number) => quantile(sorted, share);
  return {
    centre: mean(values),
    sd: standardDeviation(values),
    min: sorted[0]!,
    max: sorted[sorted.length - 1]!,
    ...{ p5: at(0.05), p16: at(0.16), p50: at(0.5), p84: at(0.84), p95: at(0.95) },
  };
}

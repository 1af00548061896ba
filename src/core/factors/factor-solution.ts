import { SingularCorrelationsError, TooManyFactorsError } from "../errors";
import { type SymmetricEigen, symmetricEigen } from "../linear-algebra/symmetric-eigen";
import { type ArrangedFactors, arrangeFactors } from "./arrange-factors";
import type { CorrelationMatrix } from "./correlation-matrix";
import { communalities, type Extraction, mostFactors } from "./extraction";
import { inverseCorrelations } from "./inverse-correlations";
import { LOWEST_UNIQUENESS, maximumLikelihood } from "./maximum-likelihood";
import { minimumResidual } from "./minimum-residual";
import { oblimin } from "./oblimin";
import { principalAxis } from "./principal-axis";
import { principalComponents } from "./principal-components";
import { promax } from "./promax";
import { multiply, type Rotation } from "./rotation";
import { varimax } from "./varimax";

export type ExtractionMethod = "principal-axis" | "maximum-likelihood" | "minimum-residual" | "principal-components";
export type RotationMethod = "varimax" | "promax" | "oblimin" | "none";

export interface FactorSpec {
  extraction: ExtractionMethod;
  rotation: RotationMethod;
  factors: number;
  /** From how many places maximum likelihood begins; fewer than usual where it is done thousands of times. */
  starts?: number;
}

/** Factors of some items, extracted and rotated. Matrices are row-major. */
export interface FactorSolution extends FactorSpec {
  items: number;
  /** As extracted, with signs and order set: k × m. */
  unrotated: ArrangedFactors;
  /** As rotated; the unrotated ones when nothing is turned. */
  rotated: ArrangedFactors;
  /** k × m: correlations of items with factors; the pattern itself while factors are orthogonal. */
  structure: Float64Array;
  /** Communalities before the extraction: squared multiple correlations; 1 for components. */
  communalityInitial: Float64Array;
  communalityExtracted: Float64Array;
  uniqueness: Float64Array;
  /** Where the initial communalities came from: largest |r| where the correlations have no inverse. */
  initialFrom: "multiple-correlations" | "largest-correlation" | "one";
  /** Items (places from 0) with a communality of 1 or more, or a uniqueness at its lower bound. */
  heywood: number[];
  rounds: number;
  /** False when extraction or rotation had not settled after all its rounds. */
  settled: boolean;
  /** Least value of the function that was minimized; null where none was. */
  minimum: number | null;
  /** Searches for it from different places, and those that settled at a higher value; null where none was minimized. */
  search: Extraction["search"];
}

/**
 * @param names of the items, for what is refused
 * @throws TooManyFactorsError; SingularCorrelationsError for maximum likelihood
 */
export function factorSolution(correlations: CorrelationMatrix, spec: FactorSpec, names: readonly string[]): FactorSolution {
  const { items: k } = correlations;
  const { factors: m, extraction: method } = spec;
  const most = method === "principal-components" ? k : mostFactors(k);
  if (m > most) throw new TooManyFactorsError({ factors: m, most, items: k });
  const initial = initialCommunalities(correlations, method, names);
  const drawn = extract(correlations, spec, initial.values, names);
  const { loadings } = drawn;
  const unrotated = arrangeFactors(loadings, null, k, m);
  const rotation = rotate(unrotated.pattern, k, m, spec.rotation);
  const rotated = rotation ? arrangeFactors(rotation.pattern, rotation.correlations, k, m) : unrotated;
  const explained = communalities(loadings, k, m);
  const atBound = (i: number) => method !== "principal-axis" && drawn.uniqueness[i]! <= LOWEST_UNIQUENESS * (1 + 1e-9);
  const heywood = Array.from({ length: k }, (_, i) => i).filter((i) => explained[i]! >= 1 || atBound(i));
  return {
    extraction: method,
    rotation: spec.rotation,
    factors: m,
    items: k,
    unrotated,
    rotated,
    structure: rotated.correlations ? multiply(rotated.pattern, rotated.correlations, k, m, m) : rotated.pattern,
    communalityInitial: initial.values,
    communalityExtracted: explained,
    uniqueness: drawn.uniqueness,
    initialFrom: initial.from,
    heywood: method === "principal-components" ? [] : heywood,
    rounds: drawn.rounds,
    settled: drawn.settled && (rotation?.settled ?? true),
    minimum: drawn.minimum,
    search: drawn.search,
  };
}

function extract(correlations: CorrelationMatrix, spec: FactorSpec, initial: Float64Array, names: readonly string[]): Extraction {
  switch (spec.extraction) {
    case "principal-components":
      return principalComponents(eigenOf(correlations), correlations.items, spec.factors);
    case "principal-axis":
      return principalAxis(correlations, initial, spec.factors);
    case "minimum-residual":
      return minimumResidual(correlations, initial, spec.factors);
    case "maximum-likelihood":
      return maximumLikelihood(correlations, inverseCorrelations(correlations, names, "Maximum likelihood"), spec.factors, spec.starts);
  }
}

function rotate(loadings: Float64Array, k: number, m: number, method: RotationMethod): Rotation | null {
  if (m < 2 || method === "none") return null;
  if (method === "varimax") return varimax(loadings, k, m);
  return method === "promax" ? promax(loadings, k, m) : oblimin(loadings, k, m);
}

function initialCommunalities(correlations: CorrelationMatrix, method: ExtractionMethod, names: readonly string[]) {
  const { r, items: k } = correlations;
  if (method === "principal-components") return { values: new Float64Array(k).fill(1), from: "one" as const };
  try {
    const { inverse } = inverseCorrelations(correlations, names, "A squared multiple correlation");
    return { values: Float64Array.from({ length: k }, (_, i) => 1 - 1 / inverse[i * k + i]!), from: "multiple-correlations" as const };
  } catch (error) {
    if (!(error instanceof SingularCorrelationsError)) throw error;
    const largest = (i: number) =>
      Array.from({ length: k }, (_, j) => (i === j ? 0 : Math.abs(r[i * k + j]!))).reduce((most, x) => Math.max(most, x), 0);
    return { values: Float64Array.from({ length: k }, (_, i) => Math.min(0.995, largest(i))), from: "largest-correlation" as const };
  }
}

/** m × m: how the factors of a solution would correlate if oblimin turned them; null with a single one. */
export function correlationsIfOblique({ unrotated, items: k, factors: m }: FactorSolution): Float64Array | null {
  const rotation = rotate(unrotated.pattern, k, m, "oblimin");
  return rotation && arrangeFactors(rotation.pattern, rotation.correlations, k, m).correlations;
}

/** Eigenvalues and vectors of the correlations as they are. */
export function eigenOf({ r, items }: CorrelationMatrix): SymmetricEigen {
  return symmetricEigen(r, items);
}

import type { FactorSolution } from "@/core/factors/factor-solution";
import { sharesOf } from "@/core/factors/variance-explained";
import type { Structure } from "../model/structure";
import type { StructureAnalysis, StructureResult } from "./analyse-structure";

/** One structure under the names of docs/results.md. */
export function structureResults(structure: Structure, result: StructureResult) {
  const { name, items, keying, respondents, extraction, rotation, factors, sets, seed } = structure;
  const settings = { items, keying, respondents, extraction, rotation, factors, sets, seed };
  if (result.status === "refused") return { name, settings, status: "refused" as const, refusal: result.refusal };
  const { analysis } = result;
  const k = analysis.items.length;
  const { adequacy, solution } = analysis;
  return {
    name,
    settings,
    status: "explored" as const,
    sample: {
      rows: analysis.rows,
      left_out: analysis.leftOut,
      complete: analysis.n,
      missing: Object.fromEntries(analysis.missing.map(({ item, count }) => [item, count])),
    },
    reversed: analysis.reversed,
    constant: analysis.constant,
    correlations: byItem(
      analysis,
      Array.from({ length: k }, (_, i) => byItem(analysis, analysis.correlations.subarray(i * k, i * k + k))),
    ),
    adequacy: {
      n: analysis.n,
      items: k,
      kmo: adequacy?.overall ?? null,
      msa: adequacy && byItem(analysis, adequacy.perItem),
      bartlett: analysis.sphericity,
      refusal: analysis.singular,
      eigenvalues: Array.from(analysis.eigenvalues),
      initial_percent: percent(analysis.eigenvalues, k),
    },
    parallel_analysis: {
      sets: analysis.parallel.sets,
      seed: analysis.parallel.seed,
      eigenvalue_95: Array.from(analysis.parallel.percentile),
      retained: analysis.parallel.retained,
    },
    solution: solution && solutionResults(analysis, solution),
    refusal: analysis.refusal,
    factor_correlations_if_oblique: analysis.ifOblique && rows(analysis.ifOblique, analysis.factors),
  };
}

function solutionResults(analysis: StructureAnalysis, solution: FactorSolution) {
  const { factors: m, items: k, rotated, unrotated } = solution;
  const loadings = (of: Float64Array) => byItem(analysis, rows(of, m));
  return {
    extraction: {
      factors: m,
      loadings: loadings(unrotated.pattern),
      communality_initial: byItem(analysis, solution.communalityInitial),
      communality_initial_from: solution.initialFrom,
      communality_extracted: byItem(analysis, solution.communalityExtracted),
      variance_extracted: Array.from(unrotated.variance),
      percent_extracted: percent(unrotated.variance, k),
      heywood: solution.heywood.map((i) => analysis.items[i]!),
      rounds: solution.rounds,
      settled: solution.settled,
      minimum: solution.minimum,
      starts: solution.search?.starts ?? null,
      starts_higher: solution.search?.higher ?? null,
    },
    rotation: {
      ...(rotated.correlations
        ? {
            pattern: loadings(rotated.pattern),
            structure: loadings(solution.structure),
            factor_correlations: rows(rotated.correlations, m),
          }
        : { loadings: loadings(rotated.pattern), percent_rotated: percent(rotated.variance, k) }),
      variance_rotated: Array.from(rotated.variance),
    },
  };
}

const percent = (variances: Float64Array, items: number) => sharesOf(variances, items).map((share) => share.percent);

function byItem<T>({ items }: StructureAnalysis, values: ArrayLike<T>): Record<string, T> {
  return Object.fromEntries(items.map((item, i) => [item, values[i]!]));
}

/** The rows of a row-major matrix with m columns. */
function rows(matrix: Float64Array, m: number): number[][] {
  return Array.from({ length: matrix.length / m }, (_, i) => Array.from(matrix.subarray(i * m, i * m + m)));
}

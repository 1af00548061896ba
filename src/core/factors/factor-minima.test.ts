import { readFileSync } from "node:fs";
import path from "node:path";
import type { CorrelationMatrix } from "./correlation-matrix";
import { type ExtractionMethod, factorSolution } from "./factor-solution";

interface Problem {
  extraction: ExtractionMethod;
  items: number;
  factors: number;
  true: number;
  /** Below the diagonal, row by row. */
  r: number[];
  minimum: number;
  heywood: boolean;
}
const PROBLEMS: Problem[] = JSON.parse(readFileSync(path.join(process.cwd(), "reference/factor-minima/minima.json"), "utf8"));

function correlationsOf({ items: k, r }: Problem): CorrelationMatrix {
  const whole = new Float64Array(k * k);
  for (let a = 0, at = 0; a < k; a++) {
    whole[a * k + a] = 1;
    for (let b = 0; b < a; b++) whole[a * k + b] = whole[b * k + a] = r[at++]!;
  }
  return { r: whole, items: k, n: 100 };
}

test.each(
  PROBLEMS.map((problem, i) => ({ name: `${i + 1}: ${problem.extraction}, ${problem.factors} for ${problem.true} factors`, problem })),
)("no general optimizer finds less from 40 starts ($name)", ({ problem }) => {
  const names = Array.from({ length: problem.items }, (_, i) => `q${i + 1}`);
  const solution = factorSolution(correlationsOf(problem), { ...problem, rotation: "none" }, names);
  expect(solution.settled).toBe(true);
  expect(solution.minimum! - problem.minimum).toBeLessThan(1e-7);
  expect(solution.heywood.length > 0).toBe(problem.heywood); // a case at the bound is told
});

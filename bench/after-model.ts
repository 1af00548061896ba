import { importance } from "@/core/comparison/importance";
import { seededFolds } from "@/core/comparison/cross-validation";
import { randomStream } from "@/core/random/random-stream";
import { lassoFolds } from "@/core/search/lasso-folds";
import { chosenPoint, termsOf, waysOn } from "@/core/search/methods";
import { searchFolds } from "@/core/search/search-folds";
import { searchGround } from "@/core/search/search-ground";
import { stability } from "@/core/search/stability";
import { foldProducts, wholeProducts } from "@/core/search/training-ground";
import { Residuals } from "@/study/model/residuals";
import { analyseResiduals } from "@/study/analyse/analyse-residuals";
import { cells, deskOf, ladderOf } from "@/study/test-support/desk";
import { inTurns } from "./in-turns";

/** What is asked after the model, on one thread: medians of rounds in turns. */
const ROUNDS = 5;
const stream = randomStream(1);
const normal = (n: number) => Float64Array.from({ length: n }, () => stream.normal());

function groundOf(n: number, q: number) {
  const columns = Array.from({ length: q }, () => normal(n));
  const y = Float64Array.from({ length: n }, (_, i) =>
    columns.slice(0, 8).reduce((sum, c, k) => sum + (c[i]! * (8 - k)) / 12, stream.normal()),
  );
  return searchGround([], columns.map((values, k) => ({ name: `x${k}`, columns: [{ name: `x${k}`, values }] })), { name: "y", values: y }); // prettier-ignore
}

const wide = groundOf(5000, 40);
const twelve = groundOf(5000, 12);
const folds = seededFolds(5000, 10, 1);
const limits = { enter: 0.05, leave: 0.1, epsilon: 0.01, steps: 10_000, method: "lasso" as const, at: "one-se" as const, size: null };
const N = 100_000;
const [a, b, e] = [normal(N), normal(N), normal(N)];
const desk = deskOf({ a: cells(N, (i) => a[i]!), b: cells(N, (i) => b[i]!), y: cells(N, (i) => a[i]! + 0.5 * b[i]! + e[i]!) });
const residuals = Residuals.parse({ id: "r", ladder: "l" });

const whole = wholeProducts(wide);
const TASKS: Record<string, () => unknown> = {
  "lasso, 10 folds, 40 predictors, n = 5,000": () => lassoFolds(wide, wide.r, whole, foldProducts(wide, folds)),
  "every method at every size, 10 folds, the same": () => searchFolds(wide, whole, foldProducts(wide, folds), folds, limits, 40),
  "10 resamples of the lasso with its folds, the same": () => {
    const chosen = termsOf(wide, chosenPoint(wide, "lasso", waysOn(wide, limits), { lambda: 0.05, size: null }).places);
    return stability(wide, folds, limits, { seed: 1, first: 0, count: 10 }, chosen);
  },
  "importance of 12 terms, n = 5,000": () =>
    importance(
      twelve,
      Array.from({ length: 12 }, () => []),
    ),
  "residual pictures, n = 100,000": () => analyseResiduals({ residuals, ladder: ladderOf(["a"], ["b"]) }, desk),
};
inTurns(TASKS, ROUNDS);

import { CoreError } from "../errors";
import { standardDeviation } from "../describe/standard-deviation";
import type { Estimate } from "../regression/coefficients";
import { covariance, type Covariance, type ErrorChoice, isEstimable, type NoCovariance } from "../regression/covariance";
import { type DesignColumn, type DesignMatrix, designMatrix, type Metric, type Predictor } from "../regression/design-matrix";
import { type LadderSpec, testedCoefficients } from "../regression/ladder";
import { type DroppedColumn, type Fit, leastSquares } from "../regression/least-squares";
import { prepareDesign } from "../regression/prepared-design";
import type { Term } from "../regression/terms";

/** A step, and who of its sample belongs to which group. */
export interface GroupedStep {
  /** All terms of the step stand in its one step. */
  readonly spec: LadderSpec;
  /** The whole analysis sample, outcome included, by name. */
  readonly variables: ReadonlyMap<string, Predictor>;
  /** Group of each case, from 0. */
  readonly labels: Int32Array;
  readonly groups: number;
  /** Columns of the whole sample: its means and SDs serve for centring in every group. */
  readonly design: DesignMatrix;
}

/** A coefficient in the three metrics. Null: the group does not hold what it would be told from. */
export interface GroupCoefficient {
  readonly column: string;
  readonly b: Estimate | null;
  /** By the means and SDs of the whole sample. */
  readonly beta: Estimate | null;
  /** By those of the group itself. */
  readonly betaOwn: Estimate | null;
}

/** The step in one group: its own coefficients and its own residual variance. */
export interface GroupFit {
  readonly cases: number;
  readonly fit: Fit;
  readonly errors: Covariance | NoCovariance;
  readonly intercept: Estimate;
  readonly coefficients: readonly GroupCoefficient[];
  /** What the group cannot tell: constant there, or a combination of others. */
  readonly dropped: readonly DroppedColumn[];
}

/** A group in which the step cannot be fitted, and why. */
export interface RefusedGroup {
  readonly cases: number;
  readonly error: CoreError;
}

/** @param terms of the step, one after the other */
export function groupedStep(
  spec: Omit<LadderSpec, "steps">,
  terms: readonly Term[],
  variables: ReadonlyMap<string, Predictor>,
  labels: Int32Array,
  groups: number,
): GroupedStep {
  const whole = { ...spec, steps: [terms] };
  return { spec: whole, variables, labels, groups, design: designMatrix([terms], variables, whole) };
}

/**
 * The step fitted in every group (docs/methods.md, “Groups”): columns are centred by the whole sample and products formed from them before the groups are
 * parted, so that a coefficient says the same in each.
 */
export function groupFits(step: GroupedStep): (GroupFit | RefusedGroup)[] {
  const { spec, variables, design, labels } = step;
  const y = variables.get(spec.outcome) as Float64Array;
  const metric: Metric = spec.standardizeIndicators ? "z-indicators" : "z";
  const z = designMatrix(spec.steps, variables, spec, metric);
  const sdY = standardDeviation(y);
  const zy = y.map((v) => v / sdY);
  return Array.from({ length: step.groups }, (_, group) => {
    const cases = casesOf(labels, group);
    try {
      const own = fitted(design, y, cases, spec);
      const common = fitted(z, zy, cases, spec);
      const within = withinGroup(step, cases, metric);
      const coefficients = design.columns.map(({ name }) => {
        const b = own.coefficient(name);
        return { column: name, b, beta: common.coefficient(name), betaOwn: b && within(name) };
      });
      const { fit, errors, intercept } = own;
      return { cases: cases.length, fit, errors, intercept, coefficients, dropped: fit.dropped };
    } catch (error) {
      if (!(error instanceof CoreError)) throw error; // a fault of ours passes on
      return { cases: cases.length, error };
    }
  });
}

/** Cases of a group, by their places in the sample. */
export function casesOf(labels: Int32Array, group: number): Int32Array {
  return Int32Array.from([...labels.keys()].filter((i) => labels[i] === group));
}

/** Variables of some cases. */
export function variablesOf(variables: ReadonlyMap<string, Predictor>, cases: Int32Array): Map<string, Predictor> {
  const on = (of: Predictor): Predictor =>
    "codes" in of ? { levels: of.levels, codes: cases.map((i) => of.codes[i]!) } : Float64Array.from(cases, (i) => of[i]!);
  return new Map([...variables].map(([name, of]) => [name, on(of)]));
}

/** The ladder's errors for some of its cases. */
export function errorsOf({ errors }: Pick<LadderSpec, "errors">, cases: Int32Array): ErrorChoice {
  if (errors?.kind === "cluster") return { kind: "cluster", codes: cases.map((i) => errors.codes[i]!) };
  return errors ?? { kind: "classical" };
}

function fitted(design: DesignMatrix, y: Float64Array, cases: Int32Array, spec: LadderSpec) {
  const columns = design.columns.map((c) => partOf(c, cases));
  const values = Float64Array.from(cases, (i) => y[i]!);
  const fit = leastSquares(prepareDesign(columns, { name: spec.outcome, values }), columns.length);
  const errors = covariance(fit, errorsOf(spec, cases));
  const { intercept, slopes } = testedCoefficients(fit, errors, spec.confidence);
  const coefficient = (column: string): Estimate | null => {
    const at = fit.columns.indexOf(column);
    return at >= 0 && isEstimable(fit, 0, columns.map(({ name }) => (name === column ? 1 : 0))) ? slopes[at]! : null; // prettier-ignore
  };
  return { fit, errors, intercept, coefficient };
}

function partOf({ name, values, low, noise }: DesignColumn, cases: Int32Array) {
  const take = (of: Float64Array) => Float64Array.from(cases, (i) => of[i]!);
  return { name, values: take(values), low: low && take(low), noise };
}

/** β by the group's own means and SDs. */
function withinGroup({ spec, variables, design }: GroupedStep, cases: Int32Array, metric: Metric): (column: string) => Estimate | null {
  const own = variablesOf(variables, cases);
  const y = own.get(spec.outcome) as Float64Array;
  const sd = standardDeviation(y);
  // the reference of the whole sample, so that a level's column says the same
  const categories = new Map(design.tables.map(({ variable, coding, reference }) => [variable, { coding, reference }]));
  const z = designMatrix(spec.steps, own, { ...spec, categories }, metric);
  const everyone = Int32Array.from(cases.keys());
  const errors = errorsOf(spec, cases);
  return fitted(z, y.map((v) => v / sd), everyone, { ...spec, errors }).coefficient; // prettier-ignore
}

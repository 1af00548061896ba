import { isConstant } from "../describe/constant";
import { exactMean } from "../describe/mean";
import { chiSquaredUpperTail } from "../distributions/chi-squared-distribution";
import { fUpperTail } from "../distributions/f-distribution";
import { CoreError } from "../errors";
import { applyTransposed, factorize } from "../linear-algebra/householder";
import { solveLower } from "../linear-algebra/cholesky";
import type { Covariance } from "../regression/covariance";
import type { DesignColumn } from "../regression/design-matrix";
import { type Fit, leastSquares } from "../regression/least-squares";
import { prepareDesign } from "../regression/prepared-design";
import { blockTriangle, whitenedBlock } from "../regression/wald-test";
import { casesOf, type GroupedStep, type GroupFit, type RefusedGroup } from "./grouped-step";

/** Are the coefficients of some columns alike in all groups? Null: not available, for the reason. */
export interface AlikeTest {
  readonly chi2: number | null;
  readonly df: number;
  readonly p: number | null;
  /** The groups that can tell, from 0. */
  readonly groups: readonly number[];
  readonly reason: "one-group" | "no-errors" | "perfect-fit" | "singular-covariance" | null;
}

/** An F test with what it explains. */
export interface CrossedTest {
  readonly F: number | null;
  readonly df: readonly [number, number];
  readonly p: number | null;
  /** R² of the single model that lets these slopes differ, minus that of the one that does not. */
  readonly dR2: number | null;
}

/** One common regression with free intercepts against separate ones. */
export interface PooledTest extends CrossedTest {
  readonly sseCommon: number;
  readonly sseSeparate: number;
}

const isFitted = (group: GroupFit | RefusedGroup): group is GroupFit => "fit" in group;

/**
 * Wald χ² that coefficients are alike over groups, each group with its own covariance: the squared distance of the groups' coefficients from the common ones that
 * fit them best, in the metric of their errors (docs/methods.md, “Groups”).
 * @param columns which; groups that cannot tell one of them take no part
 */
export function alikeTest(groups: readonly (GroupFit | RefusedGroup)[], columns: readonly string[]): AlikeTest {
  const able = ableGroups(groups, columns);
  const places = able.map(({ place }) => place);
  const df = (able.length - 1) * columns.length;
  const none = (reason: AlikeTest["reason"]): AlikeTest => ({ chi2: null, df: Math.max(0, df), p: null, groups: places, reason });
  if (able.length < 2 || columns.length === 0) return none("one-group");
  if (able.some(({ group }) => "reason" in group.errors)) return none("no-errors");
  if (able.some(({ group }) => group.fit.perfect)) return none("perfect-fit");
  const chi2 = distance(able.map(({ group }) => ({ fit: group.fit, of: group.errors as Covariance })), columns); // prettier-ignore
  return chi2 === null ? none("singular-covariance") : { chi2, df, p: chiSquaredUpperTail(chi2, df), groups: places, reason: null };
}

/** The same in the single model that holds every product with the group: one residual variance for all, so F. @param total SST of all cases */
export function crossedTest(groups: readonly (GroupFit | RefusedGroup)[], columns: readonly string[], total: number): CrossedTest {
  const fitted = groups.filter(isFitted);
  const able = ableGroups(groups, columns);
  const df2 = fitted.reduce((sum, { fit }) => sum + fit.dfResidual, 0);
  const df1 = Math.max(0, (able.length - 1) * columns.length);
  const sse = fitted.reduce((sum, { fit }) => sum + fit.ssResidual, 0);
  const none: CrossedTest = { F: null, df: [df1, df2], p: null, dR2: null };
  if (df1 === 0 || !(sse > 0)) return none;
  const variance = sse / df2;
  const chi2 = distance(
    able.map(({ group: { fit } }) => {
      const q = fit.basis.kept.length;
      const middle = new Float64Array(q * q);
      for (let k = 0; k < q; k++) middle[k * q + k] = variance * fit.exact.scale ** 2;
      return { fit, of: { kind: "classical" as const, df: df2, middle, clusters: null } };
    }),
    columns,
  );
  if (chi2 === null) return none;
  const F = chi2 / df1;
  return { F, df: [df1, df2], p: fUpperTail(F, df1, df2), dR2: (chi2 * variance) / total };
}

/** F that one regression serves all groups, intercepts free. Null: it cannot be fitted, as where nothing varies within the groups. */
export function pooledTest(step: GroupedStep, groups: readonly (GroupFit | RefusedGroup)[], total: number): PooledTest | null {
  const places = groups.flatMap((group, place) => (isFitted(group) ? [{ cases: casesOf(step.labels, place), group }] : []));
  const y = step.variables.get(step.spec.outcome) as Float64Array;
  const within = (values: Float64Array) => joined(places.map(({ cases }) => centred(Float64Array.from(cases, (i) => values[i]!))));
  const column = ({ name, values, noise }: DesignColumn) => ({ name, values: within(values), noise: noise + Number.EPSILON * sizeOf(values) }); // prettier-ignore
  let common: Fit;
  try {
    const columns = step.design.columns.map(column);
    common = leastSquares(prepareDesign(columns, { name: step.spec.outcome, values: within(y) }), columns.length);
  } catch (error) {
    if (error instanceof CoreError) return null;
    throw error;
  }
  const sseSeparate = places.reduce((sum, { group }) => sum + group.fit.ssResidual, 0);
  const columns = places.reduce((sum, { group }) => sum + group.fit.columns.length, 0);
  const df: readonly [number, number] = [columns - common.columns.length, places.reduce((sum, { group }) => sum + group.fit.dfResidual, 0)];
  const sseCommon = common.ssResidual;
  const explained = Math.max(0, sseCommon - sseSeparate);
  if (df[0] <= 0 || !(sseSeparate > 0)) return { F: null, df, p: null, dR2: explained / total, sseCommon, sseSeparate };
  const F = explained / df[0] / (sseSeparate / df[1]);
  return { F, df, p: fUpperTail(F, df[0], df[1]), dR2: explained / total, sseCommon, sseSeparate };
}

function ableGroups(groups: readonly (GroupFit | RefusedGroup)[], columns: readonly string[]) {
  const known = (group: GroupFit) => columns.every((name) => group.coefficients.some((c) => c.column === name && c.b !== null));
  return groups.flatMap((group, place) => (isFitted(group) && known(group) ? [{ group, place }] : []));
}

/** Null: a covariance is singular. */
function distance(groups: readonly { fit: Fit; of: Covariance }[], columns: readonly string[]): number | null {
  const m = columns.length;
  const rows = groups.length * m;
  const packed = new Float64Array(rows * m);
  const response = new Float64Array(rows);
  const sizes = unitsOf(groups.map(({ fit }) => fit), columns); // prettier-ignore
  for (const [g, { fit, of }] of groups.entries()) {
    const positions = columns.map((name) => fit.columns.indexOf(name) + 1);
    const block = whitenedBlock(fit, positions);
    const l = blockTriangle(block, of, fit.basis.kept.length);
    if (l === null) return null;
    response.set(solveLower(l, block.u, m), g * m);
    const { design, kept } = fit.basis;
    for (let k = 0; k < m; k++) {
      // what one unit of the column's slope is, in the units of the fit; divided by a size common to all groups
      const unit = design.outcome.scale / design.columns[kept[positions[k]!]! - 1]!.scale / sizes[k]!;
      const own = new Float64Array(m);
      own[k] = unit;
      packed.set(solveLower(l, block.whiten(own), m), k * rows + g * m);
    }
  }
  const f = factorize(packed, rows, m, new Float64Array(m));
  applyTransposed(f, m, response);
  const rank = f.pivot.filter((row) => row >= 0).length;
  return response.subarray(rank).reduce((sum, v) => sum + v * v, 0);
}

/** A size for each column's slope, so that columns in units of 1e-160 can be squared. */
function unitsOf(fits: readonly Fit[], columns: readonly string[]): number[] {
  return columns.map((name) =>
    Math.max(
      ...fits.map(({ basis: { design, kept }, columns: own }) => design.outcome.scale / design.columns[kept[own.indexOf(name) + 1]! - 1]!.scale), // prettier-ignore
    ),
  );
}

function centred(values: Float64Array): Float64Array {
  if (isConstant(values)) return values.fill(0);
  const [high, low] = exactMean(values);
  return values.map((v) => v - high - low);
}

const sizeOf = (values: Float64Array) => values.reduce((largest, v) => Math.max(largest, Math.abs(v)), 0);

function joined(parts: readonly Float64Array[]): Float64Array {
  const all = new Float64Array(parts.reduce((sum, part) => sum + part.length, 0));
  let at = 0;
  for (const part of parts) {
    all.set(part, at);
    at += part.length;
  }
  return all;
}

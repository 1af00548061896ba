import { agreeingDigits, completeColumns, referenceSet, relativeError } from "../test-support/reference-set";
import { fitLadder, type LadderFit } from "./ladder";

/** Fits a reference set's ladder, or the one a block names, as the set says. */
function fitSet(name: string, block?: string): { fit: LadderFit; expected: ReturnType<typeof referenceSet>["expected"] } {
  const set = referenceSet("regression", name);
  const own = block ? set.expected[block]!.spec : undefined;
  const steps = (own?.steps ?? set.spec.steps).map((names) => names.map((n) => ({ components: n.split("*") })));
  const names = [...new Set([set.spec.outcome, ...steps.flat().flatMap((t) => t.components)])];
  const variables = completeColumns(set, names, own?.filter ?? set.spec.filter);
  const fit = fitLadder({ outcome: set.spec.outcome, steps, centring: "mean", confidence: 0.95 }, variables);
  return { fit, expected: set.expected };
}

/** Every value of a step that the references know and this fit computes, as pairs [path, got, expected]. */
function pairsOfStep(step: LadderFit["steps"][number], want: any): [string, number | null, number | null][] {
  const { model, change } = step;
  const pairs: [string, number | null, number | null][] = [];
  const names: Record<string, number | null> = {
    n: model.n,
    p: model.p,
    df: model.dfResidual,
    R2: model.R2,
    adjR2: model.adjustedR2,
    R: model.R,
    F: model.F,
    df1: model.df[0],
    df2: model.df[1],
    pF: model.pF,
    s: model.residualSd,
    rmse: model.rmse,
    ss_regression: model.ssRegression,
    ss_residual: model.ssResidual,
    ss_total: model.ssTotal,
    ms_regression: model.msRegression,
    ms_residual: model.msResidual,
    logLik: model.logLikelihood,
    k: model.k,
    AIC: model.AIC,
    AICc: model.AICc,
    BIC: model.BIC,
  };
  for (const [key, value] of Object.entries<number>(want.model)) pairs.push([`model.${key}`, names[key]!, value]);
  for (const [column, values] of Object.entries<any>(want.coef)) {
    const got = column === "(Intercept)" ? step.intercept : step.coefficients.find((c) => c.column === column)!.b;
    pairs.push(
      [`${column}.b`, got.estimate, values.b],
      [`${column}.se`, got.se, values.se],
      [`${column}.t`, got.t, values.t],
      [`${column}.p`, got.p, values.p],
      [`${column}.lower`, got.lower, values.lower],
      [`${column}.upper`, got.upper, values.upper],
    );
  }
  for (const [column, values] of Object.entries<any>(want.correlations ?? {})) {
    const got = step.coefficients.find((c) => c.column === column)!;
    pairs.push(
      [`${column}.r`, got.zeroOrder, values.r],
      [`${column}.part`, got.part, values.part],
      [`${column}.sr2`, got.part ** 2, values.sr2],
      [`${column}.partial`, got.partial, values.partial],
    );
  }
  for (const [column, values] of Object.entries<any>(want.collinearity?.columns ?? {})) {
    const got = step.coefficients.find((c) => c.column === column)!;
    pairs.push([`${column}.tolerance`, got.tolerance, values.tolerance], [`${column}.vif`, got.vif, values.vif]);
  }
  if (want.change) {
    pairs.push(
      ["change.dR2", change.change, want.change.dR2],
      ["change.df1", change.df[0], want.change.df1],
      ["change.df2", change.df[1], want.change.df2],
      ["change.F", change.F, want.change.F],
      ["change.p", change.p, want.change.p],
      ["change.f2", change.f2, want.change.f2],
    );
  }
  return pairs;
}

function worst(pairs: [string, number | null, number | null][]): { path: string; error: number } {
  let found = { path: "none", error: 0 };
  for (const [path, got, expected] of pairs) {
    if (got === null || expected === null) {
      if (got !== expected) return { path: `${path}: ${got} instead of ${expected}`, error: Infinity };
      continue;
    }
    const p = path.endsWith(".p") || path.endsWith("pF");
    const error = p ? Math.abs(got / expected - 1) / 10 : relativeError(got, expected); // p may be off by 1e-8, however small
    if (!(error <= found.error)) found = { path, error };
  }
  return found;
}

describe("every step of a ladder against independently computed values (relative 1e-9)", () => {
  test.each(["garden_ladder", "library_five_steps", "suppression_classical", "suppression_negative", "suppression_reciprocal"])(
    "%s",
    (name) => {
      const { fit, expected } = fitSet(name);
      const steps = expected.steps!.values;
      expect(fit.steps).toHaveLength(Object.keys(steps).length);
      fit.steps.forEach((step, k) => {
        const found = worst(pairsOfStep(step, steps[k + 1]));
        expect(found.error < 1e-9 ? "within" : found).toBe("within");
      });
    },
  );

  test("garden_ladder: standardized coefficients with a product of z-scores", () => {
    const { fit, expected } = fitSet("garden_ladder");
    const pairs = fit.steps.flatMap((step, k) =>
      step.coefficients.flatMap((c): [string, number | null, number][] => {
        const want = expected.standardized!.values[k + 1][c.column];
        return [
          [`${k}.${c.column}.beta`, c.beta.estimate, want.beta],
          [`${k}.${c.column}.se`, c.beta.se, want.se],
          [`${k}.${c.column}.t`, c.beta.t, want.t],
          [`${k}.${c.column}.p`, c.beta.p, want.p],
          [`${k}.${c.column}.lower`, c.beta.lower, want.lower],
          [`${k}.${c.column}.upper`, c.beta.upper, want.upper],
        ];
      }),
    );
    expect(pairs).toHaveLength(11 * 6);
    expect(worst(pairs).error).toBeLessThan(1e-9);
  });

  test.each(["raw", "z"] as const)("garden_ladder with components entered %s", (centring) => {
    const set = referenceSet("regression", "garden_ladder");
    const variables = completeColumns(set, ["belonging", "age", "distance_km", "hours", "knowhow"]);
    const steps = set.spec.steps.map((names) => names.map((n) => ({ components: n.split("*") })));
    const fit = fitLadder({ outcome: "belonging", steps, centring, confidence: 0.95 }, variables);
    const want = set.expected.other_centring!.values[centring];
    expect(worst(pairsOfStep(fit.steps[2]!, { model: {}, coef: want.coef })).error).toBeLessThan(1e-9);
  });

  test.each(["rank_deficient", "rank_deficient_first", "constant_column", "near_collinear"])("awkward_designs: %s", (block) => {
    const { fit, expected } = fitSet("awkward_designs", block);
    const want = expected[block]!;
    const last = fit.steps.at(-1)!;
    const found = worst(pairsOfStep(last, want.values));
    expect(found.error < want.tolerance.value ? "within" : found).toBe("within");
    const dropped = last.notes.flatMap((note) => (note.code === "dropped" ? [note.column] : []));
    expect(dropped.map((d) => ({ column: d.column, reason: d.reason, combination_of: d.combinationOf }))).toEqual(
      want.values.dropped ?? [],
    );
  });
});

describe("numerical accuracy in significant digits", () => {
  test.each([
    ["longley", 13, 13],
    ["wampler1", 13, null],
    ["wampler2", 13, null],
    ["wampler3", 13, 13],
    ["wampler4", 13, 13],
    ["wampler5", 13, 13],
    ["poly10_buoy", 13, 11],
  ] as const)("%s: b to %d digits", (name, digitsOfB, digitsOfError) => {
    const { fit, expected } = fitSet(name);
    const step = fit.steps[0]!;
    expect(step.notes.filter((n) => n.code === "dropped")).toEqual([]); // the design has full rank
    const got = new Map([["(Intercept)", step.intercept], ...step.coefficients.map((c) => [c.column, c.b] as const)]);
    for (const [column, want] of Object.entries<any>(expected.coefficients!.values)) {
      expect(agreeingDigits(got.get(column)!.estimate, want.b)).toBeGreaterThanOrEqual(digitsOfB);
    }
    if (digitsOfError === null) {
      expect(step.notes).toContainEqual({ code: "perfect-fit" });
      expect([step.model.residualSd, step.model.R2, step.model.F]).toEqual([0, 1, null]);
      for (const one of got.values()) expect([one.se, one.t]).toEqual([0, null]);
      return;
    }
    const errors = expected.errors!.values;
    for (const [column, se] of Object.entries<number>(errors.se)) {
      expect(agreeingDigits(got.get(column)!.se, se)).toBeGreaterThanOrEqual(digitsOfError);
      expect(agreeingDigits(got.get(column)!.t!, expected.t_values!.values.t[column])).toBeGreaterThanOrEqual(digitsOfError - 1);
    }
    for (const [key, value] of [
      ["R2", step.model.R2],
      ["s", step.model.residualSd],
      ["F", step.model.F!],
      ["ss_residual", step.model.ssResidual],
      ["ss_regression", step.model.ssRegression],
    ] as const) {
      expect(agreeingDigits(value, errors[key])).toBeGreaterThanOrEqual(digitsOfError);
    }
  });
});

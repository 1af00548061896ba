import { agreeingDigits, completeColumns, referenceSet } from "../test-support/reference-set";
import { fitLadder, type LadderFit } from "./ladder";

/** Fits a reference set's ladder. All other reference values: src/study/analyse/reference-values.test.ts. */
function fitSet(name: string): { fit: LadderFit; expected: ReturnType<typeof referenceSet>["expected"] } {
  const set = referenceSet(name);
  const steps = set.spec.steps.map((names) => names.map((n) => ({ components: n.split("*") })));
  const names = [...new Set([set.spec.outcome, ...steps.flat().flatMap((t) => t.components)])];
  const fit = fitLadder({ outcome: set.spec.outcome, steps, centring: "mean", confidence: 0.95 }, completeColumns(set, names));
  return { fit, expected: set.expected };
}

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
      expect(agreeingDigits(got.get(column)!.se!, se)).toBeGreaterThanOrEqual(digitsOfError);
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

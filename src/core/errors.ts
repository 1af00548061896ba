/**
 * What cannot be computed, as data: in the core, and in the study's own steps before it. `code` is for programs, `details` for the screen (the remedy is worded in
 * src/study/report/refusals.ts), the message for people reading a terminal. A message never holds an answer.
 */
export abstract class CoreError extends Error {
  abstract readonly code: string;
  abstract readonly details: Record<string, unknown>;
}

/** Fewer cases than the computation needs. */
export class TooFewCasesError extends CoreError {
  readonly code = "too-few-cases";
  constructor(readonly details: { cases: number; needed: number; purpose: string }) {
    super(`${details.purpose} needs at least ${details.needed} cases; there are ${details.cases}.`);
  }
}

/** More cases than the computation is made for. */
export class TooManyCasesError extends CoreError {
  readonly code = "too-many-cases";
  constructor(readonly details: { cases: number; most: number; purpose: string }) {
    super(`${details.purpose} is made for at most ${details.most} cases; there are ${details.cases}.`);
  }
}

/** An outcome that does not vary cannot be predicted. */
export class ConstantOutcomeError extends CoreError {
  readonly code = "constant-outcome";
  constructor(readonly details: { outcome: string; cases: number }) {
    super(`The outcome "${details.outcome}" has the same value in all ${details.cases} cases.`);
  }
}

/** A value that is not a finite number reached the core; `row` counts from 1 within the analysis sample. */
export class NonFiniteValueError extends CoreError {
  readonly code = "non-finite-value";
  constructor(readonly details: { column: string; row: number }) {
    super(`"${details.column}" holds a value that is not a finite number at row ${details.row} of the sample.`);
  }
}

/** The same term stands twice in one ladder. */
export class DuplicateTermError extends CoreError {
  readonly code = "duplicate-term";
  constructor(readonly details: { term: string; components: string[] }) {
    super(`The term "${details.term}" is in the ladder more than once.`);
  }
}

/** A term names a variable that was not handed over. */
export class UnknownVariableError extends CoreError {
  readonly code = "unknown-variable";
  constructor(readonly details: { variable: string }) {
    super(`There is no variable "${details.variable}".`);
  }
}

/** A reference level was chosen that the category does not have. */
export class UnknownLevelError extends CoreError {
  readonly code = "unknown-level";
  constructor(readonly details: { variable: string; level: string }) {
    super(`"${details.variable}" has no level "${details.level}".`);
  }
}

/** A calculation met a size that double precision cannot hold. */
export class OutOfRangeError extends CoreError {
  readonly code = "out-of-range";
  constructor(readonly details: { column: string }) {
    super(`The numbers of "${details.column}" are too large or too small to be computed with.`);
  }
}

/** Models are compared only when they predict the same answers of the same cases. */
export class UnlikeModelsError extends CoreError {
  readonly code = "unlike-models";
  constructor(
    readonly details: { first: string; second: string; differ: "outcome" | "sample"; values: readonly [string | number, string | number] },
  ) {
    super(`"${details.first}" and "${details.second}" differ in their ${details.differ}, so they are not compared.`);
  }
}

/** Items that everybody answered alike correlate with nothing. */
export class ConstantItemsError extends CoreError {
  readonly code = "constant-items";
  constructor(readonly details: { items: string[] }) {
    super(`The same answer from everyone: ${details.items.join(", ")}.`);
  }
}

/** Some item is a combination of others, so their correlations have no inverse. */
export class SingularCorrelationsError extends CoreError {
  readonly code = "singular-correlations";
  /** `item`: the first that the ones before it determine. `fewCases`: there are no more cases than items, so that it could not be otherwise. */
  constructor(readonly details: { purpose: string; item: string; fewCases: boolean }) {
    super(`${details.purpose} needs correlations with an inverse; "${details.item}" is determined by the items before it.`);
  }
}

/** More factors were asked for than the items can tell apart. */
export class TooManyFactorsError extends CoreError {
  readonly code = "too-many-factors";
  constructor(readonly details: { factors: number; most: number; items: number }) {
    super(`${details.items} items cannot tell ${details.factors} factors apart; at most ${details.most}.`);
  }
}

/** Bartlett's scores divide by uniquenesses, which here are 0 or less. */
export class NoUniquenessError extends CoreError {
  readonly code = "no-uniqueness";
  constructor(readonly details: { items: string[] }) {
    super(`Nothing of ${details.items.join(", ")} is left unexplained, so Bartlett's scores do not exist.`);
  }
}

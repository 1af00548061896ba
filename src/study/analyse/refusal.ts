import { CoreError } from "@/core/errors";
import type * as core from "@/core/errors";
import type { NotClosedError } from "@/core/resampling/figures/ladder-on-tape";
import type { SingularResamplesError } from "@/core/resampling/resampler";
import type { NoCovariance } from "@/core/regression/covariance";
import type { FormulaFaultError } from "../model/formula";
import type { NothingToStandardizeError } from "../prepare/derive/derive";
import type { UnfinishedLadderError } from "../prepare/ladder-models";
import type { UndeclaredRangeError } from "../prepare/score-scale";
import type { CircleError, MissingColumnError } from "../prepare/study-columns";

/** Fewer items than this have no structure worth the name. */
export class TooFewItemsError extends CoreError {
  readonly code = "too-few-items";
  constructor(readonly details: { items: number; needed: number; constant: string[] }) {
    super(`A structure needs ${details.needed} items that vary; there are ${details.items}.`);
  }
}

/** The step has no product of what is to be probed. */
export class NothingToProbeError extends CoreError {
  readonly code = "nothing-to-probe";
  constructor(readonly details: { focal: string; moderators: string[]; step: number }) {
    super(`Step ${details.step} has no product of "${details.focal}" with what it is probed by.`);
  }
}

/** The step has no terms besides the controls. */
export class NothingToShareError extends CoreError {
  readonly code = "nothing-to-share";
  constructor(readonly details: { step: number }) {
    super(`Step ${details.step} has no terms besides the controls.`);
  }
}

/** There is no step before it, or it brings nothing. */
export class NothingNewError extends CoreError {
  readonly code = "nothing-new";
  constructor(readonly details: { step: number }) {
    super(`Step ${details.step} brings no term that the one before has not.`);
  }
}

/** A coefficient that one of the two steps does not have. */
export class NotInBothStepsError extends CoreError {
  readonly code = "not-in-both-steps";
  constructor(readonly details: { column: readonly { variable: string; level: string | null }[]; step: number }) {
    super(`Steps ${details.step - 1} and ${details.step} do not both have this coefficient.`);
  }
}

/** A coefficient that the step does not have. */
export class NotInStepError extends CoreError {
  readonly code = "not-in-step";
  constructor(readonly details: { column: readonly { variable: string; level: string | null }[]; step: number }) {
    super(`Step ${details.step} does not have this coefficient.`);
  }
}

/** Nothing but rounding is left of the outcome: there are no residuals to look at. */
export class PerfectFitError extends CoreError {
  readonly code = "perfect-fit";
  constructor(readonly details: { step: number }) {
    super(`Step ${details.step} fits perfectly.`);
  }
}

/** The step has no standard errors of the chosen kind. */
export class NoErrorsError extends CoreError {
  readonly code = "no-errors";
  constructor(readonly details: { why: NoCovariance["reason"] }) {
    super(`The standard errors of the step are not available: ${details.why}.`);
  }
}

/** Places of a step cannot be told from replicates when a column of it was dropped. */
export class NoReplicatesError extends CoreError {
  readonly code = "no-replicates";
  constructor(readonly details: { columns: string[] }) {
    super(`The step holds columns that are combinations of others: ${details.columns.join(", ")}.`);
  }
}

/** Within a group nothing of the step is left: all its terms hold the grouping variable. */
export class NothingWithinGroupsError extends CoreError {
  readonly code = "nothing-within-groups";
  constructor(readonly details: { variable: string; step: number }) {
    super(`Every term of step ${details.step} holds "${details.variable}", which does not vary within a group.`);
  }
}

/** There are not two groups to compare. */
export class OneGroupError extends CoreError {
  readonly code = "one-group";
  constructor(readonly details: { variable: string; groups: number }) {
    super(`"${details.variable}" has ${details.groups} group in the sample.`);
  }
}

/** More groups than can stand beside each other. */
export class TooManyGroupsError extends CoreError {
  readonly code = "too-many-groups";
  constructor(readonly details: { variable: string; groups: number; most: number }) {
    super(`"${details.variable}" has ${details.groups} groups; at most ${details.most} are compared.`);
  }
}

/** A category with more levels than can be columns of a table. */
export class TooManyLevelsError extends CoreError {
  readonly code = "too-many-levels";
  constructor(readonly details: { variable: string; levels: number; most: number }) {
    super(`"${details.variable}" has ${details.levels} levels; at most ${details.most} are told as columns.`);
  }
}

type CoreErrors = Exclude<{ [K in keyof typeof core]: InstanceType<(typeof core)[K]> }[keyof typeof core], { readonly code: never }>;
type Refusing =
  | CoreErrors
  | SingularResamplesError
  | NotClosedError
  | FormulaFaultError
  | NothingToStandardizeError
  | UnfinishedLadderError
  | UndeclaredRangeError
  | CircleError
  | MissingColumnError
  | NothingToProbeError
  | NothingToShareError
  | NothingNewError
  | NotInBothStepsError
  | NotInStepError
  | PerfectFitError
  | NoErrorsError
  | NoReplicatesError
  | NothingWithinGroupsError
  | OneGroupError
  | TooManyGroupsError
  | TooManyLevelsError
  | TooFewItemsError;
type AsData<E> = E extends { readonly code: infer C extends string; readonly details: infer D }
  ? string extends C
    ? never
    : { code: C; details: D }
  : never;

/** Why something could not be computed, as data that crosses worker borders; worded in src/study/report/refusals.ts. */
export type Refusal = AsData<Refusing> | { code: "model-refused"; details: { model: string; refusal: Refusal } };

/** What something gives, or why it cannot be had. A fault of ours passes on. */
export function unlessRefused<T>(work: () => T): T | { refusal: Refusal } {
  try {
    return work();
  } catch (error) {
    return { refusal: refusalOf(error) };
  }
}

/** Turns the typed errors of the core and the study into data. Anything else is a fault of ours and passes on. */
export function refusalOf(error: unknown): Refusal {
  if (error instanceof CoreError) return { code: error.code, details: error.details } as Refusal;
  throw error;
}

import { z } from "zod";
import { Correction } from "./correction";
import { DerivedVariable } from "./derived";
import type { Hypothesis } from "./hypothesis";
import type { Ladder } from "./ladder";
import type { Power } from "./power";
import { Reading } from "./reading";
import { RespondentFilter } from "./respondent-filter";
import { Scale } from "./scale";
import type { Theory } from "./theory";
import { Variable } from "./variable";

/** What columns of a study are worked out from: the rest of it decides which columns are asked for. */
export const StudyContext = z.strictObject({
  codebook: z.array(Variable),
  scales: z.array(Scale),
  corrections: z.array(Correction).default([]),
  readings: z.array(Reading).default([]),
  derived: z.array(DerivedVariable).default([]),
  filters: z.array(RespondentFilter).default([]),
});
type Whole = z.infer<typeof StudyContext>;
export type StudyContext = Pick<Whole, "codebook" | "scales"> & Partial<Pick<Whole, "corrections" | "readings" | "derived" | "filters">>;

/** The lists of a study that the definitions of its objects may look at. */
export type StudyParts = Readonly<Whole> & {
  readonly ladders: readonly Ladder[];
  readonly hypotheses: readonly Hypothesis[];
  readonly theories: readonly Theory[];
  readonly powers: readonly Power[];
};

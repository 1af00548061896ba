import { z } from "zod";
import { VariableName } from "@/study/model/names";
import { Ladder } from "@/study/model/ladder";
import { Scale } from "@/study/model/scale";
import { Variable } from "@/study/model/variable";
import type { LadderResult } from "@/study/analyse/analyse-ladder";
import type { ScaleResult } from "@/study/analyse/analyse-scale";
import type { AnswerStrip } from "@/study/analyse/answer-strip";

/** The parts of a study a computation depends on. */
const Context = z.strictObject({ codebook: z.array(Variable), scales: z.array(Scale) });

/** What a worker can be asked to do. */
export const Job = z.discriminatedUnion("kind", [
  z.strictObject({ kind: z.literal("ladder"), context: Context, ladder: Ladder }),
  z.strictObject({ kind: z.literal("scale"), context: Context, scale: Scale }),
  z.strictObject({ kind: z.literal("strips"), context: Context, variables: z.array(VariableName) }),
]);
export type Job = z.infer<typeof Job>;

/** What it answers, by kind of job. */
export interface JobResults {
  ladder: LadderResult;
  scale: ScaleResult;
  strips: AnswerStrip[];
}

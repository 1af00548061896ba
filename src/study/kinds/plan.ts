import { z } from "zod";
import type { PlanResult } from "../analyse/plan-analysis";
import type { StudyParts } from "../model/context";
import { ObjectId } from "../model/names";
import { Plan, PlanDocument, plannedOf } from "../model/plan";
import type { AskedKind, KeptKind } from "./kind";

const Spec = z.strictObject({ plan: Plan, done: PlanDocument });
type Spec = z.infer<typeof Spec>;

/** Hypotheses and what they stand on, fixed on a day; what was done otherwise since. */
export const plan = {
  kind: "plan",
  list: "plans",
  schema: Plan,
  id: ObjectId,
  word: "Plan",
  place: "theory",
  idOf: (p: Plan) => p.id,
  nameOf: ({ at }: Plan) => `plan of ${at.slice(0, 10)}`,
  opens: { at: () => "theory" },
  spec: Spec,
  specOf: (p: Plan, study: StudyParts) => ({ plan: p, done: plannedOf(study) }),
  needs: () => ({ names: [] }),
  load: () => import("../analyse/plan-analysis"),
  headline: (result: PlanResult) => [{ name: "deviations", value: result.deviations.length }],
} satisfies KeptKind<"plan", "plans", Plan> & AskedKind<"plan", Plan, Spec, PlanResult>;

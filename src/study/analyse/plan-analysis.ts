import { sha256 } from "@noble/hashes/sha2.js";
import { bytesToHex, utf8ToBytes } from "@noble/hashes/utils.js";
import type { Analysis, Desk } from "../kinds/kind";
import { type Deviation, deviations, type Plan, type Plannable, type PlanDocument, planText, plannedOf } from "../model/plan";

/** A plan, whether it still says what it said, and what was done otherwise. */
export interface PlanResult {
  status: "told";
  /** True: its sum is that of what it says. */
  holds: boolean;
  deviations: Deviation[];
}

/** SHA-256 of what a plan says, in hexadecimal. */
export const planSum = (plan: Pick<Plan, "at" | "rows" | "document">): string => bytesToHex(sha256(utf8ToBytes(planText(plan))));

function run({ plan, done }: { plan: Plan; done: PlanDocument }): PlanResult {
  return { status: "told", holds: planSum(plan) === plan.sha256, deviations: deviations(plan.document, done) };
}

/** Plans under the names of docs/results.md. */
function planResults(plan: Plan, desk: Desk) {
  const of = <T>(kind: string) => desk.objects(kind) as readonly T[];
  const study: Plannable = {
    codebook: of("variable"),
    scales: of("scale"),
    derived: of("derived"),
    filters: of("filter"),
    ladders: of("ladder"),
    hypotheses: of("hypothesis"),
    powers: of("power"),
    theories: of("theory"),
  };
  const found = run({ plan, done: plannedOf(study) });
  return { at: plan.at, rows: plan.rows, sha256: plan.sha256, holds: found.holds, deviations: found.deviations };
}

export const analysis: Analysis<Plan, { plan: Plan; done: PlanDocument }, PlanResult> = { run, results: planResults };

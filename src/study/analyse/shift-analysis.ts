import type { Analysis, Desk } from "../kinds/kind";
import type { Ladder } from "../model/ladder";
import type { Shift } from "../model/shift";
import { analyseShift, type ShiftNewcomer, type ShiftResult } from "./analyse-shift";
import { sampleResults } from "./sample-results";

/** Why a coefficient changes under the names of docs/results.md. */
function shiftResults(shift: Shift, desk: Desk) {
  const ladder = (desk.objects("ladder") as Ladder[]).find((l) => l.id === shift.ladder)!;
  const settings = { ladder: ladder.id, step: shift.step ?? ladder.steps.length, column: shift.column };
  const found = analyseShift({ shift, ladder }, desk);
  const sample = found.sample && sampleResults(found.sample);
  if (found.status === "refused") return { settings, status: "refused" as const, refusal: found.refusal, sample };
  const { before, after, newcomers } = found;
  const by = <T>(of: (one: ShiftNewcomer) => T) => Object.fromEntries(newcomers.map((one) => [one.key, of(one)]));
  const told = ({ b, beta }: typeof before) => ({ b: b.estimate, se: b.se, p: b.p, beta: beta?.estimate ?? null });
  return {
    settings,
    status: "told" as const,
    sample,
    column: found.column,
    before: told(before),
    after: told(after),
    change: before.b.estimate - after.b.estimate,
    taken: by((one) => one.taken),
    taken_beta: by((one) => one.takenBeta),
    share: by((one) => one.share),
    b_without: by((one) => one.without),
    pattern: found.pattern,
    may_work_through: found.through,
    conditional: found.conditional,
  };
}

export const analysis: Analysis<Shift, { shift: Shift; ladder: Ladder }, ShiftResult> = { run: analyseShift, results: shiftResults };

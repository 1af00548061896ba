import type { Analysis, Desk } from "../kinds/kind";
import { codesOf, type Hypothesis } from "../model/hypothesis";
import type { Ladder } from "../model/ladder";
import type { Theory } from "../model/theory";
import { analyseTheory, type TheoryResult } from "./analyse-theory";

/** All hypotheses under the names of docs/results.md. */
function theoryResults(theory: Theory, desk: Desk) {
  const hypotheses = desk.objects("hypothesis") as Hypothesis[];
  const ladders = (desk.objects("ladder") as Ladder[]).filter((l) => hypotheses.some((h) => h.ladder === l.id));
  const { stands } = analyseTheory({ theory, hypotheses, ladders }, desk);
  const codes = codesOf(hypotheses);
  return {
    settings: { alpha: theory.alpha, holm: theory.holm, delta: theory.delta },
    hypotheses: Object.fromEntries(
      stands.map(({ id, verdict, waits, estimate, test, p, pHolm, interval, equivalence, n, step, exploratory, delta, would }, k) => {
        const { text, ladder, rests, direction, claim, family, before, since, changes } = hypotheses[k]!;
        const settings = { text, ladder, step, rests, direction, claim, delta, family, before, since, changed: changes };
        return [
          id,
          {
            code: codes[k]!,
            settings,
            verdict,
            waits,
            estimate,
            test,
            p,
            p_holm: pHolm,
            interval,
            equivalence,
            n,
            exploratory,
            n_needed: would,
          },
        ];
      }),
    ),
  };
}

type Spec = { theory: Theory; hypotheses: Hypothesis[]; ladders: Ladder[] };
export const analysis: Analysis<Theory, Spec, TheoryResult> = { run: analyseTheory, results: theoryResults };

"use client";

import { useStudy } from "@/features/study/study-context";
import { activeTerms, type Ladder } from "@/study/model/ladder";
import { fixLabel, type LadderFix } from "@/study/report/ladder/ladder-fix";
import { mend } from "../mend";

/** What can be done about predictors that bend: a square in a further step, or a logarithm in their place; recorded, and taken back as one. */
export function BendRemedies({ ladder, bent }: { ladder: Ladder; bent: readonly { variable: string; lowest: number }[] }) {
  const { study, store, title } = useStudy();
  const held = (variable: string) => ladder.steps.flatMap(activeTerms).some(({ components }) => components.length === 2 && components.every((one) => one === variable)); // prettier-ignore
  const fixes = bent.flatMap(({ variable, lowest }): LadderFix[] => [
    ...(held(variable) ? [] : [{ do: "square" as const, variable }]),
    { do: "logarithm", variable, lowest },
  ]);
  return fixes.map((fix) => (
    <button
      key={fixLabel(fix, title)}
      type="button"
      className="link"
      onClick={() => {
        const mending = mend(fix, study, ladder);
        if ("edits" in mending) store.edit(...mending.edits);
      }}
    >
      {fixLabel(fix, title)}
    </button>
  ));
}

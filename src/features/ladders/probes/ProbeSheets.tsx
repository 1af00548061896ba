"use client";

import type { LadderFit } from "@/core/regression/ladder";
import { useStudy } from "@/features/study/study-context";
import type { Ladder } from "@/study/model/ladder";
import { groupMakers } from "./asked";
import { AddedSheet } from "./AddedSheet";
import { GroupsSheet } from "./GroupsSheet";
import { ImportanceSheet } from "./ImportanceSheet";
import { MeansSheet } from "./MeansSheet";
import { ProbeSheet } from "./ProbeSheet";
import { ResidualsSheet } from "./ResidualsSheet";
import { SearchSheet } from "./SearchSheet";
import { ShiftSheet } from "./ShiftSheet";

/** Everything that has been asked of a ladder, each with its answer, in order. Its code comes after the numbers: most ladders are opened for these. */
export function ProbeSheets({ ladder, fit }: { ladder: Ladder; fit: LadderFit }) {
  const { study } = useStudy();
  const own = <T extends { ladder: string }>(list: readonly T[]) => list.filter((one) => one.ladder === ladder.id);
  const makers = groupMakers(study, ladder);
  return (
    <>
      {own(study.probes).map((one) => (
        <ProbeSheet key={one.id} probe={one} ladder={ladder} />
      ))}
      {own(study.means).map((one) => (
        <MeansSheet key={one.id} means={one} ladder={ladder} />
      ))}
      {own(study.groups).map((one) => (
        <GroupsSheet key={one.id} groups={one} ladder={ladder} variables={makers} />
      ))}
      {own(study.shifts).map((one) => (
        <ShiftSheet key={one.id} shift={one} ladder={ladder} fit={fit} />
      ))}
      {own(study.residuals).map((one) => (
        <ResidualsSheet key={one.id} residuals={one} ladder={ladder} fit={fit} />
      ))}
      {own(study.added).map((one) => (
        <AddedSheet key={one.id} added={one} ladder={ladder} fit={fit} />
      ))}
      {own(study.importances).map((one) => (
        <ImportanceSheet key={one.id} importance={one} ladder={ladder} />
      ))}
      {own(study.searches).map((one) => (
        <SearchSheet key={one.id} search={one} ladder={ladder} />
      ))}
    </>
  );
}

"use client";

import { newId } from "@/study/model/new-id";
import { QuoteThis } from "@/features/study/QuoteThis";
import { useStudy } from "@/features/study/study-context";
import { useAsked } from "@/features/study/use-computed";
import { useParts } from "@/features/study/use-parts";
import { useReplicates } from "@/features/study/use-replicates";
import { groupsCsv } from "@/files/groups-csv";
import type { PermutedDifference } from "@/core/resampling/label-permutation";
import type { Groups } from "@/study/model/groups";
import type { Ladder } from "@/study/model/ladder";
import { formatCount } from "@/study/report/format-number";
import { groupsTable } from "@/study/report/ladder/groups-table";
import { whatTheGroupsSay } from "@/study/report/ladder/groups-words";
import { SaveAs } from "@/ui/parts/SaveAs";
import { DrawnState } from "@/features/study/DrawnState";
import { ReplicateState } from "../bootstrap/ReplicateState";
import { useOpen } from "../use-open";
import { crossedLadder, notCrossed } from "./crossed-ladder";
import { GroupsPicture } from "./GroupsPicture";
import { GroupsSentence } from "./GroupsSentence";
import { AlikeTable, AllDifferences, GroupsTable } from "./GroupsTables";
import { ProbeFrame } from "./ProbeFrame";
import { useSaveTable } from "../exploratory";
import css from "./probes.module.css";

const ERRORS = {
  classical: "",
  hc3: " HC3 standard errors.",
  cluster: " Cluster-robust standard errors (CR1) within each group.",
} as const;

/** A step in every group: its sentence, the slopes beside each other, every difference, and whether one regression would do. */
export function GroupsSheet({ groups, ladder, variables }: { groups: Groups; ladder: Ladder; variables: readonly string[] }) {
  const { study, store, title } = useStudy();
  const saveTable = useSaveTable();
  const { open } = useOpen();
  const computed = useAsked("groups", groups);
  const { result } = computed;
  const compared = result?.status === "compared" ? result : null;
  const told = { ...groups, ...compared?.asked };
  const boot = useReplicates("groups", groups, null, compared !== null);
  const shuffles = useParts("groups", groups, groups.shuffles !== null && compared !== null);
  const shuffled = shuffles.found as PermutedDifference[] | null;
  const beside = {
    boot: boot.intervals,
    shuffled: shuffled && groups.shuffles !== null ? { found: shuffled, of: groups.shuffles } : null,
  };
  const step = compared?.step ?? Math.min(groups.step ?? Infinity, ladder.steps.length);
  const name = `groups by ${title(groups.variable)}`;
  const change = (to: Groups | null) => store.edit({ subject: "groups", id: groups.id, to });
  const save = (kind: "csv" | "html") => {
    if (!compared) return;
    saveTable(name, kind, {
      csv: () => groupsCsv(told, compared, beside),
      table: () => groupsTable(told, compared, beside, ladder.name, title),
    });
  };
  const why = compared && notCrossed(ladder, groups);
  const openCrossed = () => {
    const id = newId(`${ladder.id} by ${groups.variable}`, study.ladders.map((l) => l.id)); // prettier-ignore
    const made = crossedLadder(ladder, groups, { id, name: `${ladder.name} by ${title(groups.variable)}`, group: title(groups.variable) });
    if (store.edit({ subject: "ladder", id, to: made })) open({ ladder: id });
  };
  return (
    <ProbeFrame
      id={groups.id}
      name={name}
      of={`step ${step} · groups`}
      sentence={
        <GroupsSentence
          groups={groups}
          step={step}
          found={compared?.asked.variable === groups.variable ? compared.groups : null}
          variables={variables}
          onChange={change}
        />
      }
      computed={computed}
      live={false}
      said={compared ? whatTheGroupsSay(told, compared, beside, title) : []}
      picture={compared && <GroupsPicture groups={told} result={compared} beside={beside} />}
      quote={
        computed.result && (
          <QuoteThis
            of={{ paragraph: { kind: "groups", id: groups.id } }}
            part={{ groups: new Map([[groups.id, computed.result]]), replicates: new Map([[`groups ${groups.id}`, boot.intervals]]) }}
          />
        )
      }
      onRemove={() => change(null)}
    >
      {compared && (
        <>
          <ReplicateState boot={boot} testId="group-replicates" />
          {groups.shuffles !== null && (
            <DrawnState
              drawn={shuffles}
              noun="shuffles"
              testId="shuffles"
              stopped="Stopped before all labels were shuffled: there is no p from them."
              whole={
                <>
                  <i>p</i> from {formatCount(groups.shuffles)} shuffles of the labels.
                </>
              }
            />
          )}
          <GroupsTable groups={told} result={compared} beside={beside} />
          <AllDifferences groups={told} result={compared} beside={beside} />
          <AlikeTable result={compared} onOpen={why ? null : openCrossed} why={why} />
          <p className={css.foot}>
            Each group its own coefficients and residual variance; centred by the means of all; z of a difference.{ERRORS[compared.errors]}{" "}
            <SaveAs onSave={save} />
          </p>
        </>
      )}
    </ProbeFrame>
  );
}

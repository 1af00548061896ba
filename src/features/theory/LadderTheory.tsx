"use client";

import { memo, useCallback, useMemo, useState } from "react";
import type { LadderFit } from "@/core/regression/ladder";
import { testableColumns } from "@/features/study/hypothesis-edits";
import { useStudy } from "@/features/study/study-context";
import type { Stand } from "@/study/analyse/analyse-theory";
import type { Hypothesis } from "@/study/model/hypothesis";
import type { Ladder } from "@/study/model/ladder";
import { titleOf } from "@/study/model/study";
import { theoryOf } from "@/study/model/theory";
import { theoryTable } from "@/study/report/theory/theory-table";
import { ChartFrame } from "@/ui/charts/ChartFrame";
import { type Begun, TheoryLoom } from "@/ui/charts/TheoryLoom";
import { PrintedTable } from "@/ui/parts/PrintedTable";
import { BegunWith } from "./BegunWith";
import css from "./theory.module.css";
import { theoryPicture } from "@/study/report/theory/theory-picture";

const Loom = memo(TheoryLoom);

/** What is claimed in one ladder as a picture, and what a further hypothesis can begin with. */
export function LadderTheory(props: {
  ladder: Ladder;
  stands: ReadonlyMap<string, Stand>;
  fit: LadderFit | null;
  add: (own: Partial<Hypothesis>) => void;
}) {
  const { ladder, stands, add } = props;
  const { study, title } = useStudy();
  const { codebook, scales, hypotheses } = study;
  const [threads, setThreads] = useState<readonly string[]>([]);
  const [step, setStep] = useState<number | null>(null);
  const name = `Theory of ${ladder.outcome === null ? ladder.name : title(ladder.outcome)}, ${ladder.name}`;
  const picture = useMemo(
    () => theoryPicture(ladder, hypotheses, stands, (one, level) => titleOf({ codebook, scales }, one, level)),
    [ladder, hypotheses, stands, codebook, scales],
  );
  const last = ladder.steps.length;
  const begin = useCallback((what: Begun) => {
    if ("step" in what) {
      setThreads([]);
      setStep(what.step);
      return;
    }
    setStep(null);
    setThreads((held) => (held.includes(what.thread) ? held.filter((one) => one !== what.thread) : [...held.slice(-1), what.thread]));
  }, []);
  const end = () => {
    setThreads([]);
    setStep(null);
  };
  return (
    <div className={css.picture}>
      <ChartFrame title={name} note="" table={<TheoryAsTable stands={stands} />} saved={<TheoryLoom title={name} picture={picture} />}>
        <Loom title={name} picture={picture} begin={begin} />
      </ChartFrame>
      <BegunWith
        threads={threads}
        step={step}
        columns={testableColumns(ladder, last, props.fit)}
        title={title}
        onTake={(rests) => {
          end();
          add({ ladder: ladder.id, rests, ...(step !== null && step + 1 < last && { step: step + 1 }) });
        }}
        onCancel={end}
      />
    </div>
  );
}

function TheoryAsTable({ stands }: { stands: ReadonlyMap<string, Stand> }) {
  const { study, title } = useStudy();
  return <PrintedTable table={theoryTable(study, stands, theoryOf(study.theories), title)} className={css.table} testId="theory-table" />;
}

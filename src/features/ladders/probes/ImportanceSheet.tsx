"use client";

import { QuoteThis } from "@/features/study/QuoteThis";
import { useStudy } from "@/features/study/study-context";
import { useParts } from "@/features/study/use-parts";
import { useAsked } from "@/features/study/use-computed";
import { importanceCsv } from "@/files/importance-csv";
import type { ImportanceResult } from "@/study/analyse/analyse-importance";
import type { ImportanceIntervals } from "@/study/analyse/joined-importance";
import type { Importance } from "@/study/model/importance";
import type { Ladder } from "@/study/model/ladder";
import { formatCount, formatPercent, formatShare } from "@/study/report/format-number";
import { byShare, enteringTitle, importanceTable, whatImportanceSays } from "@/study/report/ladder/importance-table";
import { ChartFrame } from "@/ui/charts/ChartFrame";
import { ShareSteps } from "@/ui/charts/ShareSteps";
import page from "@/ui/parts/page.module.css";
import { PrintedTable } from "@/ui/parts/PrintedTable";
import { SaveAs } from "@/ui/parts/SaveAs";
import { SettingWord } from "@/ui/parts/SettingWord";
import { useSaveTable } from "../exploratory";
import ladders from "../ladders.module.css";
import { DrawnState } from "@/features/study/DrawnState";
import { ProbeFrame } from "./ProbeFrame";
import css from "./probes.module.css";

type Told = Extract<ImportanceResult, { status: "told" }>;

/** How R² is dealt out among the terms of a step, averaged over all orders of entry, beside what else is called importance. */
export function ImportanceSheet({ importance, ladder }: { importance: Importance; ladder: Ladder }) {
  const { store, title } = useStudy();
  const saveTable = useSaveTable();
  const computed = useAsked("importance", importance);
  const told = computed.result?.status === "told" ? computed.result : null;
  const step = Math.min(importance.step ?? ladder.steps.length, ladder.steps.length);
  const controls = Math.min(importance.controls, step - 1);
  const name = `importance in step ${step} of ${ladder.name}`;
  const drawn = useParts("importance", importance, importance.resamples !== null && told !== null);
  const intervals = drawn.found as ImportanceIntervals | null;
  const change = (to: Partial<Importance>) => void store.edit({ subject: "importance", id: importance.id, to: { ...importance, ...to } });
  const save = (of: Told, kind: "csv" | "html") => {
    saveTable(name, kind, { csv: () => importanceCsv(of, intervals), table: () => importanceTable(of, ladder.name, title, intervals) });
  };
  const words = (count: number) => (count === 0 ? "nothing" : count === 1 ? "step 1" : `steps 1 to ${count}`);
  return (
    <ProbeFrame
      id={importance.id}
      name={name}
      of={`step ${step} · importance`}
      sentence={
        <h3 className={page.sentence}>
          How much of {ladder.outcome === null ? "the outcome" : title(ladder.outcome)} each{" "}
          <SettingWord
            label="What enters as one"
            value={importance.together}
            text={importance.together === "terms" ? "term" : "step"}
            choices={[
              { value: "terms", label: "term" },
              { value: "steps", label: "step, as one" },
            ]}
            onChange={(together) => change({ together: together as Importance["together"] })}
          />{" "}
          explains, whatever the order, beyond{" "}
          <SettingWord
            label="Controls"
            value={String(controls)}
            text={words(controls)}
            choices={Array.from({ length: step }, (_, count) => ({ value: String(count), label: words(count) }))}
            onChange={(count) => change({ controls: Number(count) })}
          />
          .
        </h3>
      }
      computed={computed}
      live={false}
      said={told ? whatImportanceSays(told, title) : []}
      picture={told && <Picture told={told} name={name} intervals={intervals} />}
      quote={
        computed.result && (
          <QuoteThis
            of={{ paragraph: { kind: "importance", id: importance.id } }}
            part={{ importance: new Map([[importance.id, computed.result]]) }}
          />
        )
      }
      onRemove={() => store.edit({ subject: "importance", id: importance.id, to: null })}
    >
      {told &&
        (importance.resamples === null ? (
          <button type="button" className="link" onClick={() => change({ resamples: 1000 })}>
            How sure is that? Intervals from {formatCount(1000)} samples
          </button>
        ) : (
          <DrawnState
            drawn={drawn}
            noun="samples"
            testId="importance-state"
            stopped="Stopped before all samples were drawn: there are no intervals."
            whole={
              <>
                {formatPercent(ladder.confidence)} intervals from {formatCount(importance.resamples)} samples, seed {importance.seed}.{" "}
                <button type="button" className="link" onClick={() => change({ resamples: null })}>
                  No more
                </button>
              </>
            }
          />
        ))}
      {told && (
        <p className={css.foot}>
          The share answers how much a term explains on average; <i>r</i> what it does by itself, <i>part</i> what it adds to all others,{" "}
          <i>β</i> how far the outcome goes with it while all others stay. <SaveAs onSave={(kind) => save(told, kind)} />
        </p>
      )}
    </ProbeFrame>
  );
}

const limitsOf = (intervals: ImportanceIntervals | null, key: string) => {
  const at = intervals?.terms.indexOf(key) ?? -1;
  return at < 0 ? {} : { lower: intervals!.lower[at]!, upper: intervals!.upper[at]! };
};

function Picture({ told, name, intervals }: { told: Told; name: string; intervals: ImportanceIntervals | null }) {
  const { title } = useStudy();
  const rows = byShare(told.terms);
  return (
    <ChartFrame
      title={name}
      note={`shares of R², averaged over orders of entry; they add up to ${formatShare(told.of.R2 - told.of.controlsR2, 3)}`}
      table={<PrintedTable table={importanceTable(told, "", title, intervals)} className={ladders.table} testId="importance" />}
    >
      <ShareSteps
        title={name}
        parts={[
          ...(told.controls > 0 ? [{ name: "Controls", share: told.of.controlsR2, quiet: true }] : []),
          ...rows.map((term) => ({
            name: enteringTitle(term.entering, title),
            share: term.share,
            quiet: false,
            ...limitsOf(intervals, term.key),
          })),
        ]}
        format={(share) => formatShare(share, 3)}
      />
    </ChartFrame>
  );
}

"use client";

import { columnKey } from "@/core/regression/terms";
import { useStudy } from "@/features/study/study-context";
import { useAsked } from "@/features/study/use-computed";
import { shiftCsv } from "@/files/shift-csv";
import type { LadderFit } from "@/core/regression/ladder";
import type { ShiftResult } from "@/study/analyse/analyse-shift";
import { ColumnParts } from "@/study/model/column-parts";
import type { Ladder } from "@/study/model/ladder";
import type { Shift } from "@/study/model/shift";
import { formatNumber, formatShare } from "@/study/report/format-number";
import { termTitle } from "@/study/report/level-title";
import { partsTitle } from "@/study/report/ladder/coefficient-words";
import { byTaken, inSds, shiftTable, whatTheShiftSays } from "@/study/report/ladder/shift-words";
import { ChartFrame } from "@/ui/charts/ChartFrame";
import { ShiftStairs } from "@/ui/charts/ShiftStairs";
import page from "@/ui/parts/page.module.css";
import { PrintedTable } from "@/ui/parts/PrintedTable";
import { SaveAs } from "@/ui/parts/SaveAs";
import { SettingWord } from "@/ui/parts/SettingWord";
import { useSaveTable } from "../exploratory";
import ladders from "../ladders.module.css";
import { ProbeFrame } from "./ProbeFrame";
import css from "./probes.module.css";

/** Why a coefficient changes from one step to the next: which newcomers took it, by how much each. */
export function ShiftSheet({ shift, ladder, fit }: { shift: Shift; ladder: Ladder; fit: LadderFit }) {
  const { store, title } = useStudy();
  const saveTable = useSaveTable();
  const computed = useAsked("shift", shift);
  const told = computed.result?.status === "told" ? computed.result : null;
  const step = Math.min(shift.step ?? ladder.steps.length, ladder.steps.length);
  const who = partsTitle(shift.column, title);
  const name = `why ${who} changes in step ${step} of ${ladder.name}`;
  const change = (to: Partial<Shift>) => void store.edit({ subject: "shift", id: shift.id, to: { ...shift, ...to } });
  const both = columnsInBoth(fit, step);
  return (
    <ProbeFrame
      id={shift.id}
      name={name}
      of={`step ${step} · change`}
      sentence={
        <h3 className={page.sentence}>
          Why the coefficient of{" "}
          <SettingWord
            label="Predictor"
            main
            value={columnKey(shift.column)}
            text={who}
            choices={both.map((key) => ({ value: key, label: partsTitle(fit.parts.get(key)!, title) }))}
            onChange={(key) => change({ column: ColumnParts.parse(fit.parts.get(key)) })}
          />{" "}
          changes from step {step - 1} to{" "}
          <SettingWord
            label="Later step"
            value={String(step)}
            text={`step ${step}`}
            choices={ladder.steps.slice(1).map((_, k) => ({ value: String(k + 2), label: `step ${k + 2}` }))}
            onChange={(value) => change({ step: Number(value) === ladder.steps.length ? null : Number(value) })}
          />
          .
        </h3>
      }
      computed={computed}
      live={false}
      said={told ? whatTheShiftSays(told, ladder.metric, title) : []}
      picture={told && <Picture told={told} ladder={ladder} name={name} />}
      onRemove={() => store.edit({ subject: "shift", id: shift.id, to: null })}
    >
      {told && (
        <p className={css.foot}>
          What newcomers take adds up to the change, in whatever order they entered.{" "}
          <SaveAs onSave={(kind) => saveTable(name, kind, { csv: () => shiftCsv(told), table: () => shiftTable(told, ladder, title) })} />
        </p>
      )}
    </ProbeFrame>
  );
}

/** Columns with a coefficient in a step (from 1) and in the one before. */
function columnsInBoth(fit: LadderFit, step: number): string[] {
  const [before, after] = [fit.steps[step - 2], fit.steps[step - 1]];
  return (before?.coefficients ?? []).map((c) => c.column).filter((key) => after?.coefficients.some((c) => c.column === key));
}

function Picture({ told, ladder, name }: { told: Extract<ShiftResult, { status: "told" }>; ladder: Ladder; name: string }) {
  const { title } = useStudy();
  const sds = inSds(told, ladder.metric);
  const value = (c: typeof told.before) => (sds ? c.beta!.estimate : c.b.estimate);
  const symbol = sds ? "β" : "b";
  return (
    <ChartFrame
      title={name}
      note={`${symbol} before, what each newcomer takes or gives, ${symbol} after`}
      table={<PrintedTable table={shiftTable(told, ladder, title)} className={ladders.table} testId="shift" />}
    >
      <ShiftStairs
        title={name}
        before={{ name: `${symbol} in step ${told.step - 1}`, value: value(told.before) }}
        after={{ name: `${symbol} in step ${told.step}`, value: value(told.after) }}
        parts={byTaken(told).map((one) => ({ name: termTitle(one.term, title), taken: sds ? one.takenBeta! : one.taken }))}
        format={(v) => (sds ? formatShare(v) : formatNumber(v))}
      />
    </ChartFrame>
  );
}

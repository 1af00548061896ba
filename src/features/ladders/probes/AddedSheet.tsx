"use client";

import { useMemo, useState } from "react";
import type { LadderFit } from "@/core/regression/ladder";
import { columnKey } from "@/core/regression/terms";
import { useStudy } from "@/features/study/study-context";
import { useAsked } from "@/features/study/use-computed";
import { addedCsv } from "@/files/added-csv";
import type { AddedResult } from "@/study/analyse/analyse-added";
import type { Added } from "@/study/model/added";
import { ColumnParts } from "@/study/model/column-parts";
import type { Ladder } from "@/study/model/ladder";
import { formatNumber, formatPlain, formatShare } from "@/study/report/format-number";
import { addedTable, bends, whatIsAdded } from "@/study/report/ladder/added-words";
import { partsTitle } from "@/study/report/ladder/coefficient-words";
import { ChartFrame } from "@/ui/charts/ChartFrame";
import { ResidualChart } from "@/ui/charts/ResidualChart";
import page from "@/ui/parts/page.module.css";
import { PrintedTable } from "@/ui/parts/PrintedTable";
import { SaveAs } from "@/ui/parts/SaveAs";
import { SettingWord } from "@/ui/parts/SettingWord";
import { useSaveTable } from "../exploratory";
import ladders from "../ladders.module.css";
import { BendRemedies } from "./BendRemedies";
import { ProbeFrame } from "./ProbeFrame";
import css from "./probes.module.css";

type Told = Extract<AddedResult, { status: "told" }>;

/** What each term adds beside all others: a cloud each on equal axes, all of them or two rivals. */
export function AddedSheet({ added, ladder, fit }: { added: Added; ladder: Ladder; fit: LadderFit }) {
  const { store, title } = useStudy();
  const saveTable = useSaveTable();
  const computed = useAsked("added", added);
  const told = computed.result?.status === "told" ? computed.result : null;
  const step = Math.min(added.step ?? ladder.steps.length, ladder.steps.length);
  const name = `what each term of step ${step} of ${ladder.name} adds`;
  const change = (to: Partial<Added>) => void store.edit({ subject: "added", id: added.id, to: { ...added, ...to } });
  const keys = (fit.steps[step - 1]?.coefficients ?? []).map((c) => c.column);
  const nameOf = (key: string) => partsTitle(fit.parts.get(key)!, title);
  const choices = keys.map((key) => ({ value: key, label: nameOf(key) }));
  const [first, second] = added.columns.map(columnKey);
  const rival = (at: 0 | 1, key: string) => {
    const next = ColumnParts.parse(fit.parts.get(key));
    const rest = keys.find((one) => one !== key);
    const other = added.columns[1 - at] ?? (rest === undefined ? undefined : ColumnParts.parse(fit.parts.get(rest)));
    // a step of a single column has no rival
    change({ columns: other === undefined ? [next] : at === 0 ? [next, other] : [other, next] });
  };
  return (
    <ProbeFrame
      id={added.id}
      name={name}
      of={`step ${step} · what each adds`}
      sentence={
        <h3 className={page.sentence}>
          {added.as === "added" ? "What is left of " : "The course of "}
          <SettingWord
            label="Which terms"
            main
            value={first ?? "-"}
            text={first === undefined ? "every term" : partsTitle(added.columns[0]!, title)}
            choices={[{ value: "-", label: "every term" }, ...choices.filter(({ value }) => value !== second)]}
            onChange={(key) => (key === "-" ? change({ columns: [] }) : rival(0, key))}
          />
          {second !== undefined && (
            <>
              {" and of "}
              <SettingWord
                label="Its rival"
                value={second}
                text={partsTitle(added.columns[1]!, title)}
                choices={choices.filter(({ value }) => value !== first)}
                onChange={(key) => rival(1, key)}
              />
            </>
          )}
          ,{" "}
          <SettingWord
            label="Seen as"
            value={added.as}
            text={added.as === "added" ? "when all others are taken out" : "with its own part and the residuals"}
            choices={[
              { value: "added", label: "when all others are taken out of both sides" },
              { value: "component", label: "with its own part and the residuals, to see a bend" },
            ]}
            onChange={(as) => change({ as: as as Added["as"] })}
          />
          .
        </h3>
      }
      computed={computed}
      live={false}
      said={told ? whatIsAdded(told, added.as, title) : []}
      picture={told && <Clouds told={told} as={added.as} ladder={ladder} name={name} />}
      onRemove={() => store.edit({ subject: "added", id: added.id, to: null })}
    >
      {told && (
        <div className={css.remedies}>
          <BendRemedies
            ladder={ladder}
            bent={told.columns.filter(bends).map((one) => ({ variable: told.parts.get(one.column)![0]!.variable, lowest: one.lowest }))}
          />
          <span>
            <SaveAs
              onSave={(kind) =>
                saveTable(name, kind, { csv: () => addedCsv(told), table: () => addedTable(told, added.as, ladder.name, title) })
              }
            />
          </span>
        </div>
      )}
    </ProbeFrame>
  );
}

/** All on equal axes: a steeper line is a larger coefficient in SDs, a narrower cloud has less of its own. A respondent lit in one is lit in all. */
function Clouds({ told, as, ladder, name }: { told: Told; as: Added["as"]; ladder: Ladder; name: string }) {
  const { title } = useStudy();
  const [lit, setLit] = useState<number | null>(null);
  const shared = useMemo(() => {
    const ends = (of: "x" | "y"): [number, number] => {
      const all = told.columns.flatMap(({ points }) => points.map((point) => point[of]));
      return [all.reduce((a, b) => Math.min(a, b)), all.reduce((a, b) => Math.max(a, b))];
    };
    return { x: ends("x"), y: ends("y") };
  }, [told]);
  const views = useMemo(
    () =>
      told.columns.map((one) => {
        const xs = one.points.map((point) => point.x);
        const ends = [xs[0]!, xs.at(-1)!];
        return {
          key: one.column,
          points: one.points,
          curves: [
            { name: `slope ${formatShare(one.slope)}`, dash: "", points: ends.map((x) => ({ x, y: x * one.slope })) },
            ...(as === "component" ? [{ name: "smooth", dash: "5 3", points: one.smooth }] : []),
          ],
        };
      }),
    [told, as],
  );
  return (
    <ChartFrame
      title={name}
      note={
        (as === "added"
          ? "both sides without what the others explain"
          : "each term against its own part and the residuals; dashed the smooth") +
        ", in SDs, equal axes" +
        (told.columns[0]!.points.length < told.n
          ? `; ${formatPlain(told.columns[0]!.points.length)} of ${formatPlain(told.n)} respondents are drawn`
          : "")
      }
      table={<PrintedTable table={addedTable(told, as, ladder.name, title)} className={ladders.table} testId="added" />}
    >
      <div className={told.columns.length === 2 ? css.rivals : css.residuals}>
        {told.columns.map((one, k) => {
          const who = partsTitle(told.parts.get(one.column)!, title);
          return (
            <figure key={one.column}>
              <figcaption>
                {who}: {formatShare(one.slope)}
              </figcaption>
              <ResidualChart
                title={who}
                points={views[k]!.points}
                curves={views[k]!.curves}
                zero={null}
                domain={shared}
                axis={as === "added" ? `${who}, what the others leave` : who}
                outcome={as === "added" ? `${title(told.outcome)}, what they leave` : "its part and the residual"}
                format={(v) => formatNumber(v, 1)}
                lit={lit}
                onLight={setLit}
              />
            </figure>
          );
        })}
      </div>
    </ChartFrame>
  );
}

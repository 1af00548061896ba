"use client";

import Link from "next/link";
import { useMemo, useState } from "react";
import { useStudy } from "@/features/study/study-context";
import { rowsAddress } from "@/features/study/rows-address";
import { useAsked } from "@/features/study/use-computed";
import { categoryChoices, numericChoices } from "@/features/study/name-choices";
import type { LadderFit } from "@/core/regression/ladder";
import { studentizedAt } from "@/core/diagnostics/case-statistics";
import { residualsCsv } from "@/files/residuals-csv";
import type { ResidualCase, ResidualsTold } from "@/study/analyse/analyse-residuals";
import { type Ladder, LadderIntervals } from "@/study/model/ladder";
import { ColumnParts } from "@/study/model/column-parts";
import type { Residuals } from "@/study/model/residuals";
import { counted, formatNumber, formatPlain } from "@/study/report/format-number";
import {
  bentPredictors,
  pictureNotes,
  residualFindings,
  residualsTable,
  standingOut,
  whatTheResidualsSay,
} from "@/study/report/ladder/residual-words";
import { ChartFrame } from "@/ui/charts/ChartFrame";
import { ResidualHistogram } from "@/ui/charts/ResidualHistogram";
import { ResidualChart } from "@/ui/charts/ResidualChart";
import page from "@/ui/parts/page.module.css";
import { Said } from "@/ui/parts/Said";
import { SaveAs } from "@/ui/parts/SaveAs";
import { SettingWord } from "@/ui/parts/SettingWord";
import { useSaveTable } from "../exploratory";
import ladders from "../ladders.module.css";
import { BendRemedies } from "./BendRemedies";
import { ProbeFrame } from "./ProbeFrame";
import css from "./probes.module.css";
import { WithoutThem } from "./WithoutThem";

/** Can the residuals of a step be trusted? Three pictures of the same respondents, the tests beside what they belong to, and remedies in one click. */
export function ResidualsSheet({ residuals, ladder, fit }: { residuals: Residuals; ladder: Ladder; fit: LadderFit }) {
  const { study, store, title } = useStudy();
  const saveTable = useSaveTable();
  const computed = useAsked("residuals", residuals);
  const told = computed.result?.status === "told" ? computed.result : null;
  const step = Math.min(residuals.step ?? ladder.steps.length, ladder.steps.length);
  const name = `residuals of step ${step} of ${ladder.name}`;
  const change = (to: Ladder) => void store.edit({ subject: "ladder", id: ladder.id, to });
  const columns = (fit.steps[step - 1]?.coefficients ?? []).map((c) => ColumnParts.parse(fit.parts.get(c.column)));
  const matters = told ? residualFindings(told, ladder, title).map((one) => one.what) : [];
  const out = told ? standingOut(told.cases, told.n) : [];
  const along = residuals.rows ? "the order of the rows" : residuals.along === null ? "the prediction" : title(residuals.along);
  return (
    <ProbeFrame
      id={residuals.id}
      name={name}
      of={`step ${step} · residuals`}
      sentence={
        <h3 className={page.sentence}>
          What step {step} misses of {ladder.outcome === null ? "the outcome" : title(ladder.outcome)}, seen along{" "}
          <SettingWord
            label="Seen along"
            value={residuals.rows ? "#" : (residuals.along ?? "-")}
            text={along}
            choices={[
              { value: "-", label: "the prediction" },
              { value: "#", label: "the order of the rows" },
              ...numericChoices(study, new Set(ladder.outcome === null ? [] : [ladder.outcome])),
              ...categoryChoices(study),
            ]}
            onChange={(value) => {
              const to = { ...residuals, along: value === "-" || value === "#" ? null : value, rows: value === "#" };
              store.edit({ subject: "residuals", id: residuals.id, to });
            }}
          />
          .
        </h3>
      }
      computed={computed}
      live={false}
      said={told ? whatTheResidualsSay(told, ladder, title) : []}
      picture={told && <Pictures told={told} along={along} name={name} />}
      onRemove={() => store.edit({ subject: "residuals", id: residuals.id, to: null })}
    >
      {told && <WithoutThem without={told.without} residuals={residuals} ladder={ladder} columns={columns} />}
      {told && (
        <p className={css.remedies}>
          {matters.includes("spread") && ladder.errors === "classical" && ladder.cluster === null && (
            <button type="button" className="link" onClick={() => change({ ...ladder, errors: "hc3" })}>
              Use HC3 errors
            </button>
          )}
          {matters.some((what) => what === "spread" || what === "shape") && ladder.intervals.by === "normal" && (
            <button type="button" className="link" onClick={() => change({ ...ladder, intervals: LadderIntervals.parse({ by: "bca" }) })}>
              Intervals by bootstrap
            </button>
          )}
          {matters.includes("bend") && <BendRemedies ladder={ladder} bent={bentPredictors(told).slice(0, 2)} />}
          {out.length > 0 && (
            <Link
              className="link"
              href={rowsAddress(
                store.id,
                out.map((one) => one.row),
              )}
            >
              Look at {counted(out.length, "respondent")} who stand{out.length === 1 ? "s" : ""} out
            </Link>
          )}
          <span>
            <SaveAs
              onSave={(kind) => saveTable(name, kind, { csv: () => residualsCsv(told), table: () => residualsTable(told, ladder, title) })}
            />
          </span>
        </p>
      )}
    </ProbeFrame>
  );
}

/** What the model missed along its prediction, its shape against the envelope, and who pulls: a respondent lit in one is lit in all. */
function Pictures({ told, along, name }: { told: ResidualsTold; along: string; name: string }) {
  const [lit, setLit] = useState<number | null>(null);
  const { cases, smooth, levels, p, n } = told;
  const views = useMemo(() => {
    const studentized = cases.filter((one) => one.studentized !== null);
    const ranked = studentized.filter((one) => one.normal !== null).sort((a, b) => a.normal! - b.normal!);
    const most = Math.max(...cases.map((one) => one.leverage));
    const contour = (d: number, sign: number) => ({
      name: `Cook’s distance ${d}`,
      dash: "4 3",
      points: Array.from({ length: 40 }, (_, k) => 0.02 * most + (k / 39) * 0.98 * most)
        .map((h) => ({ x: h, y: sign * studentizedAt(d, h, p) }))
        .filter((point) => Math.abs(point.y) < 1.2 * Math.max(3, ...studentized.map((one) => Math.abs(one.studentized!)))),
    });
    const band = (of: "lower" | "upper") => ({ name: `95 % envelope, ${of}`, dash: "4 3", points: ranked.filter((one) => one[of] !== null).map((one) => ({ x: one.normal!, y: one[of]! })) }); // prettier-ignore
    // levels stand side by side, their respondents strewn over a width that stays; a short line is their mean
    const strewn = (one: ResidualCase) => (levels === null ? one.x : one.x + (((one.row * 0.618034) % 1) - 0.5) * 0.5);
    const course = (of: "residual" | "spread") =>
      levels === null
        ? [{ name: "smooth", dash: "", points: smooth.map((one) => ({ x: one.x, y: one[of] })) }]
        : smooth.map((one, k) => ({
            name: `mean of ${levels[k]!.level}`,
            dash: "",
            points: [-0.34, 0.34].map((by) => ({ x: one.x + by, y: one[of] })),
          }));
    const ticks = levels?.map(({ level }, k) => ({ at: smooth[k]!.x, name: level }));
    return [
      {
        title: `What is missed along ${along}`,
        points: cases.filter((one) => !Number.isNaN(one.x)).map((one) => ({ row: one.row, x: strewn(one), y: one.residual })),
        curves: course("residual"),
        ticks,
        zero: 0,
        axis: along,
        outcome: "residual",
      },
      {
        title: "Its shape against a normal one",
        points: ranked.map((one) => ({ row: one.row, x: one.normal!, y: one.studentized! })),
        curves: told.envelope ? [band("lower"), band("upper")] : [],
        zero: null,
        axis: "normal quantile",
        outcome: "studentized residual",
      },
      {
        title: "Who pulls",
        points: studentized.map((one) => ({ row: one.row, x: one.leverage, y: one.studentized! })),
        curves: [0.5, 1].flatMap((d) => [contour(d, 1), contour(d, -1)]).filter((curve) => curve.points.length > 1),
        zero: 0,
        axis: "leverage",
        outcome: "studentized residual",
      },
      {
        title: `How far it misses along ${along}`,
        points: studentized
          .filter((one) => !Number.isNaN(one.x))
          .map((one) => ({ row: one.row, x: strewn(one), y: Math.sqrt(Math.abs(one.studentized!)) })),
        curves: course("spread"),
        ticks,
        zero: null,
        axis: along,
        outcome: "√|studentized residual|",
      },
    ];
  }, [cases, smooth, levels, along, p, told.envelope]);
  const out = standingOut(cases, n);
  const notes = pictureNotes(told);
  return (
    <ChartFrame
      title={name}
      note={
        told.envelope
          ? `envelope of ${told.envelope.samples} simulated samples, seed ${told.envelope.seed}`
          : `${formatPlain(cases.length)} of ${formatPlain(n)} respondents are drawn, with all who stand out`
      }
      table={
        <table className={ladders.table} data-testid="residuals">
          <caption className="visually-hidden">Respondents who stand out</caption>
          <thead>
            <tr>
              <th scope="col" style={{ textAlign: "left" }}>
                row
              </th>
              <th scope="col">residual</th>
              <th scope="col">studentized</th>
              <th scope="col">leverage</th>
              <th scope="col">Cook’s D</th>
            </tr>
          </thead>
          <tbody>
            {out.map((one) => (
              <tr key={one.row}>
                <th scope="row">
                  <button type="button" className="link" onFocus={() => setLit(one.row)} onPointerEnter={() => setLit(one.row)}>
                    {one.row}
                  </button>
                </th>
                <td>{formatNumber(one.residual)}</td>
                <td className={ladders.value}>{formatNumber(one.studentized)}</td>
                <td>{formatNumber(one.leverage, 3)}</td>
                <td>{formatNumber(one.cooksD, 3)}</td>
              </tr>
            ))}
          </tbody>
        </table>
      }
    >
      <div className={css.residuals}>
        {views.map((view, k) => (
          <figure key={view.title}>
            <figcaption>{view.title}</figcaption>
            <ResidualChart {...view} format={(v) => formatNumber(v, Math.abs(v) < 1 && v !== 0 ? 2 : 1)} lit={lit} onLight={setLit} />
            <p className="quiet">
              <Said>{notes[k]!}</Said>
            </p>
          </figure>
        ))}
        <figure>
          <figcaption>How they are spread</figcaption>
          <ResidualHistogram
            title="How they are spread"
            histogram={told.histogram}
            format={(v) => formatNumber(v, Math.abs(v) < 1 && v !== 0 ? 2 : 1)}
          />
          <p className="quiet">
            <Said>{notes[4]!}</Said>
          </p>
        </figure>
      </div>
    </ChartFrame>
  );
}

"use client";

import { Segmented } from "antd";
import { useState } from "react";
import { ladderCsv } from "@/files/ladder-csv";
import { tableAsHtml } from "@/files/table-html";
import { useLadderResult } from "@/features/study/use-computed";
import { useSeenLadder } from "@/features/study/use-seen";
import { ComputationState } from "@/features/study/ComputationState";
import { useStudy } from "@/features/study/study-context";
import type { Ladder } from "@/study/model/ladder";
import { ladderTable } from "@/study/report/ladder-table";
import page from "@/ui/parts/page.module.css";
import { fileName, saveFile } from "@/ui/parts/save-file";
import { CoefficientsOverSteps } from "./CoefficientsOverSteps";
import { LadderMargin } from "./LadderMargin";
import { LadderSentence } from "./LadderSentence";
import css from "./ladders.module.css";
import { StepInFull } from "./StepInFull";
import { Steps } from "./Steps";

/** One ladder: sentence, steps with their rise, coefficients, and the margin that speaks of them. */
export function LadderSheet({ ladder }: { ladder: Ladder }) {
  const { study, store, title } = useStudy();
  const computed = useLadderResult(ladder);
  const { result, outdated, fault } = computed;
  const before = useSeenLadder(ladder, computed);
  const [metric, setMetric] = useState<"beta" | "b">("beta");
  const [view, setView] = useState<string>("every");
  const change = (to: Ladder) => void store.edit({ subject: "ladder", id: ladder.id, to });
  const fit = result?.status === "fitted" ? result.fit : null;
  const percent = `${Math.round(ladder.confidence * 1000) / 10} %`;
  const full = view === "every" ? null : Math.min(Number(view), (fit?.steps.length ?? 1) - 1);

  const save = (kind: "csv" | "html") => {
    if (result?.status !== "fitted") return;
    if (kind === "csv") saveFile(fileName(ladder.name, "csv"), "text/csv", ladderCsv(ladder, result.fit));
    else saveFile(fileName(ladder.name, "html"), "text/html", tableAsHtml(ladderTable(ladder, result.fit, result.sample, title)));
  };

  return (
    <>
      <main className={page.sheet} aria-busy={outdated || (!result && !fault)}>
        <LadderSentence study={study} ladder={ladder} result={result} onChange={change} />
        <Steps study={study} ladder={ladder} fit={fit} outdated={outdated} onChange={change} />
        <ComputationState of={computed} refusal={result?.status === "refused" ? result.refusal : null} />
        {fit && (
          <section aria-label="Coefficients">
            <div className={css.bar}>
              <h2 className={page.heading}>Coefficients</h2>
              {full === null && (
                <Segmented
                  aria-label="Metric"
                  size="small"
                  value={metric}
                  onChange={setMetric}

                  options={[
                    { value: "beta", label: "β" },
                    { value: "b", label: <i>b</i> },
                  ]}
                />
              )}
              <Segmented
                aria-label="Steps shown"
                size="small"
                value={full === null ? "every" : String(full)}
                onChange={setView}
                options={[
                  { value: "every", label: "Every step" },
                  ...fit.steps.map((_, k) => ({ value: String(k), label: `Step ${k + 1} in full` })),
                ]}
              />
              <span className={css.end}>
                Save the table as{" "}
                <button type="button" className="link" disabled={outdated} onClick={() => save("csv")}>
                  CSV
                </button>{" "}
                or{" "}
                <button type="button" className="link" disabled={outdated} onClick={() => save("html")}>
                  HTML
                </button>
              </span>
            </div>
            <div className={outdated ? page.outdated : undefined} data-testid="coefficients" data-outdated={outdated}>
              {full === null ? (
                <CoefficientsOverSteps fit={fit} metric={metric} percent={percent} title={title} />
              ) : (
                <StepInFull fit={fit} step={full} percent={percent} title={title} />
              )}
            </div>
            <p className={css.foot}>
              {full === null &&
                (metric === "beta" ? "β: outcome SDs per predictor SD, SDs of the sample. " : "b: outcome units per unit of the term. ")}
              {percent} intervals{full === null ? "; a filled dot marks one that excludes zero. " : ". "}
              <i>N</i> = {fit.n} in every step.
            </p>
          </section>
        )}
      </main>
      <LadderMargin ladder={ladder} result={result} before={before} title={title} onChange={change} />
    </>
  );
}

"use client";

import { formatPercent } from "@/study/report/format-number";
import { useDeferredValue, useMemo, useState } from "react";
import { ladderCsv } from "@/files/ladder-csv";
import { ComputationState } from "@/features/study/ComputationState";
import { useStudy } from "@/features/study/study-context";
import { useReplicates } from "@/features/study/use-replicates";
import { useRest } from "@/features/study/use-rest";
import { useAsked } from "@/features/study/use-computed";
import { useKeepFirst } from "@/features/study/use-first-numbers";
import { useSeen } from "@/features/study/use-seen";
import type { Ladder } from "@/study/model/ladder";
import type { Naming, Told } from "@/study/report/ladder/coefficient-words";
import { ladderTable } from "@/study/report/ladder/ladder-table";
import { partsFromReplicates, withReplicateIntervals } from "@/study/report/ladder/with-intervals";
import { laterPart } from "@/ui/parts/later";
import { OneOf } from "@/ui/parts/OneOf";
import page from "@/ui/parts/page.module.css";
import { stepColour } from "@/ui/theme/step-colours";
import { ReplicateState } from "./bootstrap/ReplicateState";
import { CoefficientsOverSteps } from "./coefficients/CoefficientsOverSteps";
import { Flight } from "./flight/Flight";
import { exploratoryMark } from "@/study/model/exploratory";
import { ExploratoryNote, MarkContext, tableSaver } from "./exploratory";
import { LadderMargin } from "./LadderMargin";
import { LadderSentence } from "./LadderSentence";
import css from "./ladders.module.css";
import { Probes } from "./probes/Probes";
import { RestingHere, useClaims } from "./RestingHere";
import { SaveBack } from "./SaveBack";
import { useChangeLadder } from "./use-change-ladder";

// what most looks at a ladder do without comes after its numbers
const FromReplicates = laterPart(() => import("./bootstrap/FromReplicates").then((of) => of.FromReplicates));
const StepInFull = laterPart(() => import("./coefficients/StepInFull").then((of) => of.StepInFull));
const AnovaTable = laterPart(() => import("./coefficients/AnovaTable").then((of) => of.AnovaTable));
const StepEquation = laterPart(() => import("./coefficients/StepEquation").then((of) => of.StepEquation));

/** How long the numbers must stand before more is worked out behind them: while terms come and go nobody waits for it. */
const DEPTH_MS = 350;

/** One ladder: sentence, steps with their rise, then everything about the step that is selected, and the margin that speaks of it. */
export function LadderSheet({ ladder, selected, onSelect }: { ladder: Ladder; selected: number; onSelect: (step: number) => void }) {
  const { study, title } = useStudy();
  const computed = useAsked("ladder", ladder);
  const { result, outdated, fault } = computed;
  const before = useSeen("ladder", ladder, computed);
  useKeepFirst(ladder, computed);
  const claims = useClaims(ladder);
  const [share, setShare] = useState<"part" | "part2" | null>(null);
  const [view, setView] = useState<"every" | "full">("every");
  const change = useChangeLadder();
  const fitted = result?.status === "fitted" ? result : null;
  const mark = exploratoryMark(ladder, fitted?.sample.rowsUsed ?? []);
  const boot = useReplicates("ladder", ladder, selected, fitted !== null && !outdated);
  const bootstrapped = ladder.intervals.by !== "normal";
  const fit = useMemo(
    () => (fitted && bootstrapped ? withReplicateIntervals(fitted.fit, boot.intervals) : (fitted?.fit ?? null)),
    [fitted, bootstrapped, boot.intervals],
  );
  const settled = useRest(fitted !== null && !outdated ? ladder : null, DEPTH_MS) === ladder;
  const depthOf = useMemo(() => ({ ladder, step: selected }), [ladder, selected]);
  const deep = useAsked("ladder-depth", depthOf, { subject: `depth of ${ladder.id}`, enabled: settled, urgency: "background" });
  const depthNow = deep.outdated ? null : deep.result;
  const depth = fit && depthNow && bootstrapped ? { ...depthNow, parts: partsFromReplicates(fit, boot.intervals) } : depthNow;
  // the numbers first, what is said of them right after
  const [resultTold, depthTold] = [useDeferredValue(result), useDeferredValue(depth)];
  // a table is saved with the intervals that are shown, and with all replicates of them
  const unready = outdated || (bootstrapped && (boot.computing || boot.intervals === null));
  const percent = formatPercent(ladder.confidence);
  const told: Told = share ?? (ladder.metric === "z" ? "beta" : "b");
  const unit = (name: string) => study.codebook.find((v) => v.name === name)?.unit ?? "";
  const naming: Naming = { title, unit };
  // numbers of the ladder before a step came or went know no more steps than they have
  const step = Math.min(selected, (fit?.steps.length ?? 1) - 1);
  const of = ladder.steps[selected];

  const tell = (to: Told) => {
    if (to === "part" || to === "part2") return setShare(to);
    setShare(null);
    const metric = to === "beta" ? "z" : "raw";
    if (metric !== ladder.metric) change({ ...ladder, metric });
  };
  const save = (kind: "csv" | "html") => {
    if (!fitted || !fit) return;
    tableSaver(mark)(ladder.name, kind, { csv: () => ladderCsv(ladder, fit), table: () => ladderTable(ladder, fit, fitted.sample, title) });
  };

  return (
    <MarkContext value={mark}>
      <main
        className={mark?.kind === "exploratory" ? `${page.sheet} ${css.marked}` : page.sheet}
        aria-busy={outdated || (!result && !fault)}
      >
        <LadderSentence study={study} ladder={ladder} result={result} onChange={change} />
        {mark && <ExploratoryNote mark={mark} />}
        <Flight
          study={study}
          ladder={ladder}
          fit={fit}
          stepIds={fitted?.stepIds ?? []}
          outdated={outdated}
          percent={percent}
          selected={selected}
          onSelect={onSelect}
          onChange={change}
        />
        {bootstrapped && <ReplicateState boot={boot} />}
        <ComputationState of={computed} refusal={result?.status === "refused" ? result.refusal : null} />
        {fit && fitted && (
          <section aria-label="Coefficients">
            <div className={css.bar}>
              <h2 className={page.heading}>
                Coefficients{" "}
                <span style={{ color: stepColour(selected) }} data-testid="speaks-of">
                  of step {selected + 1}
                  {of?.name ? `, ${of.name}` : ""}
                </span>
              </h2>
              <OneOf
                label="Steps shown"
                value={view}
                onChange={setView}
                options={[
                  { value: "every", label: "Beside the other steps" },
                  { value: "full", label: `Step ${selected + 1} in full` },
                ]}
              />
              {view === "every" && (
                <OneOf
                  label="Figure"
                  value={told}
                  onChange={tell}
                  options={[
                    { value: "beta", label: "β" },
                    { value: "b", label: <i>b</i> },
                    { value: "part", label: "part" },
                    { value: "part2", label: "part²" },
                  ]}
                />
              )}
              <span className={css.end}>
                Save as{" "}
                <button type="button" className="link" disabled={unready} onClick={() => save("csv")}>
                  CSV
                </button>{" "}
                or{" "}
                <button type="button" className="link" disabled={unready} onClick={() => save("html")}>
                  HTML
                </button>
              </span>
            </div>
            <div className={outdated ? page.outdated : undefined} data-testid="coefficients" data-outdated={outdated}>
              {view === "every" ? (
                <CoefficientsOverSteps
                  fit={fit}
                  told={told}
                  depth={depth}
                  percent={percent}
                  naming={naming}
                  selected={selected}
                  off={new Set(ladder.steps.flatMap((s, k) => (s.off ? [k] : [])))}
                  claims={claims}
                />
              ) : (
                <StepInFull
                  fit={fit}
                  step={step}
                  inflations={fitted.inflations[step] ?? []}
                  percent={percent}
                  naming={naming}
                  told={ladder.metric === "z" ? "beta" : "b"}
                />
              )}
            </div>
            <p className={css.foot}>
              {view === "every" && `${FIGURES[told]} `}
              {percent} intervals{view === "every" ? "; a filled dot marks one that excludes zero. " : ". "}
              <i>N</i> = {fit.n} in every step.
            </p>
            {view === "full" && (
              <div className={`${css.beside} ${outdated ? page.outdated : ""}`}>
                <AnovaTable step={step} fit={fit.steps[step]!} />
                <StepEquation fit={fit} step={step} title={title} />
              </div>
            )}
            {bootstrapped && boot.intervals && (
              <FromReplicates boot={boot.intervals} fit={fit} step={step} percent={percent} title={title} />
            )}
            <SaveBack ladder={ladder} step={step} />
          </section>
        )}
        <RestingHere ladder={ladder} step={selected} />
        {fitted && <Probes ladder={ladder} step={selected} fit={fitted.fit} />}
      </main>
      <LadderMargin ladder={ladder} result={resultTold} depth={depthTold} boot={boot.intervals} step={selected} before={before} />
    </MarkContext>
  );
}

const FIGURES: Record<Told, string> = {
  beta: "β: outcome SDs per predictor SD, SDs of the sample.",
  b: "b: outcome units per unit of the term.",
  part: "Part: correlation of the outcome with what is left of the term without the others.",
  part2: "Part²: what the term would add to R² if it entered last.",
};

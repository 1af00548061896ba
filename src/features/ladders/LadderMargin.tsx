"use client";

import { useRouter } from "next/navigation";
import { QuoteThis } from "@/features/study/QuoteThis";
import { SinceNote } from "@/features/study/SinceNote";
import { useStudy } from "@/features/study/study-context";
import type { LadderResult } from "@/study/analyse/analyse-ladder";
import type { ReplicateIntervals } from "@/study/model/replicate-intervals";
import type { LadderDepth } from "@/study/analyse/ladder-depth";
import { termParts } from "@/core/regression/terms";
import { activeTerms, type Ladder } from "@/study/model/ladder";
import type { SeenResult } from "@/study/model/seen-result";
import { counted, formatCount, formatNumber, listed } from "@/study/report/format-number";
import { bootstrapWords } from "@/study/report/ladder/bootstrap-words";
import { partsTitle } from "@/study/report/ladder/coefficient-words";
import { fixLabel, type LadderFix } from "@/study/report/ladder/ladder-fix";
import { codingWords, errorWords } from "@/study/report/ladder/ladder-table";
import { ladderWatches } from "@/study/report/ladder/ladder-watches";
import { unmetWords } from "@/study/report/recipe-words";
import { whatTheLadderSays } from "@/study/report/ladder/ladder-words";
import { Margin, Note } from "@/ui/parts/Margin";
import { SentencesNote, WatchNote } from "@/ui/parts/notes";
import { mend } from "./mend";

/** What the step that is selected says, what to watch, who is in, how it is computed. */
export function LadderMargin(props: {
  ladder: Ladder;
  result: LadderResult | null;
  depth: LadderDepth | null;
  /** Its intervals from replicates, where it has them. */
  boot: ReplicateIntervals | null;
  step: number;
  /** What it was when it was last looked at, if it has changed since. */
  before: SeenResult | null;
}) {
  const { ladder, result, depth } = props;
  const { study, store, title } = useStudy();
  const router = useRouter();
  // while a step comes or goes the numbers belong to another shape of the ladder
  if (result?.status !== "fitted" || result.stepIds.join() !== ladder.steps.map((s) => s.id).join()) {
    return (
      <Margin>
        <Note heading="How a ladder works">
          <p>
            Each step adds terms to the ones before. All steps are fitted on the same respondents, so that a rise of <i>R</i>² is the new
            terms&rsquo; doing.
          </p>
        </Note>
      </Margin>
    );
  }
  const { fit, sample } = result;
  const part = { ladders: new Map([[ladder.id, result]]), replicates: new Map([[`ladder ${ladder.id}`, props.boot]]) };
  const step = Math.min(props.step, fit.steps.length - 1);
  const act = (fix: LadderFix) => {
    const mending = mend(fix, study, ladder);
    if ("edits" in mending) store.edit(...mending.edits);
    else router.push(`/studies/${store.id}/responses${"row" in mending ? `?respondent=${mending.row}-1` : "#missing"}`);
  };
  const watches = ladderWatches({ study, ladder, result, depth, step, title }).map(({ id, words, fixes = [] }) => ({
    id,
    words,
    fixes: fixes.map((fix) => ({ label: fixLabel(fix, title), act: () => act(fix) })),
  }));
  const withdrawn = study.responses?.withdrawn ?? 0;
  const off = ladder.steps.flatMap((s) => s.terms.filter((t) => !activeTerms(s).includes(t)));
  return (
    <Margin>
      <SinceNote before={props.before} />
      <SentencesNote heading={`What step ${step + 1} says`} sentences={whatTheLadderSays(ladder, fit, title, step)}>
        <QuoteThis of={{ paragraph: { kind: "ladder", id: ladder.id } }} part={part} words="Quote this ladder" />
        <QuoteThis of={{ number: `ladder|${ladder.id}|step|${ladder.steps[step]!.id}|change` }} part={part} words="Quote this step" />
      </SentencesNote>
      <WatchNote watches={watches} />
      <Note heading="Who is in">
        <p>
          {counted(sample.rows, "row")} in the data
          {sample.leftOut
            .filter((out) => out.filter !== null && out.count > 0)
            .map((out) => `, ${formatCount(out.count)} left out by “${out.name}”`)
            .join("")}
          , {formatCount(sample.keptByFilter)} kept by the sentence, {formatCount(sample.complete)} complete on every term of every step,{" "}
          {formatCount(sample.used)} used.
        </p>
        {sample.leftOut.map(({ name, unmet }, i) =>
          unmet.length === 0 ? null : (
            <p key={i}>
              “{name}”: {unmetWords(unmet)}
            </p>
          ),
        )}
        {withdrawn > 0 && (
          <p>
            {counted(withdrawn, "respondent")} withdrew and {withdrawn === 1 ? "was" : "were"} erased.
          </p>
        )}
        {off.length > 0 && (
          <p>
            Switched off: {listed(off.map((t) => partsTitle(termParts(t), title)))}.{" "}
            {off.length === 1 ? "It still counts" : "They still count"} for who is in, so that switching changes the model alone.
          </p>
        )}
      </Note>
      <Note heading="How it is computed">
        <p>Least squares with {errorWords(fit)}.</p>
        {fit.tables.map((table) => (
          <p key={table.variable}>
            {title(table.variable)}: {codingWords(table, title)}
            {ladder.standardizeIndicators ? "; its columns are standardized for β" : "; its columns stay as they are in β"}.
          </p>
        ))}
        {fit.codings.length > 0 && (
          <p>
            {fit.codings
              .map(
                (c) =>
                  `${title(c.variable)} − ${formatNumber(c.subtracted)}${c.dividedBy === 1 ? "" : `, in units of ${formatNumber(c.dividedBy)}`}`,
              )
              .join("; ")}{" "}
            in its own column and in products. β from products of <i>z</i>-scores, not standardized again
            {ladder.intervals.by === "normal" ? "; their interval is approximate" : ""}.
          </p>
        )}
        {ladder.intervals.by === "normal" ? (
          <p>
            Intervals of Δ<i>R</i>² and of part correlations are for large samples, without assuming normal residuals; near 0 they are
            rough.
          </p>
        ) : (
          props.boot && bootstrapWords(ladder, props.boot).map((words) => <p key={words}>{words}</p>)
        )}
      </Note>
    </Margin>
  );
}

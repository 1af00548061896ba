"use client";

import type { LadderResult } from "@/study/analyse/analyse-ladder";
import { SinceNote } from "@/features/study/SinceNote";
import type { Ladder } from "@/study/model/ladder";
import type { SeenResult } from "@/study/model/seen-result";
import { counted, formatCount, formatNumber } from "@/study/report/format-number";
import { codingWords, errorWords } from "@/study/report/ladder-table";
import { ladderWatches, type Titles, whatTheLadderSays } from "@/study/report/ladder-words";
import { Margin, Note } from "@/ui/parts/Margin";
import { SentencesNote, WatchNote } from "@/ui/parts/notes";
import { addTerm } from "./ladder-edits";

/** What the ladder says, what to watch, who is in, how it is computed. */
export function LadderMargin(props: {
  ladder: Ladder;
  result: LadderResult | null;
  /** What it was when it was last looked at, if it has changed since. */
  before: SeenResult | null;
  title: Titles;
  onChange: (ladder: Ladder) => void;
}) {
  const { ladder, result, title } = props;
  if (result?.status !== "fitted" || result.fit.steps.length !== ladder.steps.length) {
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
  const watches = ladderWatches(fit, sample, title).map(({ id, words, addTerm: missing }) => ({
    id,
    words,
    fix: missing && {
      label: `Add ${missing.components.map(title).join(" × ")} to step ${missing.step}`,
      act: () => props.onChange(addTerm(ladder, missing.step - 1, missing.components)),
    },
  }));
  return (
    <Margin>
      <SinceNote before={props.before} />
      <SentencesNote heading="What this says" sentences={whatTheLadderSays(ladder, fit, title)} />
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
            in its own column and in products. β from products of <i>z</i>-scores, not standardized again; their interval is approximate.
          </p>
        )}
      </Note>
    </Margin>
  );
}

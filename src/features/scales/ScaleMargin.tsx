"use client";

import { declareMissing } from "@/features/study/declare-missing";
import { SinceNote } from "@/features/study/SinceNote";
import { useStudy } from "@/features/study/study-context";
import type { ScaleAnalysis } from "@/study/analyse/analyse-scale";
import type { AnswerStrip } from "@/study/analyse/answer-strip";
import { ladderPredictors } from "@/study/model/ladder";
import type { Scale } from "@/study/model/scale";
import type { SeenResult } from "@/study/model/seen-result";
import { methodSentence, scaleWatches, whatTheScaleSays } from "@/study/report/scale-words";
import { Margin, Note } from "@/ui/parts/Margin";
import { SentencesNote, WatchNote } from "@/ui/parts/notes";
import { turnItem } from "./scale-edits";

/** What the scale's numbers say, what to look at, where the scale is used, and words for a method section. */
export function ScaleMargin(props: {
  scale: Scale;
  analysis: ScaleAnalysis | null;
  /** What it was when it was last looked at, if it has changed since. */
  before: SeenResult | null;
  strips: readonly AnswerStrip[];
  onChange: (scale: Scale) => void;
}) {
  const { study, store } = useStudy();
  const { scale, analysis, strips } = props;
  const watches = scaleWatches(scale, strips, analysis).map(({ id, words, missingCode, turn }) => {
    if (turn) return { id, words, fix: { label: `Turn ${turn} round`, act: () => props.onChange(turnItem(scale, turn)) } };
    if (!missingCode) return { id, words };
    const { variable, code } = missingCode;
    return {
      id,
      words,
      fix: {
        label: `Count ${code} as missing in ${variable}`,
        act: () => void store.edit(...declareMissing([variable], study.codebook, code)),
      },
    };
  });
  const usedBy = study.ladders.filter((l) => l.outcome === scale.id || ladderPredictors(l).includes(scale.id)).map((l) => l.name);
  return (
    <Margin>
      <SinceNote before={props.before} />
      {analysis && <SentencesNote heading="What this says" sentences={whatTheScaleSays(scale, analysis)} />}
      <WatchNote watches={watches} />
      <Note heading="Used by">
        {usedBy.length === 0 ? (
          <p>No ladder yet.</p>
        ) : (
          <>
            <ul>
              {usedBy.map((name) => (
                <li key={name}>{name}</li>
              ))}
            </ul>
            <p className="quiet">A change here computes {usedBy.length === 1 ? "it" : "them"} anew.</p>
          </>
        )}
      </Note>
      {analysis && <SentencesNote heading="For a method section" sentences={[methodSentence(scale, analysis)]} />}
      <Note heading="How it is computed">
        <p>
          Reversed answers are lowest + highest possible − answer. Who answered too few items has no score. α on respondents complete on all
          items, with Feldt&rsquo;s 95 % interval.
        </p>
      </Note>
    </Margin>
  );
}

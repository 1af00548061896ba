"use client";

import { declareMissing } from "@/features/study/declare-missing";
import { useStudy } from "@/features/study/study-context";
import type { ScaleAnalysis } from "@/study/analyse/analyse-scale";
import type { AnswerStrip } from "@/study/analyse/answer-strip";
import { ladderPredictors } from "@/study/model/ladder";
import type { Scale } from "@/study/model/scale";
import { methodSentence, scaleWatches, whatTheScaleSays } from "@/study/report/scale-words";
import { Margin, Note } from "@/ui/parts/Margin";
import page from "@/ui/parts/page.module.css";
import { StatText } from "@/ui/parts/StatText";
import { turnItem } from "./scale-edits";

/** What the scale's numbers say, what to look at, where the scale is used, and words for a method section. */
export function ScaleMargin(props: {
  scale: Scale;
  analysis: ScaleAnalysis | null;
  strips: readonly AnswerStrip[];
  onChange: (scale: Scale) => void;
}) {
  const { study, store } = useStudy();
  const { scale, analysis, strips } = props;
  const watches = scaleWatches(scale, strips, analysis);
  const usedBy = study.ladders.filter((l) => l.outcome === scale.id || ladderPredictors(l).includes(scale.id)).map((l) => l.name);
  return (
    <Margin>
      {analysis && (
        <Note heading="What this says">
          {whatTheScaleSays(scale, analysis).map((s) => (
            <p key={s}>
              <StatText>{s}</StatText>
            </p>
          ))}
        </Note>
      )}
      {watches.length > 0 && (
        <Note heading="Watch">
          <ul>
            {watches.map((watch) => (
              <li key={watch.id}>
                {watch.words}
                {watch.missingCode && (
                  <button
                    type="button"
                    className={`link ${page.fix}`}
                    onClick={() => store.edit(...declareMissing([watch.missingCode!.variable], study.codebook, watch.missingCode!.code))}
                  >
                    Count {watch.missingCode.code} as missing in {watch.missingCode.variable}
                  </button>
                )}
                {watch.turn && (
                  <button type="button" className={`link ${page.fix}`} onClick={() => props.onChange(turnItem(scale, watch.turn!))}>
                    Turn {watch.turn} round
                  </button>
                )}
              </li>
            ))}
          </ul>
        </Note>
      )}
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
      {analysis && (
        <Note heading="For a method section">
          <p>
            <StatText>{methodSentence(scale, analysis)}</StatText>
          </p>
        </Note>
      )}
      <Note heading="How it is computed">
        <p>
          Reversed answers are lowest + highest possible − answer. Who answered too few items has no score. α on respondents complete on all
          items, with Feldt&rsquo;s 95 % interval.
        </p>
      </Note>
    </Margin>
  );
}

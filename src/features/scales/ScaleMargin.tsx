"use client";

import { declareMissing } from "@/features/study/declare-missing";
import { SinceNote } from "@/features/study/SinceNote";
import { useStudy } from "@/features/study/study-context";
import { UsedBy } from "@/features/study/UsedBy";
import type { ScaleAnalysis } from "@/study/analyse/analyse-scale";
import type { AnswerStrip } from "@/study/analyse/answer-strip";
import type { Scale } from "@/study/model/scale";
import type { SeenResult } from "@/study/model/seen-result";
import { listed } from "@/study/report/format-number";
import { methodSentence, type ScaleFix, scaleWatches, whatTheScaleSays } from "@/study/report/scale-words";
import { plain } from "@/study/report/words";
import { Margin, Note } from "@/ui/parts/Margin";
import { CopyNote, SentencesNote, WatchNote } from "@/ui/parts/notes";
import { turnItems, withWeights } from "./scale-edits";

/** What the scale's numbers say, what to look at, where the scale is used, and words for a method section. */
export function ScaleMargin(props: {
  scale: Scale;
  analysis: ScaleAnalysis | null;
  /** What it was when it was last looked at, if it has changed since. */
  before: SeenResult | null;
  strips: readonly AnswerStrip[];
  onChange: (scale: Scale) => void;
}) {
  const { study, store, title } = useStudy();
  const { scale, analysis, strips } = props;
  const fixOf = (fix: ScaleFix) => {
    if (fix.do === "turn") {
      const { items } = fix;
      return { label: `Turn ${listed(items.map((name) => title(name)))} round`, act: () => props.onChange(turnItems(scale, ...items)) };
    }
    if (fix.do === "weigh-equally") {
      const ones = new Map(scale.items.map((item) => [item.variable, 1]));
      return { label: "Count z-scores, all alike", act: () => props.onChange(withWeights(scale, ones, "z", "")) };
    }
    const { variable, code } = fix;
    return {
      label: `Count ${code} as missing in ${variable}`,
      act: () => void store.edit(...declareMissing([variable], study.codebook, code)),
    };
  };
  const watches = scaleWatches(scale, strips, analysis, study, title).map((watch) => ({
    id: watch.id,
    words: watch.words,
    fixes: (watch.fixes ?? []).map(fixOf),
  }));
  const method = analysis && methodSentence(scale, analysis, title);
  return (
    <Margin>
      <SinceNote before={props.before} />
      {analysis && <SentencesNote heading="What this says" sentences={whatTheScaleSays(scale, analysis, title)} />}
      <WatchNote watches={watches} />
      <UsedBy name={scale.id} />
      {method && <CopyNote heading="For a method section" text={method} copied={plain(method)} />}
      <Note heading="How it is computed">
        <p>
          Reversed answers are lowest + highest possible − answer. {RULE_WORDS[scale.rule]} α and ω on respondents complete on all items; α
          with Feldt&rsquo;s 95 % interval, ω from one maximum-likelihood factor.
        </p>
      </Note>
    </Margin>
  );
}

const AVERAGED = "Who answered too few items has no score.";
const RULE_WORDS: Record<Scale["rule"], string> = {
  mean: AVERAGED,
  sum: `${AVERAGED} An incomplete sum is the mean of the answers × number of items.`,
  weighted: "The score is the sum of weight × item; z-scores are over the respondents in the study who answered every item.",
  regression:
    "The score is the best guess at the factor from all items, z-scored over the respondents in the study who answered every item.",
  bartlett: "The score takes nothing of other factors; items are z-scored over the respondents in the study who answered every item.",
};

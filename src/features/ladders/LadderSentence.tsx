"use client";

import type { LadderResult } from "@/study/analyse/analyse-ladder";
import type { Ladder } from "@/study/model/ladder";
import type { Study } from "@/study/model/study";
import { titleOf } from "@/study/model/study";
import { formatCount } from "@/study/report/format-number";
import page from "@/ui/parts/page.module.css";
import { SettingWord } from "@/ui/parts/SettingWord";
import { filterChoices, filterOf, filterValue, filterWords, numericChoices } from "./choices";

const CENTRINGS = { mean: "mean-centred", z: "z-scored", raw: "uncentred" } as const;
const ERRORS = { classical: "classical", hc3: "HC3" } as const;
const SHARES = [0.9, 0.95, 0.99];

/** The ladder's heading: a sentence whose underlined words are its settings. */
export function LadderSentence(props: { study: Study; ladder: Ladder; result: LadderResult | null; onChange: (ladder: Ladder) => void }) {
  const { study, ladder, result, onChange } = props;
  const sample = result?.sample;
  const products = ladder.steps.some((step) => step.terms.some((term) => term.components.length > 1));
  return (
    <h1 className={page.sentence}>
      Predict{" "}
      <SettingWord
        label="Outcome"
        main
        value={ladder.outcome}
        text={ladder.outcome === null ? "choose an outcome" : titleOf(study, ladder.outcome)}
        choices={numericChoices(study)}
        onChange={(outcome) => onChange({ ...ladder, outcome })}
      />{" "}
      among{" "}
      <SettingWord
        label="Respondents"
        value={filterValue(ladder.filter, ladder.respondents)}
        text={filterWords(study, ladder.filter, ladder.respondents)}
        choices={filterChoices(study)}
        onChange={(value) => onChange({ ...ladder, ...filterOf(value) })}
      />{" "}
      with complete answers{sample ? ` (${formatCount(sample.used)} of ${formatCount(sample.rows)})` : ""}
      {products && (
        <>
          , products from{" "}
          <SettingWord
            label="Centring"
            value={ladder.centring}
            text={CENTRINGS[ladder.centring]}
            choices={Object.entries(CENTRINGS).map(([value, label]) => ({ value, label }))}
            onChange={(centring) => onChange({ ...ladder, centring: centring as Ladder["centring"] })}
          />{" "}
          variables
        </>
      )}
      , with intervals of{" "}
      <SettingWord
        label="Interval"
        value={String(ladder.confidence)}
        text={`${Math.round(ladder.confidence * 1000) / 10} %`}
        choices={SHARES.map((share) => ({ value: String(share), label: `${share * 100} %` }))}
        onChange={(value) => onChange({ ...ladder, confidence: Number(value) })}
      />{" "}
      from{" "}
      {ladder.cluster === null ? (
        <SettingWord
          label="Errors"
          value={ladder.errors}
          text={ERRORS[ladder.errors]}
          choices={[
            { value: "classical", label: "classical: the same spread everywhere" },
            { value: "hc3", label: "HC3: the spread may differ" },
          ]}
          onChange={(errors) => onChange({ ...ladder, errors: errors as Ladder["errors"] })}
        />
      ) : (
        `cluster-robust (${titleOf(study, ladder.cluster)})`
      )}{" "}
      errors.
    </h1>
  );
}

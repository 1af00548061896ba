"use client";

import { formatPercent } from "@/study/report/format-number";
import type { LadderResult } from "@/study/analyse/analyse-ladder";
import { activeTerms, type Ladder, LadderIntervals, REPLICATES, Seed } from "@/study/model/ladder";
import type { Study } from "@/study/model/study";
import { titleOf } from "@/study/model/study";
import { formatCount } from "@/study/report/format-number";
import { FieldWord } from "@/ui/parts/FieldWord";
import page from "@/ui/parts/page.module.css";
import type { Choice } from "@/ui/parts/choice";
import { SettingWord } from "@/ui/parts/SettingWord";
import { filterChoices, filterOf, filterValue } from "./choices";
import { filterWords } from "@/study/report/sample-words";
import { numericChoices } from "@/features/study/name-choices";

const METRICS = { z: "z-scores (β)", raw: "raw units (b)" } as const;
const CENTRINGS = { mean: "mean-centred", z: "z-scored", raw: "uncentred" } as const;
const ERRORS = { classical: "classical", hc3: "HC3" } as const;
const INTERVALS = { normal: "normal theory", bca: "BCa bootstrap", percentile: "percentile bootstrap" } as const;
const INTERVAL_CHOICES: Choice[] = [
  { value: "normal", label: "normal theory: at once" },
  { value: "bca", label: "BCa bootstrap: corrected for bias and skewness" },
  { value: "percentile", label: "percentile bootstrap" },
];
const SHARES = [0.9, 0.95, 0.99];

/** Kinds of standard errors: two by name, and one for each variable whose values may hold respondents together. */
function errorChoices(study: Study): Choice[] {
  const groups = study.codebook.filter((v) => v.kind === "code" || v.kind === "category");
  return [
    { value: "classical", label: "classical: the same spread everywhere" },
    { value: "hc3", label: "HC3: the spread may differ" },
    ...groups.map((v) => ({
      value: `cluster ${v.name}`,
      label: titleOf(study, v.name),
      search: `cluster ${v.name}`,
      group: "Cluster-robust: alike within",
    })),
  ];
}

function errorsOf(value: string): Pick<Ladder, "errors" | "cluster"> {
  if (value.startsWith("cluster ")) return { errors: "classical", cluster: value.slice("cluster ".length) };
  return { errors: value as Ladder["errors"], cluster: null };
}

/** How many replicates, and of which seed. */
function ReplicateWords({ ladder, onChange }: { ladder: Ladder; onChange: (ladder: Ladder) => void }) {
  const { intervals } = ladder;
  if (intervals.by === "normal") return null;
  return (
    <>
      {" of "}
      <FieldWord
        label="Replicates"
        text={formatCount(intervals.replicates)}
        initial={String(intervals.replicates)}
        width={110}
        read={(typed) => {
          const count = Number(typed.replace(/\s/g, ""));
          return Number.isInteger(count) && count >= REPLICATES.least && count <= REPLICATES.most ? count : null;
        }}
        rule={`${formatCount(REPLICATES.least)} to ${formatCount(REPLICATES.most)}.`}
        onChange={(replicates) => onChange({ ...ladder, intervals: { ...intervals, replicates } })}
      />
      {" replicates (seed "}
      <FieldWord
        label="Seed"
        text={String(ladder.seed)}
        width={110}
        read={(typed) => {
          const seed = Seed.safeParse(typed.trim() === "" ? null : Number(typed));
          return seed.success ? seed.data : null;
        }}
        rule="A whole number from 0."
        onChange={(seed) => onChange({ ...ladder, seed })}
      />
      )
    </>
  );
}

/** The ladder's heading: a sentence whose underlined words are its settings. */
export function LadderSentence(props: { study: Study; ladder: Ladder; result: LadderResult | null; onChange: (ladder: Ladder) => void }) {
  const { study, ladder, result, onChange } = props;
  const sample = result?.sample;
  const products = ladder.steps.some((step) => activeTerms(step).some((term) => term.components.length > 1));
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
      with complete answers{sample ? ` (${formatCount(sample.used)} of ${formatCount(sample.rows)})` : ""}, told in{" "}
      <SettingWord
        label="Metric"
        value={ladder.metric}
        text={METRICS[ladder.metric]}
        choices={Object.entries(METRICS).map(([value, label]) => ({ value, label }))}
        onChange={(metric) => onChange({ ...ladder, metric: metric as Ladder["metric"] })}
      />
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
      , with{" "}
      <SettingWord
        label="Interval"
        value={String(ladder.confidence)}
        text={formatPercent(ladder.confidence)}
        choices={SHARES.map((share) => ({ value: String(share), label: `${share * 100} %` }))}
        onChange={(value) => onChange({ ...ladder, confidence: Number(value) })}
      />{" "}
      intervals by{" "}
      <SettingWord
        label="Intervals by"
        value={ladder.intervals.by}
        text={INTERVALS[ladder.intervals.by]}
        choices={INTERVAL_CHOICES}
        onChange={(by) => onChange({ ...ladder, intervals: LadderIntervals.parse(by === "normal" ? { by } : { ...ladder.intervals, by }) })}
      />
      {ladder.intervals.by !== "normal" && <ReplicateWords ladder={ladder} onChange={onChange} />} and{" "}
      <SettingWord
        label="Errors"
        value={ladder.cluster === null ? ladder.errors : `cluster ${ladder.cluster}`}
        text={ladder.cluster === null ? ERRORS[ladder.errors] : `cluster-robust (${titleOf(study, ladder.cluster)})`}
        choices={errorChoices(study)}
        onChange={(value) => onChange({ ...ladder, ...errorsOf(value) })}
      />{" "}
      errors.
    </h1>
  );
}

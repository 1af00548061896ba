"use client";

import { useStudy } from "@/features/study/study-context";
import type { Scale } from "@/study/model/scale";
import { formatPlain } from "@/study/report/format-number";
import { FieldWord } from "@/ui/parts/FieldWord";
import { NameWord } from "@/ui/parts/NameWord";
import page from "@/ui/parts/page.module.css";
import { SettingWord } from "@/ui/parts/SettingWord";
import { EXTRACTION_CHOICES, ROTATION_CHOICES } from "./factoring-choices";
import { commonRange, declareRange, readRange } from "./scale-edits";
import { RespondentsWords } from "@/features/study/RespondentsWords";

const SHARES = [0.5, 0.6, 0.7, 0.75, 0.8, 0.9, 1];
const RULES: Record<Scale["rule"], string> = {
  mean: "mean",
  sum: "sum",
  weighted: "weighted sum",
  regression: "regression factor score",
  bartlett: "Bartlett factor score",
};

/** The heading of a score sheet: what the scale is, every setting a word of it. */
export function ScaleSentence({ scale, onChange }: { scale: Scale; onChange: (scale: Scale) => void }) {
  const averaged = scale.rule === "mean" || scale.rule === "sum";
  const items = scale.items.length === 1 ? "this item" : `these ${scale.items.length} items`;
  return (
    <h1 className={page.sentence}>
      <NameWord label="Name of the scale" name={scale.name} onChange={(name) => onChange({ ...scale, name })} /> is the{" "}
      <SettingWord
        label="Rule"
        value={scale.rule}
        text={RULES[scale.rule]}
        choices={Object.entries(RULES).map(([value, label]) => ({ value, label }))}
        onChange={(rule) => onChange({ ...scale, rule: rule as Scale["rule"] })}
      />{" "}
      of <FactorWords scale={scale} onChange={onChange} />
      {scale.rule === "weighted" && (
        <>
          <SettingWord
            label="What the weights count"
            value={scale.weigh}
            text={scale.weigh === "z" ? "the z-scores" : "the answers"}
            choices={[
              { value: "answers", label: "the answers" },
              { value: "z", label: "the z-scores" },
            ]}
            onChange={(weigh) => onChange({ ...scale, weigh: weigh as Scale["weigh"] })}
          />{" "}
          {scale.weigh === "z" ? "of" : "to"}{" "}
        </>
      )}
      {items}, asked from <RangeWord scale={scale} />, for everyone who answered{" "}
      {averaged ? (
        <>
          at least{" "}
          <SettingWord
            label="Answered share"
            value={String(scale.answeredShare)}
            text={`${Math.round(scale.answeredShare * 100)} %`}
            choices={SHARES.map((share) => ({ value: String(share), label: `${Math.round(share * 100)} %` }))}
            onChange={(share) => onChange({ ...scale, answeredShare: Number(share) })}
          />{" "}
          of them
        </>
      ) : (
        "all of them"
      )}
      <RespondentsWords
        before=", looked at among"
        value={scale.respondents}
        onChange={(respondents) => onChange({ ...scale, respondents })}
      />
      .
    </h1>
  );
}

/** Which factor a factor score is of, and how it is found. */
function FactorWords({ scale, onChange }: { scale: Scale; onChange: (scale: Scale) => void }) {
  if (scale.rule !== "regression" && scale.rule !== "bartlett") return null;
  const { factor: f } = scale;
  const change = (to: Partial<Scale["factor"]>) => {
    const factors = to.factors ?? f.factors;
    // a single factor is turned by nothing; several are, until somebody says otherwise
    const rotation = f.factors === 1 && factors > 1 ? "varimax" : f.rotation;
    onChange({ ...scale, factor: { ...f, rotation, ...to, factor: Math.min(to.factor ?? f.factor, factors) } });
  };
  const most = Math.max(f.factors, Math.min(12, Math.floor(scale.items.length / 2)), 1);
  const numbers = (to: number) => Array.from({ length: to }, (_, i) => ({ value: String(i + 1), label: String(i + 1) }));
  return (
    <>
      {f.factors === 1 ? (
        "the "
      ) : (
        <>
          factor{" "}
          <SettingWord
            label="Scored factor"
            value={String(f.factor)}
            text={String(f.factor)}
            choices={numbers(f.factors)}
            onChange={(n) => change({ factor: Number(n) })}
          />{" "}
          of{" "}
        </>
      )}
      <SettingWord
        label="Number of factors"
        value={String(f.factors)}
        text={f.factors === 1 ? "one" : String(f.factors)}
        choices={numbers(most)}
        onChange={(n) => change({ factors: Number(n) })}
      />{" "}
      {f.factors === 1 ? "factor" : ""} by{" "}
      <SettingWord
        label="Extraction"
        value={f.extraction}
        text={EXTRACTION_CHOICES.find((c) => c.value === f.extraction)!.label}
        choices={EXTRACTION_CHOICES}
        onChange={(extraction) => change({ extraction: extraction as Scale["factor"]["extraction"] })}
      />
      {f.factors > 1 && (
        <>
          {", rotated by "}
          <SettingWord
            label="Rotation"
            value={f.rotation}
            text={ROTATION_CHOICES.find((c) => c.value === f.rotation)!.label}
            choices={ROTATION_CHOICES}
            onChange={(rotation) => change({ rotation: rotation as Scale["factor"]["rotation"] })}
          />
        </>
      )}
      {", behind "}
    </>
  );
}

function RangeWord({ scale }: { scale: Scale }) {
  const { study, store } = useStudy();
  const range = commonRange(scale, study.codebook);
  const ranges = new Set(scale.items.map((item) => JSON.stringify(study.codebook.find((v) => v.name === item.variable)?.range ?? null)));
  const words = range ? `${formatPlain(range.low)} to ${formatPlain(range.high)}` : ranges.size > 1 ? "unlike ranges" : "declare the range";
  if (scale.items.every((item) => study.scales.some((s) => s.id === item.variable))) return <>their own ranges</>;
  return (
    <FieldWord
      label="Possible answers"
      text={words}
      initial={range ? words : ""}
      unset={!range}
      width={120}
      read={readRange}
      rule="Write the lowest and the highest possible answer, as 1 to 5."
      onChange={(to) => store.edit(...declareRange(scale, study.codebook, to))}
    />
  );
}

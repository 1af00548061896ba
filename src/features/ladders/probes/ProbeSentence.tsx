"use client";

import { useStudy } from "@/features/study/study-context";
import type { Probe, ProbeValues } from "@/study/model/probe";
import page from "@/ui/parts/page.module.css";
import { SettingWord } from "@/ui/parts/SettingWord";
import { ValuesWord } from "./ValuesWord";

/** A probe as a sentence whose underlined words are its settings. */
export function ProbeSentence({ probe, outcome, onChange }: { probe: Probe; outcome: string | null; onChange: (to: Probe) => void }) {
  const { study, title } = useStudy();
  const isCategory = (name: string) => study.codebook.some((v) => v.name === name && v.kind === "category");
  const { focal, moderators, metric } = probe;
  const square = moderators.length === 1 && moderators[0]!.variable === focal;
  const all = [...new Set([focal, ...moderators.map((m) => m.variable)])];
  /** The one that is asked about trades places with the one that was. */
  const swap = (to: string) =>
    onChange({
      ...probe,
      focal: to,
      moderators: moderators.map((m) => (m.variable === to ? { variable: focal, values: { by: "sd" } } : m)),
    });
  const values = (at: number, to: ProbeValues) =>
    onChange({ ...probe, moderators: moderators.map((m, i) => (i === at ? { ...m, values: to } : m)) });
  return (
    <h3 className={page.sentence}>
      How{" "}
      {square ? (
        title(focal)
      ) : (
        <SettingWord
          label="Predictor asked about"
          main
          value={focal}
          text={title(focal)}
          choices={all.map((name) => ({ value: name, label: title(name) }))}
          onChange={(to) => to !== focal && swap(to)}
        />
      )}{" "}
      goes with {outcome === null ? "the outcome" : title(outcome)}{" "}
      {moderators.map((m, i) => (
        <span key={m.variable}>
          {i > 0 ? " and " : "as "}
          {title(m.variable)} {isCategory(m.variable) ? "goes from level to level" : "goes from "}
          {!isCategory(m.variable) && <ValuesWord values={m.values} name={title(m.variable)} onChange={(to) => values(i, to)} />}
        </span>
      ))}
      , in{" "}
      <SettingWord
        label="Unit of the slopes"
        value={metric}
        text={metric === "raw" ? "points (b)" : "SDs (β)"}
        choices={[
          { value: "raw", label: "points (b)" },
          { value: "z", label: "SDs (β)" },
        ]}
        onChange={(to) => onChange({ ...probe, metric: to as Probe["metric"] })}
      />
      .
    </h3>
  );
}

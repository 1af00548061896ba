"use client";

import { useStudy } from "@/features/study/study-context";
import type { Probe, ProbedModerator } from "@/study/model/probe";
import { formatValue, listed } from "@/study/report/format-number";
import { FieldWord } from "@/ui/parts/FieldWord";
import page from "@/ui/parts/page.module.css";
import { SettingWord } from "@/ui/parts/SettingWord";

const VALUES = [
  { value: "sd", label: "low to high (M ± 1 SD)" },
  { value: "percentiles", label: "its 16th to its 84th percentile" },
] as const;

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
  const values = (at: number, to: ProbedModerator["values"]) =>
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
          {!isCategory(m.variable) && <ValuesWord moderator={m} name={title(m.variable)} onChange={(to) => values(i, to)} />}
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

function ValuesWord({
  moderator,
  name,
  onChange,
}: {
  moderator: ProbedModerator;
  name: string;
  onChange: (to: ProbedModerator["values"]) => void;
}) {
  const { values } = moderator;
  const own = values.by === "own" ? values.values : null;
  return (
    <>
      <SettingWord
        label={`Values of ${name}`}
        value={values.by}
        text={own ? listed(own.map(formatValue)) : VALUES.find((v) => v.value === values.by)!.label}
        choices={own ? [...VALUES, { value: "own", label: listed(own.map(formatValue)) }] : VALUES}
        onChange={(by) => by !== "own" && onChange({ by: by as "sd" | "percentiles" })}
      />{" "}
      <small>
        (
        <FieldWord
          label={`Own values of ${name}`}
          text="own values"
          initial={own?.join("; ") ?? ""}
          className="link"
          width={150}
          read={(typed) => {
            const parts = typed.split(/[;\s]+/).filter(Boolean).map((part) => Number(part.replace(",", ".").replace("−", "-"))); // prettier-ignore
            const sound = parts.length > 0 && parts.length <= 7 && parts.every(Number.isFinite) && new Set(parts).size === parts.length;
            return sound ? parts : null;
          }}
          rule="One to seven different numbers, with blanks or semicolons between."
          onChange={(numbers) => onChange({ by: "own", values: numbers })}
        />
        )
      </small>
    </>
  );
}

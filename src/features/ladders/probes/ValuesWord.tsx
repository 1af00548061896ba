"use client";

import { writtenNumber } from "@/study/model/cell-number";
import { ProbeValues } from "@/study/model/probe";
import { formatValue, listed } from "@/study/report/format-number";
import { FieldWord } from "@/ui/parts/FieldWord";
import { SettingWord } from "@/ui/parts/SettingWord";

const VALUES = [
  { value: "sd", label: "low to high (M ± 1 SD)" },
  { value: "percentiles", label: "its 16th to its 84th percentile" },
] as const;

/** Numbers as a person writes them, with blanks or semicolons between; null when they are no values a probe can have. */
function ownValues(typed: string): number[] | null {
  const numbers = typed.replaceAll("−", "-").split(/[;\s]+/).filter(Boolean).map((part) => writtenNumber(part, ",")); // prettier-ignore
  const made = ProbeValues.safeParse({ by: "own", values: numbers });
  return made.success && made.data.by === "own" ? made.data.values : null;
}

/** At which values of a number something is told: words of a sentence. */
export function ValuesWord({ values, name, onChange }: { values: ProbeValues; name: string; onChange: (to: ProbeValues) => void }) {
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
          read={ownValues}
          rule="One to seven different numbers, with blanks or semicolons between."
          onChange={(numbers) => onChange({ by: "own", values: numbers })}
        />
        )
      </small>
    </>
  );
}

"use client";

import type { LadderFit } from "@/core/regression/ladder";
import { columnKey } from "@/core/regression/terms";
import { useStudy } from "@/features/study/study-context";
import type { Hypothesis } from "@/study/model/hypothesis";
import type { Ladder } from "@/study/model/ladder";
import { partsTitle } from "@/study/report/ladder/coefficient-words";
import { EXPECTATIONS, type Expectation, expectationOf, restsChoices, restsKey } from "@/study/report/theory-words";
import { FieldWord } from "@/ui/parts/FieldWord";
import { SettingWord } from "@/ui/parts/SettingWord";
import { restsOnColumn, testableColumns } from "@/features/study/hypothesis-edits";
import css from "./theory.module.css";

/** A hypothesis as a sentence whose words are its settings. */
export function HypothesisSettings(props: {
  hypothesis: Hypothesis;
  code: string;
  fit: LadderFit | null;
  first: boolean;
  onChange: (to: Partial<Hypothesis>) => void;
}) {
  const { hypothesis: h, code, fit, onChange } = props;
  const { study, title } = useStudy();
  const ladder: Ladder | null = study.ladders.find((l) => l.id === h.ladder) ?? null;
  const last = ladder?.steps.length ?? 1;
  const step = Math.min(h.step ?? last, last);
  const columns = ladder ? testableColumns(ladder, step, fit) : [];
  const rests = [{ value: "open", label: "nothing yet" }, ...restsChoices(columns, title)];
  const expects = (Object.entries(EXPECTATIONS) as [Expectation, string][]).map(([value, label]) => ({ value, label }));
  const beta = h.rests.on === "coefficient" && h.rests.metric === "beta";
  const take = (key: string) => {
    const parts = columns.find((one) => `c ${columnKey(one)}` === key);
    if (parts) onChange({ rests: restsOnColumn(parts) });
    else onChange({ rests: { on: key as "open" | "change" }, ...(key === "change" && { claim: "effect", direction: "none" }) });
  };
  return (
    <p className={css.settings}>
      <b>{code}</b>, in{" "}
      <SettingWord
        label="Ladder"
        value={h.ladder}
        text={ladder?.name ?? "a ladder"}
        choices={study.ladders.map((l) => ({ value: l.id, label: l.name }))}
        onChange={(id) => onChange({ ladder: id, step: null, rests: { on: "open" } })}
      />
      {ladder && (
        <>
          {" up to "}
          <SettingWord
            label="Step"
            value={String(step)}
            text={`step ${step}`}
            choices={ladder.steps.map((_, k) => ({ value: String(k + 1), label: `step ${k + 1}` }))}
            onChange={(value) => onChange({ step: Number(value) === last ? null : Number(value) })}
          />
          {h.rests.on === "change" ? ": it rests on " : ": "}
          {h.rests.on !== "change" && (
            <>
              {/* before the number: what is expected then stands before its result */}
              {"expected "}
              <SettingWord
                label="Expected"
                value={expectationOf(h)}
                text={EXPECTATIONS[expectationOf(h)]}
                choices={expects}
                onChange={(value) => {
                  const [claim, direction] = value.split(" ") as [Hypothesis["claim"], Hypothesis["direction"]];
                  onChange({ claim, direction });
                }}
              />
              {", resting on "}
            </>
          )}
          <SettingWord
            label="Rests on"
            main
            value={restsKey(h)}
            text={rests.find(({ value }) => value === restsKey(h))?.label ?? (h.rests.on === "coefficient" ? `the coefficient of ${partsTitle(h.rests.column, title)}` : "nothing yet")} // prettier-ignore
            choices={rests}
            onChange={take}
          />
        </>
      )}
      {h.rests.on === "coefficient" && (
        <>
          {" as "}
          <SettingWord
            label="Metric"
            value={h.rests.metric}
            text={beta ? "β" : "b"}
            choices={[
              { value: "beta", label: "β, in SDs" },
              { value: "b", label: "b, in raw units" },
            ]}
            onChange={(metric) => onChange({ rests: { ...(h.rests as Extract<Hypothesis["rests"], { on: "coefficient" }>), metric: metric as "beta" | "b" } })} // prettier-ignore
          />
          {"; what matters begins at "}
          <FieldWord
            label="Smallest effect that matters"
            text={h.delta === null ? (beta ? "what holds for all" : "nothing said") : String(h.delta)}
            initial={h.delta === null ? "" : String(h.delta)}
            unset={h.delta === null}
            rule={`A size above 0 in ${beta ? "SDs" : "units of b"}; empty for ${beta ? "that of all" : "none"}.`}
            width={90}
            read={(typed) => {
              if (typed.trim() === "") return { delta: null };
              const value = Number(typed.trim().replace(",", "."));
              return Number.isFinite(value) && value >= 0 ? { delta: value } : null;
            }}
            onChange={onChange}
          />
        </>
      )}
      {"; "}
      <SettingWord
        label="Family"
        value={h.family ? "in" : "by itself"}
        text={h.family ? "in the family" : "by itself"}
        choices={[
          { value: "in", label: "in the family" },
          { value: "by itself", label: "by itself" },
        ]}
        onChange={(value) => onChange({ family: value === "in" })}
      />
      {!props.first && (
        <>
          {", "}
          <SettingWord
            label="Place"
            value={h.part ? "part" : "whole"}
            text={h.part ? "a part of the one before" : "a hypothesis of its own"}
            choices={[
              { value: "whole", label: "a hypothesis of its own" },
              { value: "part", label: "a part of the one before" },
            ]}
            onChange={(value) => onChange({ part: value === "part" })}
          />
        </>
      )}
      . In your own words:{" "}
      <FieldWord
        label="In your own words"
        text={h.text === "" ? "as the settings say it" : h.text}
        initial={h.text}
        unset={h.text === ""}
        rule="Up to 500 letters."
        width={420}
        read={(typed) => (typed.length > 500 ? null : { text: typed.trim() })}
        onChange={onChange}
      />
    </p>
  );
}

"use client";

import type { LadderFit } from "@/core/regression/ladder";
import { columnKey } from "@/core/regression/terms";
import { useStudy } from "@/features/study/study-context";
import { hasDirection, type Hypothesis, type RestsOn } from "@/study/model/hypothesis";
import type { Ladder } from "@/study/model/ladder";
import { formatPlain } from "@/study/report/format-number";
import { partsTitle } from "@/study/report/ladder/coefficient-words";
import { EXPECTATIONS, type Expectation, expectationOf, restsChoices, restsKey } from "@/study/report/theory/hypothesis-words";
import { FieldWord } from "@/ui/parts/FieldWord";
import { NumberWord } from "@/ui/parts/NumberWord";
import { SettingWord } from "@/ui/parts/SettingWord";
import { firstOf, restsOnColumn, restsParts, testableColumns } from "@/features/study/hypothesis-edits";
import { RestsWords } from "./RestsWords";
import css from "./theory.module.css";

const LADDER_KINDS: { value: RestsOn["on"]; label: string }[] = [
  { value: "difference", label: "the difference of two β" },
  { value: "slope", label: "the slope at a place of a moderator" },
  { value: "region", label: "the slope over a range of a moderator" },
  { value: "groups", label: "the difference of a coefficient between groups" },
  { value: "means", label: "the difference of two predicted means" },
  { value: "indirect", label: "a path through another, left open" },
];

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
  const parts = restsParts(study, columns, fit);
  const ofLadder = ladder ? LADDER_KINDS.filter(({ value }) => firstOf(value, columns, parts) !== null) : [];
  const rests = [
    { value: "open", label: "nothing yet" },
    ...(ladder ? restsChoices(columns, title) : []),
    ...ofLadder,
    ...(firstOf("correlation", columns, parts) ? [{ value: "correlation", label: "a correlation, of no ladder" }] : []),
  ];
  const directed = hasDirection(h.rests);
  const expects = (Object.entries(EXPECTATIONS) as [Expectation, string][]).map(([value, label]) => ({ value, label }));
  const beta = "metric" in h.rests ? h.rests.metric === "beta" : h.rests.on === "difference" || h.rests.on === "correlation";
  const sized = directed && h.rests.on !== "open" && h.rests.on !== "indirect";
  const take = (key: string) => {
    const column = columns.find((one) => `c ${columnKey(one)}` === key);
    const to = column ? restsOnColumn(column) : firstOf(key as RestsOn["on"], columns, parts);
    if (to) onChange({ rests: to });
  };
  return (
    <p className={css.settings}>
      <b>{code}</b>
      {h.rests.on !== "correlation" && (
        <>
          , in{" "}
          <SettingWord
            label="Ladder"
            value={h.ladder}
            text={ladder?.name ?? "a ladder"}
            choices={study.ladders.map((l) => ({ value: l.id, label: l.name }))}
            onChange={(id) => onChange({ ladder: id, step: null, rests: { on: "open" } })}
          />
          {ladder && " up to "}
          {ladder && (
            <SettingWord
              label="Step"
              value={String(step)}
              text={`step ${step}`}
              choices={ladder.steps.map((_, k) => ({ value: String(k + 1), label: `step ${k + 1}` }))}
              onChange={(value) => onChange({ step: Number(value) === last ? null : Number(value) })}
            />
          )}
        </>
      )}
      {directed ? ": " : ": it rests on "}
      {directed && (
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
        text={rests.find(({ value }) => value === restsKey(h))?.label.replace(", of no ladder", "") ?? (h.rests.on === "coefficient" ? `the coefficient of ${partsTitle(h.rests.column, title)}` : h.rests.on === "open" ? "nothing yet" : LADDER_KINDS.find(({ value }) => value === h.rests.on)?.label ?? "a correlation")} // prettier-ignore
        choices={rests}
        onChange={take}
      />
      <RestsWords rests={h.rests} columns={columns} of={parts} onChange={(to) => onChange({ rests: to })} />
      {"metric" in h.rests && (
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
            onChange={(metric) => onChange({ rests: { ...h.rests, metric } as RestsOn })}
          />
        </>
      )}
      {sized && (
        <>
          {"; what matters begins at "}
          <NumberWord
            label="Smallest effect that matters"
            value={h.delta}
            text={h.delta === null ? (beta ? "what holds for all" : "nothing said") : formatPlain(h.delta)}
            rule={`A size above 0 in ${beta ? "SDs" : "raw units"}; empty for ${beta ? "that of all" : "none"}.`}
            least={0}
            most={1e9}
            width={90}
            onChange={(delta) => onChange({ delta })}
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

"use client";

import { useState } from "react";
import { categoryChoices, numericChoices } from "@/features/study/name-choices";
import { RespondentsWords } from "@/features/study/RespondentsWords";
import { useStudy } from "@/features/study/study-context";
import { type Look, MOST_LOOKED_AT } from "@/study/model/look";
import { counted } from "@/study/report/format-number";
import { levelTitle } from "@/study/report/level-title";
import type { Looked } from "@/study/report/look-words";
import { NameWord } from "@/ui/parts/NameWord";
import page from "@/ui/parts/page.module.css";
import { ChoiceField, SettingWord } from "@/ui/parts/SettingWord";
import { namesOfLadder } from "@/features/study/default-look";
import css from "./first-look.module.css";

const TOLD = { stars: "stars", exact: "exact p", interval: "intervals" } as const;
const LADDER = "ladder ";

/** A look as a sentence whose underlined words are its settings. */
export function LookSentence({ look, found, onChange }: { look: Look; found: Looked | null; onChange: (to: Partial<Look>) => void }) {
  const { study, title } = useStudy();
  const [unfolded, setUnfolded] = useState(false);
  const [adding, setAdding] = useState(false);
  const categories = categoryChoices(study);
  const level = (value: string) => levelTitle(title, look.by ?? "", value);
  const ladders = study.ladders.filter((l) => namesOfLadder(l).length > 0).map((l) => ({ value: `${LADDER}${l.id}`, label: `all of ${l.name}`, group: "Ladders" })); // prettier-ignore
  const add = (value: string) => {
    const ladder = value.startsWith(LADDER) ? study.ladders.find((l) => `${LADDER}${l.id}` === value) : null;
    const names = ladder ? namesOfLadder(ladder) : [value];
    onChange({ variables: [...new Set([...look.variables, ...names])].slice(0, MOST_LOOKED_AT) });
  };
  const levels = found?.groups.map((g) => g.level) ?? [];
  const above = look.above.by === "level" ? level(look.above.level) : look.above.by === "partial" ? "partial correlations" : "nothing";
  const chooseAbove = (value: string) => {
    if (value === "nothing") onChange({ above: { by: "nothing" } });
    else if (value === "partial") onChange({ above: { by: "partial" } });
    else onChange({ above: { by: "level", level: value.slice(1) } });
  };
  const free = (taken: readonly string[]) => [
    ...numericChoices(study, new Set(taken)),
    ...categories.filter((c) => !taken.includes(c.value)),
  ];
  return (
    <>
      <h1 className={page.sentence}>
        <NameWord label="Name of the look" name={look.name} onChange={(name) => onChange({ name })} />
        {": "}
        <button type="button" className={page.word} aria-expanded={unfolded} onClick={() => setUnfolded(!unfolded)}>
          {counted(look.variables.length, "variable")}
        </button>
        <RespondentsWords before=" among" value={look.respondents} onChange={(respondents) => onChange({ respondents })} /> by{" "}
        <SettingWord
          label="Told by"
          value={look.by ?? "-"}
          text={look.by === null ? "nothing" : title(look.by)}
          choices={[{ value: "-", label: "nothing" }, ...categories]}
          onChange={(by) => onChange({ by: by === "-" ? null : by, below: null, ...(look.above.by === "level" ? { above: { by: "nothing" } } : {}) })} // prettier-ignore
        />
        ,{" "}
        <SettingWord
          label="Respondents of a pair"
          value={look.cases}
          text={look.cases === "pairwise" ? "pair by pair" : "complete on all"}
          choices={[
            { value: "pairwise", label: "pair by pair" },
            { value: "complete", label: "complete on all" },
          ]}
          onChange={(cases) => onChange({ cases: cases as Look["cases"] })}
        />
        ;{" "}
        <SettingWord
          label="Correlations"
          value={look.correlation}
          text={look.correlation === "pearson" ? "Pearson's r" : "Spearman's ρ"}
          choices={[
            { value: "pearson", label: "Pearson's r" },
            { value: "spearman", label: "Spearman's ρ" },
          ]}
          onChange={(correlation) => onChange({ correlation: correlation as Look["correlation"] })}
        />{" "}
        with{" "}
        <SettingWord
          label="How tests are told"
          value={look.told}
          text={TOLD[look.told]}
          choices={(["stars", "exact", "interval"] as const).map((value) => ({ value, label: TOLD[value] }))}
          onChange={(told) => onChange({ told: told as Look["told"] })}
        />
        ,{" "}
        <SettingWord
          label="In the diagonal"
          value={look.diagonal}
          text={{ alpha: "α", omega: "ω", nothing: "nothing" }[look.diagonal]}
          choices={[
            { value: "alpha", label: "α" },
            { value: "omega", label: "ω" },
            { value: "nothing", label: "nothing" },
          ]}
          onChange={(diagonal) => onChange({ diagonal: diagonal as Look["diagonal"] })}
        />{" "}
        in the diagonal
        {levels.length > 0 && (
          <>
            ,{" "}
            <SettingWord
              label="Below the diagonal"
              value={look.below === null ? "-" : `=${look.below}`}
              text={look.below === null ? "everybody" : level(look.below)}
              choices={[{ value: "-", label: "everybody" }, ...levels.map((value) => ({ value: `=${value}`, label: level(value) }))]}
              onChange={(value) => onChange({ below: value === "-" ? null : value.slice(1) })}
            />{" "}
            below
          </>
        )}
        ,{" "}
        <SettingWord
          label="Above the diagonal"
          value={look.above.by === "level" ? `=${look.above.level}` : look.above.by}
          text={above}
          choices={[
            { value: "nothing", label: "nothing" },
            { value: "partial", label: "partial correlations" },
            ...levels.map((value) => ({ value: `=${value}`, label: level(value) })),
          ]}
          onChange={chooseAbove}
        />{" "}
        above it
        {look.above.by === "partial" && (
          <>
            , given{" "}
            {look.controls.map((name, i) => (
              <span key={name}>
                {i > 0 && ", "}
                <SettingWord
                  label={`Control ${title(name)}`}
                  value="held"
                  text={title(name)}
                  choices={[
                    { value: "held", label: "held constant" },
                    { value: "out", label: "not held constant" },
                  ]}
                  onChange={(to) => to === "out" && onChange({ controls: look.controls.filter((one) => one !== name) })}
                />
              </span>
            ))}
            {look.controls.length > 0 && " and "}
            <SettingWord
              label="A control"
              value={null}
              text={look.controls.length === 0 ? "a control" : "another"}
              choices={free(look.controls)}
              onChange={(name) => onChange({ controls: [...look.controls, name] })}
            />
          </>
        )}
        .
      </h1>
      {(unfolded || look.variables.length === 0) && (
        <p className={css.variables} aria-label="Variables of the look">
          {look.variables.map((name) => (
            <span key={name} className={css.variable}>
              {title(name)}{" "}
              <button
                type="button"
                className="link"
                aria-label={`Take ${title(name)} out`}
                onClick={() => onChange({ variables: look.variables.filter((one) => one !== name) })}
              >
                ×
              </button>
            </span>
          ))}
          {adding ? (
            <ChoiceField
              aria-label="Add a variable"
              value={null}
              width={260}
              choices={[...ladders, ...free(look.variables)]}
              onChoose={add}
              onDone={() => setAdding(false)}
              onLeave={() => setAdding(false)}
            />
          ) : (
            <button type="button" className="link" onClick={() => setAdding(true)}>
              + variable
            </button>
          )}
        </p>
      )}
    </>
  );
}

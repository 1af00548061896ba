"use client";

import { useState } from "react";
import { useStudy } from "@/features/study/study-context";
import type { ComparedGroup } from "@/study/analyse/analyse-groups";
import { Groups } from "@/study/model/groups";
import { REPLICATES } from "@/study/model/ladder";
import { formatCount, listed } from "@/study/report/format-number";
import { groupName, METRIC_WORDS } from "@/study/report/ladder/groups-words";
import { levelTitle } from "@/study/report/level-title";
import page from "@/ui/parts/page.module.css";
import { SettingWord } from "@/ui/parts/SettingWord";
import css from "./probes.module.css";

/** More groups than this are counted in the sentence, and listed below it when asked for. */
const MOST_WORDS = 6;
const SHUFFLES = [REPLICATES.least, 5000, 20_000, REPLICATES.most] as const;

/** A comparison of groups as a sentence: the variable, each group with its size, what is told, and how often labels are shuffled. */
export function GroupsSentence(props: {
  groups: Groups;
  /** From 1. */
  step: number;
  found: readonly ComparedGroup[] | null;
  variables: readonly string[];
  onChange: (to: Groups) => void;
}) {
  const { groups, found, onChange } = props;
  const { title } = useStudy();
  const [unfolded, setUnfolded] = useState(false);
  const { variable, leftOut, together, metric, shuffles } = groups;
  const level = (value: string) => levelTitle(title, variable, value);
  const change = (to: Partial<Groups>) => onChange(Groups.parse({ ...groups, ...to }));
  const others = (levels: readonly string[]) => together.filter((own) => !own.some((value) => levels.includes(value)));
  const regroup = (levels: readonly string[], choice: string) => {
    if (choice === "out") change({ leftOut: [...leftOut, ...levels], together: others(levels) });
    else if (choice === "apart") change({ together: others(levels) });
    else if (choice.startsWith("with ")) {
      const partner = found![Number(choice.slice(5))]!.levels;
      change({ together: [...others([...levels, ...partner]), [...levels, ...partner]] });
    }
  };
  const groupWords = found?.map((group, g) => (
    <span key={group.name}>
      {g > 0 && ", "}
      <SettingWord
        label={`Group ${groupName(group.levels, variable, title)}`}
        value="own"
        text={`${groupName(group.levels, variable, title)} ${formatCount(group.cases)}`}
        choices={[
          { value: "own", label: "a group of its own" },
          ...(group.levels.length > 1 ? [{ value: "apart", label: "its levels apart again" }] : []),
          ...found.flatMap((other, k) => (k === g ? [] : [{ value: `with ${k}`, label: `one group with ${groupName(other.levels, variable, title)}` }])), // prettier-ignore
          { value: "out", label: "left out" },
        ]}
        onChange={(choice) => regroup(group.levels, choice)}
      />
    </span>
  ));
  return (
    <>
      <h3 className={page.sentence}>
        Does step {props.step} hold alike in every{" "}
        <SettingWord
          label="Variable that makes the groups"
          main
          value={variable}
          text={title(variable)}
          choices={props.variables.map((name) => ({ value: name, label: title(name) }))}
          onChange={(to) => to !== variable && change({ variable: to, leftOut: [], together: [] })}
        />
        ?{" "}
        {found && found.length > MOST_WORDS && (
          <button type="button" className={page.word} aria-expanded={unfolded} onClick={() => setUnfolded(!unfolded)}>
            {found.length} groups
          </button>
        )}
        {found && found.length <= MOST_WORDS && groupWords}
        {leftOut.length > 0 && (
          <>
            {found ? ", " : ""}without{" "}
            <SettingWord
              label="Levels left out"
              value="out"
              text={listed(leftOut.map(level))}
              choices={[
                { value: "out", label: "left out" },
                ...leftOut.map((value) => ({ value: `back ${value}`, label: `compare ${level(value)} too` })),
              ]}
              onChange={(choice) => choice.startsWith("back ") && change({ leftOut: leftOut.filter((value) => value !== choice.slice(5)) })}
            />
          </>
        )}
        {found || leftOut.length > 0 ? "; told in " : "Told in "}
        <SettingWord
          label="What slopes are told in"
          value={metric}
          text={METRIC_WORDS[metric]}
          choices={(["raw", "all", "own"] as const).map((value) => ({ value, label: METRIC_WORDS[value] }))}
          onChange={(to) => change({ metric: to as Groups["metric"] })}
        />
        , labels{" "}
        <span className={css.end}>
          <SettingWord
            label="Shuffles of the labels"
            value={String(shuffles ?? 0)}
            text={shuffles === null ? "not shuffled" : `shuffled ${formatCount(shuffles)} times`}
            choices={[
              { value: "0", label: "not shuffled" },
              ...SHUFFLES.map((many) => ({ value: String(many), label: `shuffled ${formatCount(many)} times` })),
            ]}
            onChange={(to) => change({ shuffles: to === "0" ? null : Number(to) })}
          />
          .
        </span>
      </h3>
      {found && found.length > MOST_WORDS && unfolded && <p className={css.groupWords}>{groupWords}</p>}
    </>
  );
}

"use client";

import { columnKey, type Part } from "@/core/regression/terms";
import { categoryChoices, numericChoices } from "@/features/study/name-choices";
import { useStudy } from "@/features/study/study-context";
import type { RestsParts } from "@/features/study/hypothesis-edits";
import { ColumnParts } from "@/study/model/column-parts";
import type { HeldPlace, RestsOn } from "@/study/model/hypothesis";
import { partsTitle } from "@/study/report/ladder/coefficient-words";
import { formatPlain } from "@/study/report/format-number";
import { levelTitle } from "@/study/report/level-title";
import { heldWords } from "@/study/report/theory/hypothesis-words";
import type { Choice } from "@/ui/parts/choice";
import { NumberWord } from "@/ui/parts/NumberWord";
import { SettingWord } from "@/ui/parts/SettingWord";

interface Props {
  rests: RestsOn;
  columns: readonly (readonly Part[])[];
  of: RestsParts;
  onChange: (rests: RestsOn) => void;
}

/** The words that say which number exactly: of what, against what, where. */
export function RestsWords({ rests, columns, of, onChange }: Props) {
  const { study, title } = useStudy();
  const column = (label: string, parts: readonly Part[], among: readonly (readonly Part[])[], take: (parts: ColumnParts) => void) => (
    <SettingWord
      label={label}
      value={columnKey(parts)}
      text={partsTitle(parts, title)}
      choices={among.map((one) => ({ value: columnKey(one), label: partsTitle(one, title) }))}
      onChange={(key) => take(ColumnParts.parse(among.find((one) => columnKey(one) === key)))}
    />
  );
  const name = (label: string, value: string, choices: readonly Choice[], take: (name: string) => void) => (
    <SettingWord label={label} value={value} text={title(value)} choices={choices} onChange={take} />
  );
  const level = (label: string, variable: string, value: string, take: (level: string) => void) => (
    <SettingWord
      label={label}
      value={value}
      text={levelTitle(title, variable, value)}
      choices={(of.levels.get(variable) ?? []).map((one) => ({ value: one, label: levelTitle(title, variable, one) }))}
      onChange={take}
    />
  );
  const end = (label: string, value: number | null, none: string, take: (value: number | null) => void) => (
    <NumberWord
      label={label}
      value={value}
      text={value === null ? none : formatPlain(value)}
      rule={`A number; empty for ${none}.`}
      width={80}
      onChange={take}
    />
  );
  const named = (names: readonly string[]) => names.map((one) => ({ value: one, label: title(one) }));
  switch (rests.on) {
    case "difference": {
      const single = columns.filter((parts) => parts.length === 1 || rests.first.length > 1);
      return (
        <>
          {" of "}
          {column("First β", rests.first, single, (first) => onChange({ ...rests, first }))} minus that of{" "}
          {column("Second β", rests.second, single, (second) => onChange({ ...rests, second }))}
        </>
      );
    }
    case "slope":
    case "region": {
      const numbersOnly = rests.on === "region";
      const able = of.products.filter(({ moderator }) => !numbersOnly || !of.levels.has(moderator));
      return (
        <>
          {" of "}
          <SettingWord
            label="Slope of"
            value={JSON.stringify([rests.focal, rests.moderator])}
            text={`${title(rests.focal.variable, rests.focal.level)} by ${title(rests.moderator)}`}
            choices={able.map(({ focal, moderator }) => ({
              value: JSON.stringify([focal, moderator]),
              label: `${title(focal.variable, focal.level)} by ${title(moderator)}`,
            }))}
            onChange={(value) => {
              const [focal, moderator] = JSON.parse(value) as [Part, string];
              const levels = of.levels.get(moderator);
              const at: HeldPlace = levels ? { level: levels[0]! } : { place: "high" };
              onChange(numbersOnly ? { ...rests, focal, moderator } : { ...(rests as Extract<RestsOn, { on: "slope" }>), focal, moderator, at }); // prettier-ignore
            }}
          />
          {rests.on === "slope" ? (
            <>
              {", where it is "}
              {"level" in rests.at ? (
                level("Moderator’s place", rests.moderator, rests.at.level, (to) => onChange({ ...rests, at: { level: to } }))
              ) : (
                <SettingWord
                  label="Moderator’s place"
                  value={"place" in rests.at ? rests.at.place : "value"}
                  text={"place" in rests.at ? heldWords(rests.at, rests.moderator, title) : "at a value"}
                  choices={[
                    ...(["low", "mean", "high"] as const).map((place) => ({
                      value: place,
                      label: heldWords({ place }, rests.moderator, title),
                    })),
                    { value: "value", label: "at a value" },
                  ]}
                  onChange={(to) => onChange({ ...rests, at: to === "value" ? { value: 0 } : { place: to as "low" } })}
                />
              )}
              {"value" in rests.at && (
                <>
                  {" of "}
                  <NumberWord
                    label="Value"
                    value={rests.at.value}
                    text={formatPlain(rests.at.value)}
                    rule="A number."
                    required
                    width={80}
                    onChange={(value) => onChange({ ...rests, at: { value: value ?? 0 } })}
                  />
                </>
              )}
            </>
          ) : (
            <>
              {", from "}
              {end("From", rests.from, "the lowest", (from) => onChange({ ...rests, from }))}
              {" to "}
              {end("To", rests.to, "the highest", (to) => onChange({ ...rests, to }))}
            </>
          )}
        </>
      );
    }
    case "groups": {
      const levels = of.levels.get(rests.variable) ?? [];
      const alike = rests.first === null || rests.second === null;
      return (
        <>
          {" of "}
          {column("Coefficient", rests.column, columns, (to) => onChange({ ...rests, column: to }))} between the groups of{" "}
          {name(
            "Variable that makes the groups",
            rests.variable,
            categoryChoices(study).filter(({ value }) => of.levels.has(value)),
            (variable) => {
              const [first, second] = of.levels.get(variable)!;
              onChange({ ...rests, variable, first: first!, second: second! });
            },
          )}
          {": "}
          <SettingWord
            label="Which groups"
            value={alike ? "all" : "two"}
            text={alike ? "all of them" : "two of them"}
            choices={[
              { value: "two", label: "two of them" },
              { value: "all", label: "all of them" },
            ]}
            onChange={(to) => onChange({ ...rests, first: to === "all" ? null : levels[0]!, second: to === "all" ? null : levels[1]! })}
          />
          {rests.first !== null && rests.second !== null && (
            <>
              {", "}
              {level("First group", rests.variable, rests.first, (first) => onChange({ ...rests, first }))} minus{" "}
              {level("Second group", rests.variable, rests.second, (second) => onChange({ ...rests, second }))}
            </>
          )}
        </>
      );
    }
    case "means":
      return (
        <>
          {" of "}
          {name("Category", rests.variable, named(of.categories), (variable) => {
            const [first, second] = of.levels.get(variable)!;
            onChange({ ...rests, variable, first: first!, second: second! });
          })}
          {": "}
          {level("First level", rests.variable, rests.first, (first) => onChange({ ...rests, first }))} minus{" "}
          {level("Second level", rests.variable, rests.second, (second) => onChange({ ...rests, second }))}
        </>
      );
    case "correlation":
      return (
        <>
          {" of "}
          {name("First of the two", rests.x, numericChoices(study, new Set([rests.y])), (x) => onChange({ ...rests, x }))} and{" "}
          {name("Second of the two", rests.y, numericChoices(study, new Set([rests.x])), (y) => onChange({ ...rests, y }))}
          {study.filters.length > 0 && (
            <>
              {" among "}
              <SettingWord
                label="Respondents"
                value={rests.respondents ?? ""}
                text={study.filters.find((f) => f.id === rests.respondents)?.name ?? "all respondents"}
                choices={[{ value: "", label: "all respondents" }, ...study.filters.map((f) => ({ value: f.id, label: f.name }))]}
                onChange={(id) => onChange({ ...rests, respondents: id === "" ? null : id })}
              />
            </>
          )}
        </>
      );
    case "indirect":
      return (
        <>
          {" from "}
          {name("From", rests.from, named(of.singles), (from) => onChange({ ...rests, from }))} through{" "}
          {name("Through", rests.through, named(of.singles), (through) => onChange({ ...rests, through }))}
        </>
      );
    default:
      return null;
  }
}

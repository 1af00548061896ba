"use client";

import { useStudy } from "@/features/study/study-context";
import type { BlockOf, TableOptions } from "@/study/model/block";
import { listed } from "@/study/report/format-number";
import type { Source } from "@/study/report/document/source";
import { movingOptions, stepsInCommon, TABLES } from "@/study/report/document/tables";
import { SettingWord } from "@/ui/parts/SettingWord";
import { objectName } from "./block-names";
import css from "./write-up.module.css";

const METRIC = { both: "b and β", beta: "β alone", b: "b alone" } as const;
const SPREAD = { both: "SE and intervals", se: "SE", interval: "intervals", neither: "neither SE nor intervals" } as const;
const TESTS = { p: "exact p", stars: "stars", both: "exact p and stars", neither: "no tests" } as const;
const FORM = { below: "one below the other", beside: "side by side" } as const;
const ORDER = { "as it stands": "as they stand", "by size": "by size", "by name": "by name" } as const;
/** A look has one way of telling a test in each cell. */
const LOOK_TESTS = { stars: "stars", p: "exact p", neither: "intervals" } as const;

/** A table's settings, as words of a sentence. */
export function TableSentence(props: { what: BlockOf<"table">; source: Source; onChange: (to: BlockOf<"table">) => void }) {
  const { what, source, onChange } = props;
  const { study, title } = useStudy();
  const { options, of } = what;
  const moving = new Set(movingOptions(what, source));
  const set = (to: Partial<TableOptions>) => onChange({ ...what, options: { ...options, ...to } });
  const word = <K extends keyof TableOptions & string>(key: K, label: string, words: Readonly<Record<string, string>>) => (
    <SettingWord
      label={label}
      value={String(options[key])}
      text={words[String(options[key])] ?? Object.values(words)[0]!}
      choices={Object.entries(words).map(([value, text]) => ({ value, label: text }))}
      onChange={(value) => set({ [key]: key === "decimals" ? Number(value) : value })}
    />
  );
  const named = of.ids.map((id) => objectName(id, study, title)).filter((name) => name !== "");
  const ladder = study.ladders.find((l) => l.id === of.ids[0]);
  const others = of.kind === "coefficients" ? study.ladders.filter((l) => !of.ids.includes(l.id) && l.outcome !== null) : [];
  const told = ladder?.steps.filter((step) => !options.without.includes(step.id)) ?? [];
  const stepWords = ladder && told.length === ladder.steps.length ? "all steps" : `${told.length === 1 ? "step" : "steps"} ${listed(told.map((step) => String(ladder!.steps.indexOf(step) + 1)))}`; // prettier-ignore
  const toggle = (id: string) => {
    const without = options.without.includes(id) ? options.without.filter((one) => one !== id) : [...options.without, id];
    if (without.length < (ladder?.steps.length ?? 0)) set({ without });
  };
  return (
    <p className={css.sentence}>
      The table of {TABLES[of.kind].words}
      {named.length > 0 && ` of ${listed(named)}`}
      {others.length > 0 && of.ids.length < 4 && (
        <>
          {", "}
          <SettingWord
            label="Beside another"
            value="-"
            text={of.ids.length === 1 ? "by itself" : "and no other"}
            choices={others.map((l) => ({ value: l.id, label: `with ${l.name}` }))}
            onChange={(id) => onChange({ ...what, of: { ...of, ids: [...of.ids, id] } })}
          />
        </>
      )}
      {of.ids.length > 1 && of.kind === "coefficients" && (
        <>
          {", "}
          <SettingWord
            label="Without one"
            value="-"
            text="all of them"
            choices={of.ids.map((id) => ({ value: id, label: `without ${objectName(id, study, title)}` }))}
            onChange={(id) => onChange({ ...what, of: { ...of, ids: of.ids.filter((one) => one !== id) } })}
          />
        </>
      )}
      {moving.has("without") && (
        <>
          {", "}
          <SettingWord
            label="Steps"
            value="-"
            text={stepWords}
            choices={ladder!.steps.map((step, k) => ({ value: step.id, label: `${options.without.includes(step.id) ? "with" : "without"} step ${k + 1}${step.name === "" ? "" : `, ${step.name}`}` }))} // prettier-ignore
            onChange={toggle}
          />
        </>
      )}
      {moving.has("step") && (
        <>
          {", "}
          <SettingWord
            label="Step"
            value={String(options.step)}
            text={options.step === null ? "the last step of each" : `step ${options.step} of each`}
            choices={[null, ...Array.from({ length: stepsInCommon(of.ids, study) }, (_, k) => k + 1)].map((k) => ({ value: String(k), label: k === null ? "the last step of each" : `step ${k} of each` }))} // prettier-ignore
            onChange={(value) => set({ step: value === "null" ? null : Number(value) })}
          />
        </>
      )}
      {moving.has("form") && <> {word("form", "Form", FORM)}</>}
      {moving.has("metric") && <>, {word("metric", "Coefficients", METRIC)}</>}
      {moving.has("spread") && <>, with {word("spread", "How sure they are", SPREAD)}</>}
      {moving.has("tests") && <>, {word("tests", "Tests", of.kind === "look" ? LOOK_TESTS : TESTS)}</>}
      {moving.has("decimals") && <>, {word("decimals", "Decimals", { 2: "two decimals", 3: "three decimals", 4: "four decimals" })}</>}
      {moving.has("order") && <>, {word("order", "Order", ORDER)}</>}.
    </p>
  );
}

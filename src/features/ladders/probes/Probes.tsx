"use client";

import { useRouter } from "next/navigation";
import { useMemo } from "react";
import { columnKey } from "@/core/regression/terms";
import { newHypothesis, restsOnColumn, testableColumns } from "@/features/study/hypothesis-edits";
import type { LadderFit } from "@/core/regression/ladder";
import { useStudy } from "@/features/study/study-context";
import { Groups } from "@/study/model/groups";
import type { Ladder } from "@/study/model/ladder";
import { newId } from "@/study/model/new-id";
import { partsTitle } from "@/study/report/ladder/coefficient-words";
import { restsChoices } from "@/study/report/theory/hypothesis-words";
import { laterPart } from "@/ui/parts/later";
import page from "@/ui/parts/page.module.css";
import { SettingWord } from "@/ui/parts/SettingWord";
import { useOpen } from "../use-open";
import { groupMakers, isAsked } from "./asked";
import css from "./probes.module.css";
import { shiftChoices, shiftEdit, stepQuestions } from "./step-questions";

const ProbeSheets = laterPart(() => import("./ProbeSheets").then((of) => of.ProbeSheets));

/** What can be asked of the selected step, and what has been: each with its answer, in order. */
export function Probes({ ladder, step, fit }: { ladder: Ladder; step: number; fit: LadderFit }) {
  const { study, store, title } = useStudy();
  const { open: openUp } = useOpen();
  const router = useRouter();
  const [questions, still] = useMemo(
    () => [stepQuestions(study, ladder, step, fit, title), shiftChoices(study, ladder, step, fit).filter(({ moved }) => !moved)],
    [study, ladder, step, fit, title],
  );
  const grouped = study.groups.filter((one) => one.ladder === ladder.id);
  const unasked = groupMakers(study, ladder).filter(
    (name) => !grouped.some((g) => g.variable === name && (g.step ?? ladder.steps.length) === step + 1),
  );
  const tell = (variable: string) => {
    const id = newId(`groups by ${variable}`, study.groups.map((g) => g.id)); // prettier-ignore
    const at = step + 1 === ladder.steps.length ? null : step + 1;
    store.edit({ subject: "groups", id, to: Groups.parse({ id, ladder: ladder.id, step: at, variable }) });
  };
  const columns = testableColumns(ladder, step + 1, fit);
  const claimed = restsChoices(columns, title);
  const claim = (key: string) => {
    const parts = columns.find((one) => `c ${columnKey(one)}` === key);
    const at = step + 1 === ladder.steps.length ? null : step + 1;
    // its numbers stand above: no direction stood before them
    const made = newHypothesis(
      study,
      { ladder: ladder.id, step: at, rests: parts ? restsOnColumn(parts) : { on: "change" } },
      true,
      new Date().toISOString(),
    );
    if (store.edit(...made.edits)) router.push(`/studies/${store.id}/theory?hypothesis=${made.id}`);
  };
  const open = questions.length + still.length + unasked.length > 0;
  const asked = isAsked(study, ladder);
  if (!asked && !open) return null;
  return (
    <section aria-label="Probes" className={css.probes}>
      {asked && <ProbeSheets ladder={ladder} fit={fit} />}
      {open && (
        <div className={css.offers}>
          <h2 className={page.heading}>To ask of step {step + 1}</h2>
          <ul>
            {questions.map(({ text, edit, comparison }) => (
              <li key={text}>
                <button
                  type="button"
                  className="link"
                  onClick={() => store.edit(edit) && comparison !== undefined && openUp({ comparison })}
                >
                  {text}
                </button>
              </li>
            ))}
            {still.length > 0 && (
              <li>
                Why did the coefficient of{" "}
                <SettingWord
                  label="Coefficient that changed"
                  value={null}
                  text="a predictor"
                  choices={still.map(({ key }) => ({ value: key, label: partsTitle(fit.parts.get(key)!, title) }))}
                  onChange={(key) => store.edit(shiftEdit(study, ladder, step, fit, key))}
                />{" "}
                change from step {step}?
              </li>
            )}
            {claimed.length > 0 && (
              <li>
                Make a hypothesis of{" "}
                <SettingWord
                  label="What a hypothesis rests on"
                  value={null}
                  text="a number of this step"
                  choices={claimed}
                  onChange={claim}
                />
              </li>
            )}
            {unasked.length > 0 && (
              <li>
                Does it hold alike in every group of{" "}
                <SettingWord
                  label="Variable that makes the groups"
                  value={null}
                  text="a variable"
                  choices={unasked.map((name) => ({ value: name, label: title(name) }))}
                  onChange={tell}
                />
                ?
              </li>
            )}
          </ul>
        </div>
      )}
    </section>
  );
}

"use client";

import type { CSSProperties } from "react";
import type { LadderFit } from "@/core/regression/ladder";
import { termIdentity, termName } from "@/core/regression/terms";
import type { Ladder } from "@/study/model/ladder";
import type { Study } from "@/study/model/study";
import { titleOf } from "@/study/model/study";
import { formatNumber, formatP, formatShare } from "@/study/report/format-number";
import { columnTitle } from "@/study/report/ladder-words";
import { layoutRise } from "@/ui/charts/layout-rise";
import { RiseBar } from "@/ui/charts/RiseBar";
import { FieldWord } from "@/ui/parts/FieldWord";
import page from "@/ui/parts/page.module.css";
import { stepColour } from "@/ui/theme/step-colours";
import { termChoices, termOf } from "./choices";
import { addStep, addTerm, nameStep, removeStep, removeTerm } from "./ladder-edits";
import css from "./ladders.module.css";
import { TermAdder } from "./TermAdder";

const RISE_WIDTH = 230;

/** How a category among the components is coded, short enough for a chip: "category against in person". */
function codingOf(components: readonly string[], study: Study, ladder: Ladder): string | null {
  const names = components.filter((name) => study.codebook.some((v) => v.name === name && v.kind === "category"));
  if (names.length === 0 || components.length > 1) return null;
  const variable = study.codebook.find((v) => v.name === names[0])!;
  const coding = ladder.categories.find((c) => c.variable === variable.name);
  const value = coding?.reference ?? variable.levels[0]?.value;
  if (coding?.coding === "deviation") return "category, deviations from the mean of its levels";
  const label = variable.levels.find((l) => l.value === value)?.label || value;
  return label === undefined ? "category" : `category, against ${label}`;
}

/** The flight of steps: terms as chips, the rise of R² to scale, and each step's test. */
export function Steps(props: {
  study: Study;
  ladder: Ladder;
  fit: LadderFit | null;
  outdated: boolean;
  onChange: (ladder: Ladder) => void;
}) {
  const { study, ladder, fit, onChange } = props;
  // numbers of an older shape of the ladder stay only while its steps are as many
  const shown = fit && fit.steps.length === ladder.steps.length ? fit : null;
  const rise = layoutRise(shown?.steps.map((s) => ({ R2: s.model.R2, change: s.change.change })) ?? [], RISE_WIDTH);
  const choices = termChoices(study, ladder);
  const title = (name: string) => titleOf(study, name);
  return (
    <>
      <ol className={css.flight} aria-label="Steps">
        {ladder.steps.map((step, k) => {
          const numbers = shown?.steps[k];
          return (
            <li key={step.id} className={css.step} style={{ "--step": stepColour(k) } as CSSProperties} data-testid={`step-${k + 1}`}>
              <div className={css.stepName}>
                <b>Step {k + 1}</b>
                <FieldWord
                  label={`Name of step ${k + 1}`}
                  text={step.name || "name it"}
                  initial={step.name}
                  className={css.stepTitle}
                  width={150}
                  read={(typed) => (typed.length <= 200 ? typed.trim() : null)}
                  rule="At most 200 characters."
                  onChange={(name) => onChange(nameStep(ladder, k, name))}
                />
              </div>
              <div className={css.terms}>
                {step.terms.map((term) => {
                  const words = columnTitle(termName(term), title);
                  return (
                    <span key={termIdentity(term)} className={css.chip}>
                      <span>
                        {words}
                        {codingOf(term.components, study, ladder) && <small>{codingOf(term.components, study, ladder)}</small>}
                      </span>
                      <button
                        type="button"
                        aria-label={`Remove ${words} from step ${k + 1}`}
                        onClick={() => onChange(removeTerm(ladder, k, term))}
                      >
                        ×
                      </button>
                    </span>
                  );
                })}
                <TermAdder step={k} choices={choices} onAdd={(value) => onChange(addTerm(ladder, k, termOf(value)))} />
                {ladder.steps.length > 1 && step.terms.length === 0 && (
                  <button
                    type="button"
                    className={css.add}
                    onClick={() => onChange(removeStep(ladder, k))}
                    aria-label={`Remove step ${k + 1}`}
                  >
                    remove step
                  </button>
                )}
              </div>
              {numbers ? (
                <>
                  <div className={`${css.rise} ${props.outdated ? page.outdated : ""}`}>
                    <RiseBar
                      bar={rise.bars[k]!}
                      width={RISE_WIDTH}
                      height={52}
                      colour={stepColour(k)}
                      last={k === ladder.steps.length - 1}
                      label={`Step ${k + 1} raises R² by ${formatShare(numbers.change.change, 3)} to ${formatShare(numbers.model.R2, 3)}`}
                    />
                  </div>
                  <div className={`${css.share} ${props.outdated ? page.outdated : ""}`}>
                    <i>R</i>² <span data-testid="r2">{formatShare(numbers.model.R2, 3)}</span>
                    <br />
                    <b>
                      Δ<i>R</i>² <span data-testid="delta-r2">{formatShare(numbers.change.change, 3)}</span>
                    </b>
                  </div>
                  <div className={`${css.test} ${props.outdated ? page.outdated : ""}`}>
                    {numbers.change.F === null ? (
                      <span className="quiet">no test: see Watch</span>
                    ) : (
                      <>
                        <i>F</i>({numbers.change.df[0]}, {numbers.change.df[1]}) = {formatNumber(numbers.change.F)}
                        <br />
                        <i>p</i> {numbers.change.p! < 0.001 ? "< .001" : `= ${formatP(numbers.change.p)}`}
                      </>
                    )}
                  </div>
                </>
              ) : null}
            </li>
          );
        })}
      </ol>
      <div className={css.below}>
        <button type="button" className="link" onClick={() => onChange(addStep(ladder))}>
          + Step
        </button>
        {shown && (
          <span className="quiet">
            Rise of <i>R</i>², full width = {formatShare(rise.top, 2)}
          </span>
        )}
      </div>
    </>
  );
}

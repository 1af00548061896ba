"use client";

import { listed } from "@/study/report/format-number";
import { termIdentity, termParts } from "@/core/regression/terms";
import { partsTitle } from "@/study/report/ladder/coefficient-words";
import type { Ladder } from "@/study/model/ladder";
import {
  addStep,
  copyStep,
  MOST_COMPONENTS,
  moveStep,
  moveTerm,
  multiply,
  type PlacedTerm,
  removeStep,
  removeTerm,
  switchStep,
  switchTerm,
} from "../ladder-edits";
import css from "./flight.module.css";

interface Props {
  ladder: Ladder;
  /** Terms that are chosen; with none, the bar is about the step. */
  chosen: readonly PlacedTerm[];
  step: number;
  title: (name: string) => string;
  isNumber: (name: string) => boolean;
  onChange: (ladder: Ladder) => void;
  onLeave: () => void;
}

/** What can be done with the terms that are chosen, or with the step. One line that is always there, so that nothing moves. */
export function ChosenBar(props: Props) {
  return (
    <div
      className={css.chosenBar}
      role="group"
      aria-label={props.chosen.length > 0 ? "What to do with the chosen terms" : "What to do with the step"}
    >
      {props.chosen.length > 0 ? <TermWays {...props} /> : <StepWays {...props} />}
    </div>
  );
}

function TermWays({ ladder, chosen, title, isNumber, onChange, onLeave }: Props) {
  const names = chosen.map((t) => partsTitle(termParts(t), title));
  const one = chosen.length === 1 ? chosen[0]! : null;
  const square = one && one.components.length === 1 && isNumber(one.components[0]!);
  const many = chosen.length === 2 || chosen.length === 3;
  const size = chosen.reduce((sum, t) => sum + t.components.length, 0);
  const product = square || (many && size <= MOST_COMPONENTS) ? multiply(ladder, chosen) : null;
  const off = chosen.every((t) => termOf(ladder, t)?.off);
  const done = (to: Ladder) => {
    onChange(to);
    onLeave();
  };
  const each = (change: (to: Ladder, term: PlacedTerm) => Ladder) => done(chosen.reduce(change, ladder));
  const moveTo = (to: number) => each((now, term) => (term.step === to ? now : moveTerm(now, term, to)));
  return (
    <>
      <span className={css.what}>{listed(names)}:</span>
      {product && (
        <button
          type="button"
          className="link"
          aria-label={square ? "Square" : `Multiply ${names.join(" × ")}`}
          onClick={() => done(product)}
        >
          {square ? "Square" : "Multiply"}
        </button>
      )}
      <button
        type="button"
        className="link"
        onClick={() => each((now, term) => (Boolean(termOf(now, term)?.off) === off ? switchTerm(now, term) : now))}
      >
        {off ? "Switch on" : "Switch off"}
      </button>
      <span>
        Move to step{" "}
        {ladder.steps.map((step, k) => (
          <button key={step.id} type="button" className={css.number} aria-label={`Move to step ${k + 1}`} onClick={() => moveTo(k)}>
            {k + 1}
          </button>
        ))}
        <button
          type="button"
          className={css.number}
          aria-label="Move to a new step"
          onClick={() => done(chosen.reduce((now, term) => moveTerm(now, term, ladder.steps.length), addStep(ladder)))}
        >
          new
        </button>
      </span>
      <button type="button" className="link" onClick={() => each((now, term) => removeTerm(now, term.step, term))}>
        Take out
      </button>
      <button type="button" className="link" onClick={onLeave}>
        Choose none
      </button>
    </>
  );
}

function termOf(ladder: Ladder, { step, components }: PlacedTerm) {
  const key = termIdentity({ components });
  return ladder.steps[step]?.terms.find((t) => termIdentity(t) === key);
}

function StepWays({ ladder, step, onChange }: Props) {
  const off = ladder.steps[step]!.off;
  const last = ladder.steps.length - 1;
  return (
    <>
      <span className={css.what}>Step {step + 1}:</span>
      <button type="button" className="link" disabled={step === 0} onClick={() => onChange(moveStep(ladder, step, step - 1))}>
        Move up
      </button>
      <button type="button" className="link" disabled={step === last} onClick={() => onChange(moveStep(ladder, step, step + 1))}>
        Move down
      </button>
      <button
        type="button"
        className="link"
        title="A second version below it, switched off: change it, then switch it on in place of the first"
        onClick={() => onChange(copyStep(ladder, step))}
      >
        Copy
      </button>
      <button type="button" className="link" onClick={() => onChange(switchStep(ladder, step))}>
        {off ? "Switch on" : "Switch off"}
      </button>
      <button
        type="button"
        className="link"
        disabled={last === 0}
        aria-label={`Remove step ${step + 1}`}
        onClick={() => onChange(removeStep(ladder, step))}
      >
        Take out
      </button>
      <span className="quiet">Choose terms by clicking them to multiply, move or switch them.</span>
    </>
  );
}

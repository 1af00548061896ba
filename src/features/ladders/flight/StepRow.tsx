"use client";

import type { CSSProperties } from "react";
import { termIdentity } from "@/core/regression/terms";
import type { LadderFit, StepFit } from "@/core/regression/ladder";
import type { Ladder } from "@/study/model/ladder";
import type { Study } from "@/study/model/study";
import type { RiseBar as Layout } from "@/ui/charts/layout-rise";
import { FieldWord } from "@/ui/parts/FieldWord";
import type { Choice } from "@/ui/parts/choice";
import { stepColour } from "@/ui/theme/step-colours";
import { termOf } from "../choices";
import { addTerm, nameStep, type PlacedTerm, switchStep } from "../ladder-edits";
import { stepButtonId } from "./element-ids";
import css from "./flight.module.css";
import { useCarry, useDropPlace } from "./ladders-drag";
import { StepFigures } from "./StepFigures";
import { TermAdder } from "./TermAdder";
import { TermChip } from "./TermChip";
import type { FlightKeys } from "./use-flight-keys";

/** One step: its name, its terms as chips, and its figures. */
export function StepRow(props: {
  study: Study;
  ladder: Ladder;
  at: number;
  fit: LadderFit | null;
  numbers: StepFit | null;
  bar: Layout | null;
  riseWidth: number;
  outdated: boolean;
  adjusted: boolean;
  percent: string;
  selected: boolean;
  choices: readonly Choice[];
  title: (name: string) => string;
  isChosen: (term: PlacedTerm) => boolean;
  keys: FlightKeys;
  onSelect: () => void;
  onChoose: (term: PlacedTerm) => void;
  onChange: (ladder: Ladder) => void;
}) {
  const { study, ladder, at, fit, title, onChange } = props;
  const step = ladder.steps[at]!;
  const { attach: attachPlace, isOver } = useDropPlace(`step ${step.id}`, { kind: "step", step: at });
  const { attach: attachCarry, onPointerDown, isDragging } = useCarry(`carry ${step.id}`, { kind: "step", step: at }, `Step ${at + 1}`);
  return (
    <li
      ref={attachPlace}
      className={css.step}
      style={{ "--step": stepColour(at) } as CSSProperties}
      data-testid={`step-${at + 1}`}
      data-selected={props.selected || undefined}
      data-over={isOver || undefined}
      data-lifted={isDragging || undefined}
    >
      <div className={css.stepName}>
        <button
          ref={attachCarry}
          id={stepButtonId(step.id)}
          type="button"
          className={css.stepNumber}
          aria-pressed={props.selected}
          title="Show this step below. Carry it, or press Shift with the arrow keys, to another place."
          onPointerDown={onPointerDown}
          onClick={props.onSelect}
          onKeyDown={(event) => props.keys.onStepKey(event, at)}
        >
          Step {at + 1}
        </button>
        <FieldWord
          label={`Name of step ${at + 1}`}
          text={step.name || "name it"}
          initial={step.name}
          className={css.stepTitle}
          width={150}
          read={(typed) => (typed.length <= 200 ? typed.trim() : null)}
          rule="At most 200 characters."
          onChange={(name) => onChange(nameStep(ladder, at, name))}
        />
      </div>
      <div className={css.terms}>
        {step.terms.map((term, place) => (
          <TermChip
            key={termIdentity(term)}
            study={study}
            ladder={ladder}
            step={at}
            place={place}
            term={term}
            title={title}
            table={fit?.tables.find((t) => t.variable === term.components[0]) ?? null}
            chosen={props.isChosen({ step: at, components: term.components })}
            onChoose={() => props.onChoose({ step: at, components: term.components })}
            keys={props.keys}
            onChange={onChange}
          />
        ))}
        <TermAdder step={at} choices={props.choices} onAdd={(value) => onChange(addTerm(ladder, at, termOf(value)))} />
      </div>
      {step.off ? (
        <div className={css.offWords}>
          switched off{" "}
          <button type="button" className="link" aria-label={`Switch step ${at + 1} on`} onClick={() => onChange(switchStep(ladder, at))}>
            Switch on
          </button>
        </div>
      ) : (
        props.numbers &&
        props.bar && (
          <StepFigures
            numbers={props.numbers}
            bar={props.bar}
            width={props.riseWidth}
            step={at}
            last={at === ladder.steps.length - 1}
            outdated={props.outdated}
            adjusted={props.adjusted}
            percent={props.percent}
          />
        )
      )}
    </li>
  );
}

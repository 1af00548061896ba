"use client";

import type { Titles } from "@/study/report/level-title";
import { useDeferredValue, useMemo, useState } from "react";
import { termIdentity } from "@/core/regression/terms";
import type { LadderFit } from "@/core/regression/ladder";
import type { Ladder } from "@/study/model/ladder";
import type { Study } from "@/study/model/study";
import { titleOf } from "@/study/model/study";
import { formatShare } from "@/study/report/format-number";
import { useRemembered } from "@/features/study/use-remembered";
import { layoutRise } from "@/ui/charts/layout-rise";
import { termChoices } from "../choices";
import { addStep, type PlacedTerm } from "../ladder-edits";
import { ChosenBar } from "./ChosenBar";
import css from "./flight.module.css";
import { useDropPlace } from "./ladders-drag";
import { StepRow } from "./StepRow";
import { useFlightKeys } from "./use-flight-keys";

const RISE_WIDTH = 230;
const identityOf = (term: PlacedTerm) => `${term.step} ${termIdentity(term)}`;
const yesNo = (kept: unknown) => (typeof kept === "boolean" ? kept : null);

/** The flight of steps: terms as chips, the rise of R² to scale, and each step's test. */
export function Flight(props: {
  study: Study;
  ladder: Ladder;
  fit: LadderFit | null;
  /** Ids of the steps the numbers belong to: a step keeps its own, greyed, while others come and go. */
  stepIds: readonly string[];
  outdated: boolean;
  percent: string;
  selected: number;
  onSelect: (step: number) => void;
  onChange: (ladder: Ladder) => void;
}) {
  const { study, ladder, fit, onChange } = props;
  const [chosen, setChosen] = useState<readonly PlacedTerm[]>([]);
  const [said, say] = useState("");
  const [adjusted, setAdjusted] = useRemembered("adjusted", yesNo, false);
  const { attach, isOver, carrying } = useDropPlace("new step", { kind: "new-step" });
  const keys = useFlightKeys(ladder, onChange, say);
  const title: Titles = (name, level) => titleOf(study, name, level);
  const numbersOf = (id: string) => fit?.steps[props.stepIds.indexOf(id)] ?? null;
  const shown = ladder.steps.map((step) => numbersOf(step.id));
  const rise = layoutRise(
    shown.map((s) => (s ? { R2: s.model.R2, change: s.change.change, interval: s.changeInterval } : { R2: 0, change: 0, interval: null })),
    RISE_WIDTH,
  );
  // what could be added next is told a moment after the change: an open list of it takes longer to draw than the change
  const [studyBefore, ladderBefore] = [useDeferredValue(study), useDeferredValue(ladder)];
  const choices = useMemo(() => termChoices(studyBefore, ladderBefore), [studyBefore, ladderBefore]);
  // what has left the ladder meanwhile is not chosen any more
  const there = chosen.filter((c) => ladder.steps[c.step]?.terms.some((t) => termIdentity(t) === termIdentity(c)));
  const isChosen = (term: PlacedTerm) => there.some((c) => identityOf(c) === identityOf(term));
  const choose = (term: PlacedTerm) =>
    setChosen(isChosen(term) ? there.filter((c) => identityOf(c) !== identityOf(term)) : [...there, term]);
  return (
    <>
      <ol className={css.flight} aria-label="Steps">
        {ladder.steps.map((step, k) => (
          <StepRow
            key={step.id}
            study={study}
            ladder={ladder}
            at={k}
            fit={fit}
            numbers={shown[k]!}
            bar={rise.bars[k]!}
            riseWidth={RISE_WIDTH}
            outdated={props.outdated}
            adjusted={adjusted}
            percent={props.percent}
            selected={k === props.selected}
            choices={choices}
            title={title}
            isChosen={isChosen}
            keys={keys}
            onSelect={() => props.onSelect(k)}
            onChoose={choose}
            onChange={onChange}
          />
        ))}
      </ol>
      <ChosenBar
        ladder={ladder}
        chosen={there}
        step={props.selected}
        title={title}
        isNumber={(name) => !study.codebook.some((v) => v.name === name && v.kind === "category")}
        onChange={onChange}
        onLeave={() => setChosen([])}
      />
      <div className={css.below}>
        <button
          ref={attach}
          type="button"
          className={`link ${carrying ? css.takes : ""} ${isOver ? css.takesOver : ""}`}
          onClick={() => onChange(addStep(ladder))}
        >
          + Step
        </button>
        {fit && (
          <>
            <span className="quiet">
              Rise of <i>R</i>², full width = {formatShare(rise.top, 2)}; lines: {props.percent} intervals of Δ<i>R</i>²
            </span>
            <button type="button" className="link" aria-pressed={adjusted} onClick={() => setAdjusted(!adjusted)}>
              {adjusted ? "Without adjusted R²" : "Adjusted R²"}
            </button>
          </>
        )}
        <span role="status" className="visually-hidden">
          {said}
        </span>
      </div>
    </>
  );
}

"use client";

import { openedLadder } from "@/features/study/opened-ladder";
import { useStudy } from "@/features/study/study-context";
import { useFirstNumbers } from "@/features/study/use-first-numbers";
import type { FirstNumbers } from "@/study/model/first-numbers";
import { Ladder } from "@/study/model/ladder";
import { newId } from "@/study/model/new-id";
import { laterPart } from "@/ui/parts/later";
import page from "@/ui/parts/page.module.css";
import { type Dragged, type DropPlace, LaddersDrag } from "./flight/ladders-drag";
import { VariableList } from "./flight/VariableList";
import { addStep, addTerm, moveStep, moveTerm } from "./ladder-edits";
import { LadderSheet } from "./LadderSheet";
import css from "./ladders.module.css";
import { Shelf } from "./shelf/Shelf";
import { useChangeLadder } from "./use-change-ladder";
import { useOpen } from "./use-open";

const ComparisonSheet = laterPart(() => import("./beside/ComparisonSheet").then((of) => of.ComparisonSheet));

/**
 * The study's ladders on their shelf, and the one that is open, or several side by side.
 * @param first what the server has kept of the one that is open
 */
export function LadderScreen({ first }: { first: FirstNumbers | null }) {
  const { study, store } = useStudy();
  const opened = useOpen();
  const comparison = study.comparisons.find((c) => c.id === opened.comparison) ?? null;
  const ladder = comparison ? null : openedLadder(study, opened.ladder);
  useFirstNumbers(ladder, first);
  const found = ladder ? ladder.steps.findIndex((step) => step.id === opened.step) : -1;
  const selected = ladder && found < 0 ? ladder.steps.length - 1 : found;
  const change = useChangeLadder();

  const create = () => {
    const name = study.ladders.length === 0 ? "First ladder" : `Ladder ${study.ladders.length + 1}`;
    const id = newId(
      name,
      study.ladders.map((l) => l.id),
    );
    const step = (k: number) => ({ id: `step_${k}`, name: "", terms: [] });
    store.edit({ subject: "ladder", id, to: Ladder.parse({ id, name, steps: [step(1), step(2)] }) });
    opened.open({ ladder: id });
  };

  return (
    <LaddersDrag onDrop={(dragged, place) => ladder && change(dropped(ladder, dragged, place))}>
      <div className={page.page}>
        <nav className={page.side} aria-label="Ladders in this study">
          <Shelf
            ladder={ladder}
            comparison={comparison}
            onLadder={(id) => opened.open({ ladder: id })}
            onComparison={(id) => opened.open({ comparison: id })}
            onCreate={create}
          />
          {ladder && <VariableList ladder={ladder} step={selected} onChange={change} />}
        </nav>
        {comparison ? (
          <ComparisonSheet key={comparison.id} comparison={comparison} />
        ) : ladder ? (
          <LadderSheet key={ladder.id} ladder={ladder} selected={selected} onSelect={(k) => opened.select(ladder.steps[k]!.id)} />
        ) : (
          <main className={page.sheet}>
            <h1 className={page.sentence}>Predict an outcome in steps: what you know already first, what your theory adds next.</h1>
            <p className={css.empty}>
              A ladder shows how far each step raises the explained variance, on the same respondents throughout.{" "}
              <button type="button" className="link" onClick={create}>
                Begin a ladder
              </button>
            </p>
          </main>
        )}
      </div>
    </LaddersDrag>
  );
}

/** The ladder after something was let go somewhere. */
function dropped(ladder: Ladder, dragged: Dragged, place: DropPlace): Ladder {
  const to = place.kind === "new-step" ? ladder.steps.length : place.step;
  const roomy = place.kind === "new-step" ? addStep(ladder) : ladder;
  const before = place.kind === "term" ? place.place : Infinity;
  switch (dragged.kind) {
    case "name":
      return addTerm(roomy, to, [dragged.name], before);
    case "term":
      return moveTerm(roomy, dragged, to, before);
    case "step":
      return moveStep(ladder, dragged.step, to);
  }
}

"use client";

import { type KeyboardEvent, useEffect, useRef } from "react";
import { termIdentity } from "@/core/regression/terms";
import type { Ladder } from "@/study/model/ladder";
import { addStep, moveStep, moveTerm, removeTerm } from "../ladder-edits";
import { chipId, stepButtonId } from "./element-ids";

/** What keys do on the chips and steps of a flight. */
export interface FlightKeys {
  onTermKey: (event: KeyboardEvent, step: number, components: readonly string[]) => void;
  onStepKey: (event: KeyboardEvent, step: number) => void;
}

/**
 * Shift with up and down carries a term to the step above or below (below the last: into a new one), with left and right along its step; Delete
 * takes it out. On a step's heading Shift with up and down carries the step. What was moved keeps the focus.
 */
export function useFlightKeys(ladder: Ladder, onChange: (ladder: Ladder) => void, say: (words: string) => void): FlightKeys {
  const wanted = useRef<string | null>(null);
  useEffect(() => {
    if (wanted.current === null) return;
    const moved = document.getElementById(wanted.current);
    if (!moved) return; // the page may be drawn once more before the change is
    moved.focus();
    wanted.current = null;
  });
  return {
    onTermKey: (event, step, components) => {
      const term = { components };
      if (event.key === "Delete") {
        event.preventDefault();
        wanted.current = stepButtonId(ladder.steps[step]!.id);
        return onChange(removeTerm(ladder, step, term));
      }
      if (!event.shiftKey || !event.key.startsWith("Arrow")) return;
      event.preventDefault();
      const place = ladder.steps[step]!.terms.findIndex((t) => termIdentity(t) === termIdentity(term));
      if (event.key === "ArrowLeft" || event.key === "ArrowRight") {
        const to = event.key === "ArrowLeft" ? place - 1 : place + 2;
        if (to < 0 || to > ladder.steps[step]!.terms.length) return;
        wanted.current = chipId(step, term);
        return onChange(moveTerm(ladder, { step, components }, step, to));
      }
      const to = step + (event.key === "ArrowUp" ? -1 : 1);
      if (to < 0) return;
      const roomy = to < ladder.steps.length ? ladder : addStep(ladder);
      wanted.current = chipId(to, term);
      say(`Moved to step ${to + 1}.`);
      onChange(moveTerm(roomy, { step, components }, to));
    },
    onStepKey: (event, step) => {
      if (!event.shiftKey || (event.key !== "ArrowUp" && event.key !== "ArrowDown")) return;
      event.preventDefault();
      const to = step + (event.key === "ArrowUp" ? -1 : 1);
      if (to < 0 || to >= ladder.steps.length) return;
      wanted.current = stepButtonId(ladder.steps[step]!.id);
      say(`Step moved to place ${to + 1}.`);
      onChange(moveStep(ladder, step, to));
    },
  };
}

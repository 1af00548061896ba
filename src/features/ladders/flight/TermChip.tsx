"use client";

import type { KeyboardEvent } from "react";
import { termParts } from "@/core/regression/terms";
import type { CodingTable } from "@/core/regression/categories";
import type { Ladder, LadderTerm } from "@/study/model/ladder";
import type { Study } from "@/study/model/study";
import { partsTitle } from "@/study/report/ladder/coefficient-words";
import { removeTerm } from "../ladder-edits";
import { CodingWord } from "./CodingWord";
import { chipId } from "./element-ids";
import css from "./flight.module.css";
import { useCarry, useDropPlace } from "./ladders-drag";
import type { FlightKeys } from "./use-flight-keys";

/** A term as a chip: click to choose it, carry it to another place, take it out; a category shows its coding and changes it here. */
export function TermChip(props: {
  study: Study;
  ladder: Ladder;
  step: number;
  place: number;
  term: LadderTerm;
  title: (name: string) => string;
  table: CodingTable | null;
  chosen: boolean;
  onChoose: () => void;
  keys: FlightKeys;
  onChange: (ladder: Ladder) => void;
}) {
  const { study, ladder, step, place, term, title } = props;
  const words = partsTitle(termParts(term), title);
  const id = chipId(step, term);
  const { attach: attachCarry, onPointerDown, isDragging } = useCarry(id, { kind: "term", step, components: term.components }, words);
  const { attach: attachPlace, isOver } = useDropPlace(`before ${id}`, { kind: "term", step, place });
  const off = term.off || ladder.steps[step]!.off;
  const category = term.components.length === 1 ? study.codebook.find((v) => v.name === term.components[0] && v.kind === "category") : null;
  const onKeyDown = (event: KeyboardEvent) => props.keys.onTermKey(event, step, term.components);
  return (
    <span
      ref={attachPlace}
      className={css.chip}
      data-off={off || undefined}
      data-chosen={props.chosen || undefined}
      data-over={isOver || undefined}
      data-lifted={isDragging || undefined}
    >
      <span ref={attachCarry} onPointerDown={onPointerDown} className={css.chipBody}>
        <button
          type="button"
          id={id}
          className={css.chipName}
          aria-pressed={props.chosen}
          title="Choose it to multiply, move or switch it off. Shift and the arrow keys move it."
          onClick={props.onChoose}
          onKeyDown={onKeyDown}
        >
          {words}
          {off && <span className="visually-hidden">, switched off</span>}
        </button>
        {category && <CodingWord ladder={ladder} category={category} table={props.table} title={title} onChange={props.onChange} />}
      </span>
      <button
        type="button"
        className={css.out}
        aria-label={`Remove ${words} from step ${step + 1}`}
        onClick={() => props.onChange(removeTerm(ladder, step, term))}
      >
        ×
      </button>
    </span>
  );
}

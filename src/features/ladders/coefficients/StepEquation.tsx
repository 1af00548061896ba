"use client";

import { useState } from "react";
import type { LadderFit } from "@/core/regression/ladder";
import type { Titles } from "@/study/report/level-title";
import { equationOf } from "@/study/report/ladder/equation";
import { CopyButton } from "@/ui/parts/CopyButton";
import css from "../ladders.module.css";

/** The prediction of one step as an equation in raw units, in words or in symbols. */
export function StepEquation({ fit, step, title }: { fit: LadderFit; step: number; title: Titles }) {
  const [symbols, setSymbols] = useState(false);
  const equation = equationOf(fit.steps[step]!, fit, title);
  const text = symbols ? `${equation.symbols}, where ${equation.where.join(", ")}` : equation.words;
  return (
    <section aria-label={`Equation of step ${step + 1}`} className={css.equation}>
      <h3>Equation of step {step + 1}</h3>
      <p data-testid="equation">
        {symbols ? equation.symbols : equation.words}
        {symbols && <small> where {equation.where.join(", ")}</small>}
      </p>
      <p className={css.foot}>
        <button type="button" className="link" aria-pressed={symbols} onClick={() => setSymbols(!symbols)}>
          {symbols ? "In words" : "In symbols"}
        </button>
        {" · "}
        <CopyButton text={text} />
      </p>
    </section>
  );
}

import type { Coding } from "@/core/regression/design-matrix";
import type { LadderFit, StepFit } from "@/core/regression/ladder";
import { decimalsFor, formatNumber } from "../format-number";
import type { Titles } from "./coefficient-words";

/** A step's prediction as an equation in raw units, in words and in symbols. */
export interface Equation {
  /** Predicted Willingness = 2.31 + 0.52 · (Confidence − 3.21) … */
  words: string;
  /** ŷ = 2.31 + 0.52x₁ … */
  symbols: string;
  /** What each x stands for: "x₁ = Confidence − 3.21". */
  where: string[];
}

/** The equation of one step. Rounded as it is printed: for predictions to the last digit there are predicted values. */
export function equationOf(step: StepFit, fit: LadderFit, title: Titles): Equation {
  const plain = new Map<string, string>();
  const symbol = (name: string) => `x${subscript([...plain.keys()].indexOf(name) + 1)}`;
  for (const { column } of step.coefficients) for (const name of column.split("*")) plain.set(name, entered(name, fit, title));
  const terms = step.coefficients.map(({ column, b }) => {
    const names = column.split("*");
    return {
      b,
      words: names.map((name) => (plain.get(name)!.includes(" − ") ? `(${plain.get(name)})` : plain.get(name)!)).join(" · "),
      symbols: names.map(symbol).join(""),
    };
  });
  const number = (value: number, se: number | null) => formatNumber(Math.abs(value), decimalsFor(se));
  const signed = (value: number, se: number | null) => ` ${value < 0 ? "−" : "+"} ${number(value, se)}`;
  const { estimate, se } = step.intercept;
  const start = `${estimate < 0 ? "−" : ""}${number(estimate, se)}`;
  return {
    words: `Predicted ${title(fit.outcome)} = ${start}${terms.map((t) => `${signed(t.b.estimate, t.b.se)} · ${t.words}`).join("")}`,
    symbols: `ŷ = ${start}${terms.map((t) => `${signed(t.b.estimate, t.b.se)}${t.symbols}`).join("")}`,
    where: [...plain].map(([name, words]) => `${symbol(name)} = ${words}`),
  };
}

/** A variable as it enters the columns: centred, z-scored, a level that is 1 or 0. */
function entered(name: string, fit: LadderFit, title: Titles): string {
  const coding: Coding | undefined = fit.codings.find((c) => c.variable === name);
  if (!coding) return fit.tables.some((t) => name.startsWith(`${t.variable}[`)) ? `[${title(name)}]` : title(name);
  const centred = `${title(name)} ${coding.subtracted < 0 ? "+" : "−"} ${formatNumber(Math.abs(coding.subtracted))}`;
  return coding.dividedBy === 1 ? centred : `(${centred})/${formatNumber(coding.dividedBy)}`;
}

function subscript(n: number): string {
  return String(n).replace(/\d/g, (d) => "₀₁₂₃₄₅₆₇₈₉"[Number(d)]!);
}

import type { Coding } from "@/core/regression/design-matrix";
import { type Part, partKey } from "@/core/regression/terms";
import type { LadderFit, StepFit } from "@/core/regression/ladder";
import { decimalsFor, formatNumber } from "../format-number";
import type { Titles } from "../level-title";

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
  const symbol = (part: Part) => `x${subscript([...plain.keys()].indexOf(partKey(part)) + 1)}`;
  const partsOf = (column: string) => fit.parts.get(column)!;
  for (const { column } of step.coefficients) for (const part of partsOf(column)) plain.set(partKey(part), entered(part, fit, title));
  const terms = step.coefficients.map(({ column, b }) => {
    const parts = partsOf(column);
    return {
      b,
      words: parts.map((part) => (isCentred(part, fit) ? `(${plain.get(partKey(part))})` : plain.get(partKey(part))!)).join(" · "),
      symbols: parts.map(symbol).join(""),
    };
  });
  const number = (value: number, se: number | null) => formatNumber(Math.abs(value), decimalsFor(se));
  const signed = (value: number, se: number | null) => ` ${value < 0 ? "−" : "+"} ${number(value, se)}`;
  const { estimate, se } = step.intercept;
  const start = `${estimate < 0 ? "−" : ""}${number(estimate, se)}`;
  return {
    words: `Predicted ${title(fit.outcome)} = ${start}${terms.map((t) => `${signed(t.b.estimate, t.b.se)} · ${t.words}`).join("")}`,
    symbols: `ŷ = ${start}${terms.map((t) => `${signed(t.b.estimate, t.b.se)}${t.symbols}`).join("")}`,
    where: [...plain.values()].map((words, i) => `x${subscript(i + 1)} = ${words}`),
  };
}

const codingOf = ({ variable, level }: Part, fit: LadderFit): Coding | undefined =>
  level === null ? fit.codings.find((c) => c.variable === variable) : undefined;

/** True where its words are a difference, which needs brackets in a product. */
function isCentred(part: Part, fit: LadderFit): boolean {
  const coding = codingOf(part, fit);
  return coding !== undefined && coding.subtracted >= 0 && coding.dividedBy === 1;
}

/** A variable as it enters the columns: centred, z-scored, a level that is 1 or 0. */
function entered(part: Part, fit: LadderFit, title: Titles): string {
  const { variable, level } = part;
  const coding = codingOf(part, fit);
  if (!coding) return level === null ? title(variable) : `[${title(variable, level)}]`;
  const centred = `${title(variable)} ${coding.subtracted < 0 ? "+" : "−"} ${formatNumber(Math.abs(coding.subtracted))}`;
  return coding.dividedBy === 1 ? centred : `(${centred})/${formatNumber(coding.dividedBy)}`;
}

function subscript(n: number): string {
  return String(n).replace(/\d/g, (d) => "₀₁₂₃₄₅₆₇₈₉"[Number(d)]!);
}

import type { CodingTable } from "@/core/regression/categories";
import type { Coefficient } from "@/core/regression/coefficients";
import type { LadderFit, StepFit } from "@/core/regression/ladder";
import type { SuppressionPair } from "@/core/regression/suppression";
import type { Ladder } from "../model/ladder";
import type { AnalysisSample } from "../prepare/analysis-sample";
import { counted, formatShare, listed, pStatement } from "./format-number";

/** A name in the words a person knows it by. */
export type Titles = (name: string) => string;

/** A caution about a ladder. `addTerm` names the lower-order term that would mend it. */
export interface LadderWatch {
  id: string;
  words: string;
  addTerm?: { step: number; components: string[] };
}

/** `Confidence × Support` for a column name `a*b`. */
export function columnTitle(column: string, title: Titles): string {
  return column.split("*").map(title).join(" × ");
}

/** What the steps say, in plain words: one sentence a step. Associational throughout. */
export function whatTheLadderSays(ladder: Ladder, fit: LadderFit, title: Titles): string[] {
  const sentences = fit.steps.map((step, k) => {
    const name = ladder.steps[k]!.name || `Step ${k + 1}`;
    const points = formatShare(step.change.change * 100, 1).replace(/^\./, "0.");
    if (step.change.df[0] === 0) return `${name} adds no column of its own, so it explains nothing more.`;
    const share = `${points} % of the variance of ${title(fit.outcome)}`;
    const test = step.change.p === null ? "" : ` (${pStatement(step.change.p)})`;
    return k === 0 ? `${name} goes with ${share}${test}.` : `${name} adds ${share}${test}.`;
  });
  const last = fit.steps.at(-1)!;
  const size = (c: Coefficient) => Math.abs(c.beta?.estimate ?? 0);
  // a level against another is no single variable's share, and a product's β is of another kind
  const strongest = last.coefficients.filter((c) => c.column === c.term && !c.column.includes("*")).sort((a, b) => size(b) - size(a))[0];
  if (strongest?.beta && last.coefficients.length > 1) {
    sentences.push(
      `With all terms in, ${columnTitle(strongest.column, title)} has the largest β of a single variable, ${formatShare(strongest.beta.estimate)}${whereItHolds(strongest, fit, title).replace(/^(.*), $/, " ($1)")}.`,
    );
  }
  return sentences;
}

/** One coefficient as a sentence. */
export function coefficientSentence(c: Coefficient, fit: LadderFit, title: Titles): string {
  if (c.beta === null) return `${columnTitle(c.column, title)} has no standardized coefficient.`;
  const beta = c.beta.estimate;
  const direction = beta < 0 ? "lower" : "higher";
  const size = formatShare(Math.abs(beta));
  const others = `${whereItHolds(c, fit, title)}the other terms held constant`;
  const parts = c.column.split("*").map((name) => ({ name, table: tableOf(fit, name) }));
  const [first, second] = parts;
  if (parts.length === 1 && first!.table) {
    return `${title(first!.name)} goes with a ${size} SD ${direction} ${title(fit.outcome)} than ${against(first!.table, title)}, ${others}.`;
  }
  if (parts.length === 1) return `One SD more of ${title(c.column)} goes with a ${size} SD ${direction} ${title(fit.outcome)}, ${others}.`;
  const [numeric, level] = first!.table ? [second!, first!] : [first!, second!];
  if (parts.length === 2 && !numeric.table && level.table) {
    return `The slope of ${title(numeric.name)} is ${size} SD ${direction} with ${title(level.name)} than with ${against(level.table, title)}.`;
  }
  if (parts.some((part) => part.table) || parts.length > 2) {
    return `${columnTitle(c.column, title)}: a ${size} SD ${direction} ${title(fit.outcome)} than its parts add up to.`;
  }
  return `${columnTitle(c.column, title)}: the slope of ${title(first!.name)} changes by ${formatShare(beta)} SD for each SD of ${title(second!.name)}.`;
}

/**
 * Beside a product a coefficient speaks of the place where the other component is zero: its mean, or the reference level.
 * @returns "at the mean of Support, ", or nothing for a term that is in no product of its step
 */
function whereItHolds(c: Coefficient, fit: LadderFit, title: Titles): string {
  const step = fit.steps.find((s) => s.coefficients.includes(c));
  const partners = (step?.terms ?? []).flatMap(({ term }) => {
    const parts = term.split("*");
    const own = parts.indexOf(c.term);
    return parts.length > 1 && own >= 0 ? parts.toSpliced(own, 1) : [];
  });
  const places = [...new Set(partners)].map((name) => {
    const table = fit.tables.find((t) => t.variable === name);
    if (!table) return name === c.term ? "at its mean" : `at the mean of ${title(name)}`;
    return table.coding === "deviation" ? `averaged over ${title(name)}` : `with ${against(table, title)}`;
  });
  return places.length === 0 ? "" : `${listed(places)}, `;
}

/** The coding of the category that a column `ticket[day]` belongs to; null for a numeric variable. */
function tableOf(fit: LadderFit, name: string): CodingTable | null {
  return fit.tables.find((t) => t.columns.some((level) => `${t.variable}[${level}]` === name)) ?? null;
}

/** What a level's coefficient is compared with. */
function against(table: CodingTable, title: Titles): string {
  return table.coding === "deviation" ? "the mean of all levels" : title(`${table.variable}[${table.reference}]`);
}

/** Faults and cautions about a fitted ladder. */
export function ladderWatches(fit: LadderFit, sample: AnalysisSample, title: Titles): LadderWatch[] {
  const watches: LadderWatch[] = [];
  for (const fault of fit.marginality) {
    const missing = fault.missing.components.map(title).join(" × ");
    watches.push({
      id: `marginality ${fault.product} ${missing}`,
      words: `Step ${fault.step} holds ${columnTitle(fault.product, title)} without ${missing}. The product then also carries what belongs to ${missing}.`,
      addTerm: { step: fault.step, components: [...fault.missing.components] },
    });
  }
  fit.steps.forEach((step, k) => watches.push(...stepWatches(step, k, fit, title)));
  for (const table of fit.tables) watches.push(...categoryWatches(table, title));
  for (const flag of fit.steps.at(-1)!.suppression) {
    if (flag.scope === "pair") watches.push({ id: `suppression ${flag.kind}`, words: suppressionWords(flag, title) });
  }
  const lost = sample.keptByFilter - sample.used;
  if (lost > 0) {
    const most = Object.entries(sample.missingByVariable)
      .filter(([, n]) => n > 0)
      .sort((a, b) => b[1] - a[1])
      .slice(0, 2);
    const blame = most.map(([name, n]) => `${title(name)} (${n})`);
    watches.push({
      id: "lost",
      words: `${counted(lost, "respondent is", "respondents are")} left out of every step for missing answers, most often in ${listed(blame)}.`,
    });
  }
  return watches;
}

/** Two predictors that must be read together. Associational: who suppresses what is the theory's to say. */
function suppressionWords({ kind, predictors, suppressor }: SuppressionPair, title: Titles): string {
  const [a, b] = predictors.map(title);
  if (kind === "reciprocal")
    return `${a} and ${b} each have a β larger than their own r: together they say more than apart (reciprocal suppression).`;
  if (suppressor === "both") return `${a} and ${b} each have a β of the other sign than their own r (negative suppression).`;
  const other = title(predictors.find((name) => name !== suppressor)!);
  return kind === "classical"
    ? `${title(suppressor)} hardly goes with the outcome by itself and still has a β: read it as what clears ${other} (classical suppression).`
    : `${title(suppressor)} has a β of the other sign than its own r, beside ${other} (negative suppression).`;
}

/** Levels that nobody has, or one respondent alone. */
function categoryWatches(table: CodingTable, title: Titles): LadderWatch[] {
  const name = title(table.variable);
  const words = (level: string) => title(`${table.variable}[${level}]`);
  const watches: LadderWatch[] = [];
  if (table.levels.length < 2) {
    watches.push({
      id: `one level ${table.variable}`,
      words: `Everyone in the sample has ${words(table.reference)}, so ${name} was left out.`,
    });
  }
  if (table.empty.length > 0) {
    watches.push({
      id: `empty ${table.variable}`,
      words: `Nobody in the sample has ${listed(table.empty.map(words))}, which therefore has no column.`,
    });
  }
  if (table.replacedReference !== null) {
    watches.push({
      id: `reference ${table.variable}`,
      words: `Nobody in the sample has ${words(table.replacedReference)}, the chosen reference: the levels are compared with ${words(table.reference)}.`,
    });
  }
  for (const level of table.levels) {
    if (level.cases === 1)
      watches.push({
        id: `alone ${table.variable} ${level.level}`,
        words: `A single respondent has ${words(level.level)}: its coefficient fits that one answer.`,
      });
  }
  return watches;
}

function stepWatches(step: StepFit, k: number, fit: LadderFit, title: Titles): LadderWatch[] {
  const watches: LadderWatch[] = [];
  const earlier = new Set(k === 0 ? [] : fit.steps[k - 1]!.notes.flatMap((n) => (n.code === "dropped" ? [n.column.column] : [])));
  for (const note of step.notes) {
    if (note.code === "perfect-fit") {
      watches.push({
        id: `perfect ${k}`,
        words: `Step ${k + 1} predicts the outcome without any error, so there is nothing to test with. Is the outcome made of its predictors?`,
      });
    } else if (note.code === "robust-errors-unavailable") {
      const before = k === 0 ? [] : fit.steps[k - 1]!.notes;
      if (before.some((n) => n.code === note.code)) continue; // once a step has none, all that follow have none
      watches.push({
        id: `robust ${k}`,
        words:
          note.why.reason === "too-few-clusters"
            ? `Step ${k + 1} has no cluster-robust errors: all respondents belong to one cluster.`
            : `Step ${k + 1} has no HC3 errors: ${counted(note.why.cases.length, "respondent is", "respondents are")} predicted by ${note.why.cases.length === 1 ? "a coefficient of its own" : "coefficients of their own"} (leverage 1).`,
      });
    } else if (!earlier.has(note.column.column)) {
      const name = columnTitle(note.column.column, title);
      watches.push({
        id: `dropped ${note.column.column}`,
        words:
          note.column.reason === "constant"
            ? `${name} is the same for everyone in the sample and was left out.`
            : `${name} follows exactly from ${listed(note.column.combinationOf.map((c) => columnTitle(c, title)))} and was left out.`,
      });
    }
  }
  for (const c of step.coefficients) {
    if (k === fit.steps.length - 1 && c.tolerance < 0.1 && !c.column.includes("*")) {
      watches.push({
        id: `tolerance ${c.column}`,
        words: `${columnTitle(c.column, title)} shares nearly everything with the other terms (tolerance ${formatShare(c.tolerance, 3)}): its own coefficient is uncertain.`,
      });
    }
  }
  return watches;
}

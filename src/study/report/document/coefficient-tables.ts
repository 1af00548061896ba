import type { Coefficient, Estimate } from "@/core/regression/coefficients";
import type { StepFit } from "@/core/regression/ladder";
import type { TableOptions } from "../../model/block";
import { exploratoryMark } from "../../model/exploratory";
import { counted, decimalsFor, formatCount, formatInterval, formatNumber, formatP, formatPercent, formatShare, listed } from "../format-number"; // prettier-ignore
import { markedTable } from "../ladder/exploratory-words";
import { codingWords, errorWords } from "../ladder/ladder-table";
import { columnTitle } from "../ladder/coefficient-words";
import type { Titles } from "../level-title";
import type { PrintTable } from "../print-table";
import { STARS, stars } from "../stars";
import { DELTA_R2, joined, R2, SYMBOL, type Words, words } from "../words";
import type { FittedSource } from "./source";

/** A fitted step under what it is called in a table. */
interface Model extends FittedSource {
  heading: Words;
  step: StepFit;
}

interface Column {
  head: Words;
  cell: (c: Coefficient) => Words;
}

/** Stars go with the last estimate of a row's model. */
const starred = (options: TableOptions) => options.tests === "stars" || options.tests === "both";

/** The columns that options ask for, of one model. */
function columnsOf(options: TableOptions, confidence: number): Column[] {
  const { metric, spread, tests, decimals } = options;
  const mark = (p: number | null) => (starred(options) ? stars(p) : "");
  const raw = (value: number | null, se: number | null) => formatNumber(value, Math.max(decimals, decimalsFor(se)));
  const share = (value: number | null) => formatShare(value, decimals);
  const limits = `${formatPercent(confidence)} CI`;
  const spreadOf = (of: (c: Coefficient) => Estimate | null, print: (e: Estimate) => (v: number | null) => string): Column[] => [
    ...(spread === "se" || spread === "both" ? [{ head: [SYMBOL.SE], cell: (c: Coefficient) => { const e = of(c); return e ? print(e)(e.se) : "–"; } }] : []), // prettier-ignore
    ...(spread === "interval" || spread === "both" ? [{ head: limits, cell: (c: Coefficient) => { const e = of(c); return e ? formatInterval(e.lower, e.upper, print(e)) : "–"; } }] : []), // prettier-ignore
  ];
  const b: Column[] = [
    { head: [SYMBOL.b], cell: (c) => `${raw(c.b.estimate, c.b.se)}${metric === "b" ? mark(c.b.p) : ""}` },
    ...spreadOf((c) => c.b, (e) => (v) => raw(v, e.se)), // prettier-ignore
  ];
  const beta: Column[] = [
    { head: "β", cell: (c) => `${share(c.beta?.estimate ?? null)}${mark(c.b.p)}` },
    ...(metric === "beta" ? spreadOf((c) => c.beta, () => share) : []), // prettier-ignore
  ];
  return [
    ...(metric === "beta" ? [] : b),
    ...(metric === "b" ? [] : beta),
    ...(tests === "p" || tests === "both" ? [{ head: [SYMBOL.p], cell: (c: Coefficient) => formatP(c.b.p) }] : []),
  ];
}

const stepName = (ladder: FittedSource["ladder"], k: number) => `Step ${k + 1}${ladder.steps[k]!.name === "" ? "" : `: ${ladder.steps[k]!.name}`}`; // prettier-ignore

/** The steps of a ladder that are told. */
function toldSteps(source: FittedSource, options: TableOptions): number[] {
  return source.fit.steps.flatMap((_, k) =>
    source.ladder.steps[k]!.off || options.without.includes(source.ladder.steps[k]!.id) ? [] : [k],
  );
}

/** Coefficients in the order that is asked for. */
function ordered<T extends { name: string; size: number }>(rows: T[], order: TableOptions["order"]): T[] {
  if (order === "by name") return rows.toSorted((a, b) => a.name.localeCompare(b.name));
  return order === "by size" ? rows.toSorted((a, b) => b.size - a.size) : rows;
}

/** Coefficients over the steps of a ladder: each step below the one before, or all side by side. */
export function coefficientTable(source: FittedSource, options: TableOptions, title: Titles): PrintTable {
  const { ladder, fit, sample } = source;
  const steps = toldSteps(source, options);
  const mark = exploratoryMark(ladder, sample.rowsUsed);
  const of = words`Hierarchical regression of ${title(fit.outcome)} (${SYMBOL.N} = ${formatCount(fit.n)})`;
  const note = coefficientNote([source], options, title);
  if (options.form === "beside") {
    const models = steps.map((k): Model => ({ ...source, heading: stepName(ladder, k), step: fit.steps[k]! }));
    return markedTable({ ...besideTable(models, options, title), title: of, note }, mark);
  }
  const columns = columnsOf(options, ladder.confidence);
  const sections = steps.map((k) => {
    const { model, change, coefficients } = fit.steps[k]!;
    const rows = coefficients.map((c) => ({ name: columnTitle(c.column, fit, title), size: Math.abs(c.beta?.estimate ?? 0), c }));
    return {
      heading: words`${stepName(ladder, k)}. ${R2} = ${formatShare(model.R2, 3)}, ${DELTA_R2} = ${formatShare(change.change, 3)}${changeTest(change, options)}`,
      rows: ordered(rows, options.order).map(({ name, c }): Words[] => [name, ...columns.map(({ cell }) => cell(c))]),
    };
  });
  return markedTable({ title: of, head: ["Term", ...columns.map(({ head }) => head)], sections, note }, mark);
}

function changeTest({ F, df, p }: StepFit["change"], options: TableOptions): Words {
  if (F === null) return "";
  const test = words`${SYMBOL.F}(${df[0]}, ${df[1]}) = ${formatNumber(F)}`;
  if (options.tests === "neither") return words`, ${test}`;
  if (options.tests === "stars") return words`, ${test}${stars(p)}`;
  return words`, ${test}, ${SYMBOL.p} ${p !== null && p < 0.001 ? "< .001" : `= ${formatP(p)}`}`;
}

/** Two to four outcomes or models in one table, a step of each: one that a ladder does not have is its last. */
export function outcomesTable(sources: readonly FittedSource[], options: TableOptions, title: Titles): PrintTable {
  const outcomes = new Set(sources.map((s) => s.fit.outcome));
  const last = ({ ladder }: FittedSource) => ladder.steps.findLastIndex((step) => !step.off);
  const stepOf = (source: FittedSource) => {
    const k = options.step === null ? -1 : options.step - 1;
    return source.ladder.steps[k]?.off === false ? k : last(source);
  };
  const models = sources.flatMap((source): Model[] => {
    const k = stepOf(source);
    if (k < 0) return [];
    return [{ ...source, heading: outcomes.size === sources.length ? title(source.fit.outcome) : source.ladder.name, step: source.fit.steps[k]! }]; // prettier-ignore
  });
  const marked = sources.map(({ ladder, sample }) => exploratoryMark(ladder, sample.rowsUsed)).find((mark) => mark !== null) ?? null;
  const of = outcomes.size === 1 ? `Regressions of ${title(sources[0]!.fit.outcome)}` : `Regressions of ${listed([...outcomes].map((name) => title(name)))}`; // prettier-ignore
  const which = sources.every((source) => stepOf(source) === last(source)) ? "The last step of each." : `${sources.map((source) => `Step ${stepOf(source) + 1} of ${source.ladder.name}`).join("; ")}.`; // prettier-ignore
  const note = joined([which, coefficientNote(sources, options, title)], " ");
  return markedTable({ ...besideTable(models, options, title), title: of, note }, marked);
}

/** Models side by side: a row a term of any of them, below them what each explains. */
function besideTable(models: readonly Model[], options: TableOptions, title: Titles): Omit<PrintTable, "title" | "note"> {
  const columns = models.map(({ ladder }) => columnsOf(options, ladder.confidence));
  const rows = new Map<string, { name: string; size: number; found: (Coefficient | null)[] }>();
  models.forEach(({ step, fit }, m) =>
    step.coefficients.forEach((c) => {
      const name = columnTitle(c.column, fit, title);
      const row = rows.get(name) ?? { name, size: 0, found: models.map(() => null) };
      row.found[m] = c;
      row.size = Math.max(row.size, Math.abs(c.beta?.estimate ?? 0));
      rows.set(name, row);
    }),
  );
  const width = columns.map((own) => own.length);
  const below = (print: (model: Model) => Words) => models.flatMap((model, m) => [print(model), ...Array.from({ length: width[m]! - 1 }, () => "")]); // prettier-ignore
  const steps = models.length > 0 && models.every(({ ladder }) => ladder === models[0]!.ladder);
  const telling = (p: number | null) => (starred(options) ? stars(p) : "");
  return {
    over: [{ words: "", columns: 1 }, ...models.map(({ heading }, m) => ({ words: heading, columns: width[m]! }))],
    head: ["Term", ...columns.flatMap((own) => own.map(({ head }) => head))],
    sections: [
      {
        heading: "",
        rows: ordered([...rows.values()], options.order).map(({ name, found }) => [
          name,
          ...found.flatMap((c, m) => (c ? columns[m]!.map(({ cell }) => cell(c)) : columns[m]!.map(() => ""))),
        ]),
      },
      {
        heading: "",
        rows: [
          [[SYMBOL.N], ...below(({ fit }) => formatCount(fit.n))],
          [R2, ...below(({ step }) => formatShare(step.model.R2, 3))],
          [words`Adjusted ${R2}`, ...below(({ step }) => formatShare(step.model.adjustedR2, 3))],
          ...(steps
            ? [
                [DELTA_R2, ...below(({ step }) => formatShare(step.change.change, 3))],
                [words`${SYMBOL.F} of the change`, ...below(({ step: { change } }) => (change.F === null ? "" : `${formatNumber(change.F)}${telling(change.p)}`))], // prettier-ignore
                ["df", ...below(({ step: { change } }) => `${change.df[0]}, ${change.df[1]}`)],
                ...(options.tests === "p" || options.tests === "both" ? [[[SYMBOL.p], ...below(({ step: { change } }) => formatP(change.p))]] : []), // prettier-ignore
              ]
            : []),
        ],
      },
    ],
  };
}

/** What R², its change and its test are at each step. */
export function stepsTable(source: FittedSource, options: TableOptions, title: Titles): PrintTable {
  const { ladder, fit, sample } = source;
  const told = toldSteps(source, options);
  const drawn = ladder.intervals.by !== "normal";
  const limits = told.some((k) => fit.steps[k]!.changeInterval !== null) && options.spread !== "neither" && options.spread !== "se";
  const d = Math.max(3, options.decimals);
  const table: PrintTable = {
    title: words`${SYMBOL.F} and ${DELTA_R2} of the steps of the regression of ${title(fit.outcome)} (${SYMBOL.N} = ${formatCount(fit.n)})`,
    head: [
      "Step",
      R2,
      words`Adjusted ${R2}`,
      DELTA_R2,
      ...(limits ? [words`${formatPercent(ladder.confidence)} CI of ${DELTA_R2}`] : []),
      words`${SYMBOL.F} change`,
      "df",
      ...(options.tests === "p" || options.tests === "both" ? [[SYMBOL.p]] : []),
    ],
    sections: [
      {
        heading: "",
        rows: told.map((k): Words[] => {
          const { model, change, changeInterval } = fit.steps[k]!;
          return [
            stepName(ladder, k),
            formatShare(model.R2, d),
            formatShare(model.adjustedR2, d),
            formatShare(change.change, d),
            ...(limits ? [changeInterval ? formatInterval(changeInterval.lower, changeInterval.upper, (v) => formatShare(v, d)) : "–"] : []), // prettier-ignore
            `${formatNumber(change.F)}${starred(options) ? stars(change.p) : ""}`,
            `${change.df[0]}, ${change.df[1]}`,
            ...(options.tests === "p" || options.tests === "both" ? [formatP(change.p)] : []),
          ];
        }),
      },
    ],
    note: joined(
      [
        `${sample.used} of ${sample.rows} respondents, the same in every step.`,
        ...(fit.errors === "classical" ? [] : [words`${SYMBOL.F} by Wald’s test with ${errorWords(fit)}.`]),
        ...(limits ? [drawn ? drawnWords(source) : words`Intervals of ${DELTA_R2} hold in large samples.`] : []),
        ...(starred(options) ? [STARS] : []),
      ],
      " ",
    ),
  };
  return markedTable(table, exploratoryMark(ladder, sample.rowsUsed));
}

const drawnWords = ({ ladder }: FittedSource): string =>
  ladder.intervals.by === "normal"
    ? ""
    : `Intervals by ${ladder.intervals.by === "bca" ? "BCa" : "percentile"} bootstrap, ${formatCount(ladder.intervals.replicates)} replicates, seed ${ladder.seed}.`;

/** What a reader of coefficients must know: who, centring, coding, errors, intervals, stars. What several models share is said once. */
function coefficientNote(sources: readonly FittedSource[], options: TableOptions, title: Titles): Words {
  const once = (say: (source: FittedSource) => string): string[] => {
    const all = sources.map((source) => ({ said: say(source), name: source.ladder.name }));
    const distinct = [...new Set(all.map(({ said }) => said))];
    if (distinct.length === 1) return distinct[0] === "" ? [] : [distinct[0]!];
    return distinct.filter((said) => said !== "").map((said) => `${listed(all.filter((one) => one.said === said).map(({ name }) => name))}: ${said}`); // prettier-ignore
  };
  return joined(
    [
      ...once(({ sample, fit }) => {
        const gone = sample.rows - sample.used;
        const missing = gone === 0 ? "all of them" : `${counted(gone, "other")} left out by filters or for want of an answer`;
        return `${sample.used} of ${sample.rows} respondents (${missing})${fit.steps.length > 1 ? ", the same in every step" : ""}.`;
      }),
      ...once(({ ladder, fit }) => (fit.codings.length === 0 ? "" : `Variables that are part of a product are ${{ mean: "mean-centred", z: "z-scored", raw: "entered as they are" }[ladder.centring]}${options.metric === "b" ? "" : "; β from products of z-scores, which are not standardized again"}.`)), // prettier-ignore
      ...once(({ fit }) => fit.tables.map((t) => `${title(t.variable)}: ${codingWords(t, title)}.`).join(" ")),
      ...once(({ fit }) => `Least squares with ${errorWords(fit)}.`),
      ...once((source) => (options.spread === "interval" || options.spread === "both" ? drawnWords(source) : "")),
      ...(starred(options) ? [STARS] : []),
    ],
    " ",
  );
}

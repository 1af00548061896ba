import { exploratoryMark } from "../../model/exploratory";
import type { ParagraphKind } from "../../model/block";
import { codesOf, type RestsOn } from "../../model/hypothesis";
import type { Stand } from "../../analyse/analyse-theory";
import { theoryOf } from "../../model/theory";
import type { AnalysisSample } from "../../prepare/analysis-sample";
import { counted, formatCount, formatLevel, formatPercent, formatShare, listed } from "../format-number";
import { exploratoryWords } from "../ladder/exploratory-words";
import { whatTheGroupsSay } from "../ladder/groups-words";
import { whatImportanceSays } from "../ladder/importance-table";
import { errorWords } from "../ladder/ladder-table";
import { whatTheMeansSay } from "../ladder/means-words";
import { whatTheProbeSays } from "../ladder/probe-words";
import { whatTheSearchSays } from "../ladder/search-words";
import { methodSentence } from "../scale-words";
import { structureMethod } from "../structure-words";
import { hypothesisSentence } from "../theory/hypothesis-words";
import { evidenceWords } from "../theory/verdict-words";
import { DELTA_R2, joined, R2, type Reference, SYMBOL, type Words, words } from "../words";
import { whatTheStepsSay } from "./ladder-paragraph";
import { citation, referenceEntries } from "./references";
import { comparedGroups, exploredStructure, type FittedSource, fittedLadder, probedStep, type Source, toldImportance, toldMeans, toldSearch } from "./source"; // prettier-ignore

/** What a composed paragraph says, sentence by sentence; null: what it is of is not there. */
type Composer = (source: Source, id: string) => Words[] | null;

/** Leads to a table or figure by what it is of; printed with its number, where there is one. */
export const leading = (...key: string[]): Reference => ({ text: "Table", as: "reference", to: key.join(" ") });

const whole = (source: Source): FittedSource[] => source.study.ladders.flatMap((ladder) => fittedLadder(source, ladder.id) ?? []);

/** A number that begins a sentence. */
const inWords = (n: number) => ["No", "One", "Two", "Three", "Four", "Five", "Six", "Seven", "Eight", "Nine"][n] ?? formatCount(n);

const participants: Composer = (source) => {
  const { study } = source;
  const rows = study.responses?.rows ?? 0;
  const fitted = whole(source);
  const sample: AnalysisSample | undefined = fitted[0]?.sample;
  const everywhere = new Set(study.filters.filter((f) => f.everywhere).map((f) => f.id));
  const out = (sample?.leftOut ?? []).filter((one) => one.filter !== null && everywhere.has(one.filter) && one.count > 0);
  const withdrawn = study.responses?.withdrawn ?? 0;
  return [
    rows === 0 ? "There are no answers yet." : `There were ${counted(rows, "respondent")}.`,
    withdrawn > 0 ? `Not among them are ${counted(withdrawn, "respondent")} who withdrew.` : "",
    ...out.map((one) => `Of them ${formatCount(one.count)} ${one.count === 1 ? "was" : "were"} left out (${one.name}${one.reason === "" ? "" : `: ${one.reason.replace(/\.$/, "")}`}).`), // prettier-ignore
    ...fitted.map(({ ladder, fit, sample: own }) => {
      const gone = own.rows - own.used;
      return `The analysis of ${source.title(fit.outcome)}${fitted.filter((f) => f.fit.outcome === fit.outcome).length > 1 && ladder.name !== source.title(fit.outcome) ? ` (${ladder.name})` : ""} is of ${formatCount(own.used)} respondents${gone === 0 ? "" : `; ${formatCount(gone)} are not in it, left out or without an answer to one of its variables`}.`; // prettier-ignore
    }),
  ];
};

const measures: Composer = (source) => {
  const told = source.study.scales.flatMap((scale) => {
    const found = source.scales.get(scale.id);
    return found?.status === "scored" ? [methodSentence(scale, found.analysis, source.title)] : [];
  });
  if (told.length === 0) return [];
  const [alpha, omega, two] = [citation(source, "cronbach", "feldt"), citation(source, "mcdonald"), citation(source, "spearman")];
  const cited = [
    alpha && `α with its interval${alpha}`,
    omega && `ω${omega}`,
    two && `of two items the Spearman–Brown coefficient${two}`,
  ].filter(Boolean);
  return [...told, cited.length === 0 ? "" : `Reliability is told by ${listed(cited)}.`];
};

const CENTRED = { mean: "mean-centred", z: "turned into z-scores", raw: "left as they are" } as const;

const analysis: Composer = (source) => {
  const { study } = source;
  const fitted = whole(source);
  if (fitted.length === 0) return ["No model has been fitted yet."];
  const errors = [...new Set(fitted.map(({ fit }) => errorWords(fit)))];
  const withProducts = fitted.filter(({ fit }) => fit.codings.length > 0);
  const centrings = [...new Set(withProducts.map(({ ladder }) => CENTRED[ladder.centring]))];
  const drawn = fitted.filter(({ ladder }) => ladder.intervals.by !== "normal");
  const { alpha, holm, delta } = theoryOf(study.theories);
  const robust = citation(source, "mackinnon", "liang");
  return [
    `${inWords(fitted.length)} ${fitted.length === 1 ? "hierarchical regression was" : "hierarchical regressions were"} fitted by least squares with ${listed(errors)}${robust}, all steps of one on the same respondents: those who answered all of its variables${citation(source, "cohen")}.`, // prettier-ignore
    withProducts.length > 0 ? `Variables that are part of a product were ${listed(centrings)} first${citation(source, "aikenWest")}; standardized coefficients are from products of z-scores, which are not standardized again${citation(source, "friedrich")}.` : "", // prettier-ignore
    ...drawn.map(({ ladder }) => (ladder.intervals.by === "normal" ? "" : `Intervals of ${ladder.name} are from ${formatCount(ladder.intervals.replicates)} bootstrap replicates (${ladder.intervals.by === "bca" ? "bias-corrected and accelerated" : "percentile"}, seed ${ladder.seed})${citation(source, ladder.intervals.by === "bca" ? "efron" : "efronTibshirani")}.`)), // prettier-ignore
    study.probes.length > 0 ? `Products were probed by simple slopes, and by the range of the moderator in which the slope can be told from zero${citation(source, "johnsonNeyman", "bauerCurran")}.` : "", // prettier-ignore
    study.groups.length > 0 ? words`Coefficients of groups were compared by ${SYMBOL.z} of their difference, corrected by Holm’s procedure${citation(source, "clogg", "holm")}.` : "", // prettier-ignore
    study.means.length > 0 ? `Predicted means are at the means of the other predictors, with categories at equal weights${citation(source, "searle")}.` : "", // prettier-ignore
    study.importances.length > 0 ? words`${R2} was dealt out among the terms over their orders of entry${citation(source, "budescu")}.` : "", // prettier-ignore
    study.searches.length > 0 ? `Predictors were also searched for${citation(source, "tibshirani", "leastAngle")}; what such a search finds is exploratory.` : "", // prettier-ignore
    study.hypotheses.length > 0 ? `Hypotheses were tested at α = ${formatLevel(alpha)}${holm ? `, corrected over their family by Holm’s procedure${citation(source, "holm")}` : ""}${delta > 0 ? `; effects below |β| = ${formatShare(delta)} were taken as too small to matter` : ""}. Tests are one-sided only where the direction stood before the result was looked at.` : "", // prettier-ignore
  ];
};

const ladder: Composer = (source, id) => {
  const fitted = fittedLadder(source, id);
  if (!fitted) return null;
  const mark = exploratoryMark(fitted.ladder, fitted.sample.rowsUsed);
  return [
    ...(mark ? [`${exploratoryWords(mark).head}: ${exploratoryWords(mark).says}`] : []),
    ...whatTheStepsSay(fitted, source.title),
    words`${leading("table", "coefficients", id)} holds all coefficients with ${formatPercent(fitted.ladder.confidence)} intervals.`,
  ];
};

const exploratory = (own: { ladder: FittedSource["ladder"]; rows: FittedSource["sample"]["rowsUsed"] }): Words[] => {
  const mark = exploratoryMark(own.ladder, own.rows);
  return mark ? [`${exploratoryWords(mark).head}: ${exploratoryWords(mark).says}`] : [];
};

const VERDICTS: Readonly<Record<Stand["verdict"], string>> = {
  supported: "is supported",
  "not supported": "is not supported",
  "opposite direction": "goes in the opposite direction",
  "practically nothing": "amounts to practically nothing",
  "too uncertain to say": "cannot be decided",
  "not testable yet": "is not testable yet",
};

/** What the number of a hypothesis is, before it. */
function symbolOf(rests: RestsOn): Words {
  switch (rests.on) {
    case "coefficient":
    case "slope":
    case "region":
      return rests.metric === "beta" ? "β = " : words`${SYMBOL.b} = `;
    case "difference":
      return "Δβ = ";
    case "change":
      return words`${DELTA_R2} = `;
    case "correlation":
      return words`${SYMBOL.r} = `;
    case "means":
      return "difference = ";
    case "groups":
      return rests.first === null ? "" : rests.metric === "beta" ? "Δβ = " : words`Δ${SYMBOL.b} = `;
    default:
      return "";
  }
}

/** One hypothesis with its evidence and verdict. */
const hypothesis: Composer = ({ study, stands, title }, id) => {
  const k = study.hypotheses.findIndex((h) => h.id === id);
  const [h, stand] = [study.hypotheses[k], stands.get(id)];
  if (!h || !stand) return null;
  const evidence = evidenceWords(stand, h);
  const said = `${codesOf(study.hypotheses)[k]!} (${hypothesisSentence(h, study.ladders, title).replace(/\.$/, "")}) ${VERDICTS[stand.verdict]}`; // prettier-ignore
  return [evidence === "" ? `${said}.` : words`${said}: ${symbolOf(h.rests)}${evidence}${stand.exploratory ? "; exploratory" : ""}.`];
};

export const PARAGRAPHS: Readonly<Record<ParagraphKind, Composer>> = {
  participants,
  measures,
  analysis,
  look: (source) => source.look && source.look.found.columns.length > 1 ? [words`${leading("table", "look")} holds means, standard deviations, reliabilities and correlations.`] : null, // prettier-ignore
  ladder,
  probe: (source, id) => {
    const probed = probedStep(source, id);
    if (!probed) return null;
    const { probe, reading, result, ladder: of } = probed;
    return [...exploratory({ ladder: of, rows: result.sample.rowsUsed }), ...whatTheProbeSays(probe, reading, result, source.title), words`${leading("table", "slopes", id)} holds the slopes with their tests; ${leading("figure", "lines", id)} shows them.`]; // prettier-ignore
  },
  groups: (source, id) => {
    const found = comparedGroups(source, id);
    if (!found) return null;
    return [...exploratory({ ladder: found.ladder, rows: found.result.sample.rowsUsed }), ...whatTheGroupsSay(found.groups, found.result, found.beside, source.title), words`${leading("table", "groups", id)} holds all coefficients and differences.`]; // prettier-ignore
  },
  means: (source, id) => {
    const found = toldMeans(source, id);
    if (!found) return null;
    return [...exploratory({ ladder: found.ladder, rows: found.told.sample.rowsUsed }), ...whatTheMeansSay(found.means, found.told.reading, found.told, source.title), words`${leading("table", "means", id)} holds what is predicted.`]; // prettier-ignore
  },
  structure: (source, id) => {
    const found = exploredStructure(source, id);
    if (!found) return null;
    const works = citation(source, "horn", "harmanJones", "joreskog", "kaiser", "jennrich", "hendrickson");
    return [structureMethod(found.structure, found.analysis), works === "" ? "" : `The procedures are described elsewhere${works}.`, words`${leading("table", "loadings", id)} holds the loadings.`]; // prettier-ignore
  },
  search: (source, id) => {
    const found = toldSearch(source, id);
    return found && [...whatTheSearchSays(found.search, found.told, source.title), words`${leading("table", "search", id)} holds what each method takes.`]; // prettier-ignore
  },
  importance: (source, id) => {
    const found = toldImportance(source, id);
    return found && [...whatImportanceSays(found.told, source.title), words`${leading("table", "importance", id)} holds all shares.`];
  },
  hypotheses: (source) => {
    const { study, stands } = source;
    if (stands.size === 0) return null;
    return [
      ...study.hypotheses.flatMap((h) => hypothesis(source, h.id) ?? []),
      words`${leading("table", "theory")} holds what each rests on.`,
    ];
  },
  hypothesis,
  references: (source) => referenceEntries(source),
};

/** What a composed paragraph says now, without sentences that say nothing; null: what it is of is not there. */
export function composedSentences(of: { kind: ParagraphKind; ids: readonly string[] }, source: Source): Words[] | null {
  const said = PARAGRAPHS[of.kind](source, of.ids[0] ?? "");
  return said && said.filter((sentence) => sentence !== "").map((sentence) => joined([sentence]));
}

import type { LadderResult } from "../../analyse/analyse-ladder";
import type { ScaleResult } from "../../analyse/analyse-scale";
import type { Stand } from "../../analyse/analyse-theory";
import { exploratoryMark } from "../../model/exploratory";
import { codesOf } from "../../model/hypothesis";
import type { Ladder } from "../../model/ladder";
import type { Look } from "../../model/look";
import type { ReplicateIntervals } from "../../model/replicate-intervals";
import type { Study } from "../../model/study";
import { theoryOf } from "../../model/theory";
import type { AnalysisSample } from "../../prepare/analysis-sample";
import { counted, formatCount, formatLevel, formatPercent, formatShare, listed } from "../format-number";
import { exploratoryWords, markedTable } from "../ladder/exploratory-words";
import { errorWords, ladderTable } from "../ladder/ladder-table";
import { whatTheLadderSays } from "../ladder/ladder-words";
import { withReplicateIntervals } from "../ladder/with-intervals";
import type { Titles } from "../level-title";
import { lookTable } from "../look-table";
import type { Looked } from "../look-words";
import { methodSentence } from "../scale-words";
import { hypothesisSentence } from "../theory/hypothesis-words";
import { theoryTable } from "../theory/theory-table";
import { evidenceWords } from "../theory/verdict-words";
import { type Words, words } from "../words";
import { type Manuscript, ManuscriptWriter } from "./manuscript";

/** What a manuscript is composed from: the study, and those of its results that are there. */
export interface Composed {
  study: Study;
  title: Titles;
  scales: ReadonlyMap<string, ScaleResult>;
  look: { look: Look; found: Looked } | null;
  ladders: ReadonlyMap<string, LadderResult>;
  /** Intervals of ladders that take theirs from replicates. */
  replicates: ReadonlyMap<string, ReplicateIntervals | null>;
  stands: ReadonlyMap<string, Stand>;
}

type Fitted = Extract<LadderResult, { status: "fitted" }>;

/** Method and results of a study as its article would tell them: who took part, what was measured, how it was analysed, what was found. */
export function compose(of: Composed): Manuscript {
  const { study } = of;
  const writer = new ManuscriptWriter();
  const fitted = study.ladders.flatMap((ladder) => {
    const found = of.ladders.get(ladder.id);
    // while a step comes or goes the numbers belong to another shape of the ladder
    const whole = found?.status === "fitted" && found.stepIds.join() === ladder.steps.map((s) => s.id).join();
    return whole ? [{ ladder, found }] : [];
  });
  writer.heading(2, "Method");
  writer.heading(3, "Participants");
  writer.paragraph("participants", participants(study, fitted));
  measures(of, writer);
  writer.heading(3, "Analysis");
  writer.paragraph("analysis", analysisWords(study, fitted));
  writer.heading(2, "Results");
  if (of.look && of.look.found.columns.length > 1) {
    writer.heading(3, "Preliminary analyses");
    writer.paragraph("look", [`Table ${writer.next} holds means, standard deviations, reliabilities and correlations.`]);
    const { look, found } = of.look;
    const by = found.groups.length > 0 && look.by !== null ? `, by ${of.title(look.by)}` : "";
    writer.table("look", { ...lookTable(look, found, of.title), title: `Means, standard deviations, reliabilities and correlations${by}` });
  }
  for (const { ladder, found } of fitted) ladderSection(ladder, found, of, writer);
  hypotheses(of, writer);
  return { title: study.name, blocks: writer.blocks() };
}

function participants(study: Study, fitted: readonly { found: Fitted }[]): Words[] {
  const rows = study.responses?.rows ?? 0;
  const sample: AnalysisSample | undefined = fitted[0]?.found.sample;
  const everywhere = new Set(study.filters.filter((f) => f.everywhere).map((f) => f.id));
  const out = (sample?.leftOut ?? []).filter((one) => one.filter !== null && everywhere.has(one.filter) && one.count > 0);
  const withdrawn = study.responses?.withdrawn ?? 0;
  return [
    rows === 0 ? "There are no answers yet." : `There were ${counted(rows, "respondent")}.`,
    withdrawn > 0 ? `Not among them are ${counted(withdrawn, "respondent")} who withdrew.` : "",
    ...out.map((one) => `Of them ${formatCount(one.count)} ${one.count === 1 ? "was" : "were"} left out (${one.name}${one.reason === "" ? "" : `: ${one.reason.replace(/\.$/, "")}`}).`), // prettier-ignore
  ];
}

function measures({ study, scales, title }: Composed, writer: ManuscriptWriter): void {
  const told = study.scales.flatMap((scale) => {
    const found = scales.get(scale.id);
    return found?.status === "scored" ? [methodSentence(scale, found.analysis, title)] : [];
  });
  if (told.length === 0) return;
  writer.heading(3, "Measures");
  writer.paragraph("measures", told);
}

function analysisWords(study: Study, fitted: readonly { ladder: Ladder; found: Fitted }[]): Words[] {
  if (fitted.length === 0) return ["No model has been fitted yet."];
  const errors = [...new Set(fitted.map(({ found }) => errorWords(found.fit)))];
  const products = fitted.some(({ found }) => found.fit.codings.length > 0);
  const centrings = [...new Set(fitted.filter(({ found }) => found.fit.codings.length > 0).map(({ ladder }) => ({ mean: "mean-centred", z: "turned into z-scores", raw: "left as they are" })[ladder.centring]))]; // prettier-ignore
  const drawn = fitted.filter(({ ladder }) => ladder.intervals.by !== "normal");
  const { alpha, holm, delta } = theoryOf(study.theories);
  const tested = study.hypotheses.length > 0;
  return [
    `${inWords(fitted.length)} ${fitted.length === 1 ? "hierarchical regression was" : "hierarchical regressions were"} fitted by least squares with ${listed(errors)}, all steps of one on the same respondents: those who answered all of its variables.`, // prettier-ignore
    products ? `Variables that are part of a product were ${listed(centrings)} first; standardized coefficients are from products of z-scores, which are not standardized again.` : "", // prettier-ignore
    ...drawn.map(({ ladder }) => (ladder.intervals.by === "normal" ? "" : `Intervals of ${ladder.name} are from ${formatCount(ladder.intervals.replicates)} bootstrap replicates (${ladder.intervals.by === "bca" ? "bias-corrected and accelerated" : "percentile"}, seed ${ladder.seed}).`)), // prettier-ignore
    tested ? `Hypotheses were tested at α = ${formatLevel(alpha)}${holm ? ", corrected over their family by Holm’s procedure" : ""}${delta > 0 ? `; effects below |β| = ${formatShare(delta)} were taken as too small to matter` : ""}. Tests are one-sided only where the direction stood before the result was looked at.` : "", // prettier-ignore
  ];
}

/** A number that begins a sentence. */
const inWords = (n: number) => ["No", "One", "Two", "Three", "Four", "Five", "Six", "Seven", "Eight", "Nine"][n] ?? formatCount(n);

function ladderSection(ladder: Ladder, { fit, sample }: Fitted, { title, replicates }: Composed, writer: ManuscriptWriter): void {
  const mark = exploratoryMark(ladder, sample.rowsUsed);
  const shown = ladder.intervals.by === "normal" ? fit : withReplicateIntervals(fit, replicates.get(ladder.id) ?? null);
  writer.heading(3, ladder.name);
  writer.paragraph(`ladder ${ladder.id}`, [
    ...(mark ? [`${exploratoryWords(mark).head}: ${exploratoryWords(mark).says}`] : []),
    ...whatTheLadderSays(ladder, fit, title),
    `Table ${writer.next} holds all coefficients with ${formatPercent(ladder.confidence)} intervals.`,
  ]);
  writer.table(`ladder ${ladder.id}`, markedTable(ladderTable(ladder, shown, sample, title), mark));
}

const VERDICTS: Readonly<Record<Stand["verdict"], string>> = {
  supported: "is supported",
  "not supported": "is not supported",
  "opposite direction": "goes in the opposite direction",
  "practically nothing": "amounts to practically nothing",
  "too uncertain to say": "cannot be decided",
  "not testable yet": "is not testable yet",
};

function hypotheses({ study, title, stands }: Composed, writer: ManuscriptWriter): void {
  if (stands.size === 0) return;
  const codes = codesOf(study.hypotheses);
  writer.heading(3, "Hypotheses");
  writer.paragraph(
    "hypotheses",
    study.hypotheses.flatMap((h, k) => {
      const stand = stands.get(h.id);
      if (!stand) return [];
      const evidence = evidenceWords(stand, h);
      const said = `${codes[k]!} (${hypothesisSentence(h, study.ladders, title).replace(/\.$/, "")}) ${VERDICTS[stand.verdict]}`;
      return [evidence === "" ? `${said}.` : words`${said}: ${evidence}${stand.exploratory ? "; exploratory" : ""}.`];
    }),
  );
  writer.table("hypotheses", theoryTable(study, stands, theoryOf(study.theories), title));
}

import type { BlockOf, FigureKind } from "../../model/block";
import type { PrintedFigure } from "../../model/printed";
import { formatInterval, formatNumber, formatShare, formatValue } from "../format-number";
import { drawnGroups, type GroupsPicture, groupsPicture } from "../ladder/groups-picture";
import { METRIC_WORDS } from "../ladder/groups-words";
import { type MeansPicture, meansPicture } from "../ladder/means-picture";
import { type ProbeLines, probeLines } from "../ladder/probe-pictures";
import { type TheoryPicture, theoryPicture } from "../theory/theory-picture";
import { axisTitle } from "../level-title";
import { comparedGroups, probedStep, type Source, toldMeans } from "./source";

/** What a figure draws, as values: a chart of the page takes them as they are. */
export type Drawing =
  | { chart: "lines"; picture: ProbeLines; axis: string; outcome: string }
  | { chart: "means"; picture: MeansPicture; axis: string }
  | { chart: "groups"; picture: GroupsPicture; axis: string; shares: boolean }
  | { chart: "theory"; picture: TheoryPicture; title: string };

export interface Figure extends PrintedFigure {
  readonly drawing: Drawing;
}

interface FigureDefinition {
  readonly words: string;
  draw(of: BlockOf<"figure">["of"], source: Source): Figure | null;
}

const axisOf = ({ study, title }: Source, name: string) => axisTitle(study.codebook, title, name);

export const FIGURES: Readonly<Record<FigureKind, FigureDefinition>> = {
  lines: {
    words: "predicted lines",
    draw(of, source) {
      const probed = probedStep(source, of.ids[0]);
      const picture = probed && probeLines(probed.probe, probed.reading, probed.result, source.title);
      if (!picture) return null;
      const { outcome } = probed.result.ground;
      const marks = picture.lines.map(({ name, points }) => `${name}: ${formatNumber(points[0]!.y)} to ${formatNumber(points.at(-1)!.y)}`);
      const drawing = { chart: "lines", picture, axis: axisOf(source, probed.probe.focal), outcome: axisOf(source, outcome) } as const;
      return { title: picture.title, note: picture.note, marks, drawing };
    },
  },
  means: {
    words: "predicted means",
    draw(of, source) {
      const found = toldMeans(source, of.ids[0]);
      const picture = found && meansPicture(found.means, found.told, source.title);
      if (!picture) return null;
      const marks = picture.rows.flatMap((row) => row.marks.map((m) => `${[row.name, m.series].filter(Boolean).join(", ")}: ${formatNumber(m.value)} ${formatInterval(m.lower, m.upper, formatNumber)}`)); // prettier-ignore
      return { title: picture.title, note: picture.note, marks, drawing: { chart: "means", picture, axis: axisOf(source, found.told.ground.outcome) } }; // prettier-ignore
    },
  },
  groups: {
    words: "slopes of groups",
    draw(of, source) {
      const found = comparedGroups(source, of.ids[0]);
      if (!found) return null;
      const { groups, more } = drawnGroups(found.groups);
      const picture = groupsPicture(groups, found.result, found.beside, source.title, more);
      const shares = groups.metric !== "raw";
      const marks = picture.rows.flatMap((row) => row.marks.flatMap((m, g) => (m ? [`${row.name}, ${picture.groups[g]!}: ${shares ? formatShare(m.value) : formatNumber(m.value)}`] : []))); // prettier-ignore
      return { title: picture.title, note: picture.note, marks, drawing: { chart: "groups", picture, axis: METRIC_WORDS[groups.metric], shares } }; // prettier-ignore
    },
  },
  theory: {
    words: "the hypotheses as a picture",
    draw(of, { study, stands, title }) {
      const ladder = study.ladders.find((l) => l.id === of.ids[0]);
      if (!ladder || stands.size === 0 || !study.hypotheses.some((h) => h.ladder === ladder.id)) return null;
      const picture = theoryPicture(ladder, study.hypotheses, stands, title);
      const name = `Hypotheses on ${picture.outcome}${ladder.name === picture.outcome ? "" : ` (${ladder.name})`}`;
      const claims = [...picture.threads.flatMap((t) => t.claims), ...picture.wedges.map((w) => w.claim), ...picture.ties.map((t) => t.claim), ...picture.steps.flatMap((s) => s.claim ?? [])]; // prettier-ignore
      const note = "A thread a predictor, in the order of the steps; its stroke is the verdict, the sign at its end the direction.";
      return { title: name, note, marks: claims.map((c) => `${c.code} ${c.verdict}`), drawing: { chart: "theory", picture, title: name } };
    },
  },
};

/** So many marks, and letters of one, are kept of a figure: enough to see that it has changed. */
const MOST_MARKS = 400;

/** A figure as a study keeps it. */
export const keptFigure = ({ title, note, marks }: Figure): PrintedFigure => ({ title, note, marks: marks.slice(0, MOST_MARKS).map((mark) => mark.slice(0, MOST_MARKS)) }); // prettier-ignore

/** How the numbers of a drawing are printed. */
export const drawnFormat = (drawing: Drawing): ((v: number | null) => string) =>
  drawing.chart === "groups" && drawing.shares ? (v) => formatShare(v) : (v) => formatValue(v);

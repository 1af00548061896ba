import { type Block, type BlockContent, BlockContent as Content, sourceKey } from "../../model/block";
import { codesOf } from "../../model/hypothesis";
import { newId } from "../../model/new-id";
import { listed } from "../format-number";
import { keptCells } from "../print-table";
import { FIGURES, keptFigure } from "./figures";
import { worksUsed } from "./references";
import { composedSentences } from "./paragraphs";
import { comparedGroups, exploredStructure, fittedLadder, probedStep, type Source, toldImportance, toldMeans, toldSearch } from "./source"; // prettier-ignore
import { TABLES } from "./tables";

/** A part that could stand in the write-up, as a sentence offers it. */
export interface Offer {
  /** Ends a sentence: `the table of coefficients of Willingness`. */
  readonly words: string;
  readonly what: BlockContent;
}

const parse = (what: unknown): BlockContent => Content.parse(what);
const of = (kind: string, ...ids: string[]) => ({ kind, ids });

/** The content with what it shows now. Null: there is nothing to show. */
export function filled(what: BlockContent, source: Source): BlockContent | null {
  switch (what.kind) {
    case "heading":
    case "prose":
      return what;
    case "paragraph": {
      const shown = composedSentences(what.of, source);
      return shown && shown.length > 0 ? { ...what, shown: shown as typeof what.shown } : null;
    }
    case "table": {
      const shown = TABLES[what.of.kind].print(what.of, what.options, source);
      return shown && { ...what, shown: keptCells(shown) };
    }
    case "figure": {
      const now = FIGURES[what.of.kind].draw(what.of, source);
      return now && { ...what, shown: keptFigure(now) };
    }
  }
}

/** Everything of the study that a part can be made of, in the order of a results section. */
export function offers(source: Source): Offer[] {
  const { study, title } = source;
  const all: Offer[] = [];
  const paragraph = (words: string, kind: string, ...ids: string[]) =>
    all.push({ words: `the paragraph on ${words}`, what: parse({ kind: "paragraph", of: of(kind, ...ids) }) });
  const table = (words: string, kind: string, ids: string[], options: object = {}) =>
    all.push({ words: `the table of ${words}`, what: parse({ kind: "table", of: of(kind, ...ids), options }) });
  const figure = (words: string, kind: string, id: string) =>
    all.push({ words: `the figure of ${words}`, what: parse({ kind: "figure", of: of(kind, id) }) });
  paragraph("participants", "participants");
  if (study.scales.length > 0) paragraph("measures", "measures");
  paragraph("the analysis", "analysis");
  if (source.look && source.look.found.columns.length > 1) {
    paragraph("the preliminary analyses", "look");
    table(TABLES.look.words, "look", [], { tests: source.look.look.told === "exact" ? "p" : source.look.look.told === "stars" ? "stars" : "neither" }); // prettier-ignore
    table(TABLES.descriptives.words, "descriptives", []);
  }
  for (const structure of study.structures) {
    if (!exploredStructure(source, structure.id)) continue;
    paragraph(structure.name, "structure", structure.id);
    table(`loadings and communalities of ${structure.name}`, "loadings", [structure.id]);
  }
  const fitted = study.ladders.filter((ladder) => fittedLadder(source, ladder.id));
  for (const ladder of fitted) {
    paragraph(ladder.name, "ladder", ladder.id);
    table(`coefficients of ${ladder.name}`, "coefficients", [ladder.id]);
    table(`what each step of ${ladder.name} adds`, "steps", [ladder.id]);
    for (const probe of study.probes.filter((p) => p.ladder === ladder.id)) {
      const probed = probedStep(source, probe.id);
      if (!probed) continue;
      const words = `${title(probe.focal)} by ${listed(probe.moderators.map((m) => title(m.variable)))} (${ladder.name})`;
      paragraph(words, "probe", probe.id);
      table(`simple slopes of ${words}`, "slopes", [probe.id]);
      if (FIGURES.lines.draw({ kind: "lines", ids: [probe.id] }, source)) figure(`predicted lines of ${words}`, "lines", probe.id);
    }
    for (const means of study.means.filter((m) => m.ladder === ladder.id)) {
      if (!toldMeans(source, means.id)) continue;
      const words = `predicted means of ${title(means.variable)} (${ladder.name})`;
      paragraph(words, "means", means.id);
      table(words, "means", [means.id]);
      figure(words, "means", means.id);
    }
    for (const groups of study.groups.filter((g) => g.ladder === ladder.id)) {
      if (!comparedGroups(source, groups.id)) continue;
      const words = `groups of ${title(groups.variable)} (${ladder.name})`;
      paragraph(words, "groups", groups.id);
      table(words, "groups", [groups.id]);
      figure(`slopes of ${words}`, "groups", groups.id);
    }
    for (const one of study.importances.filter((i) => i.ladder === ladder.id)) {
      if (!toldImportance(source, one.id)) continue;
      paragraph(`shares of R² (${ladder.name})`, "importance", one.id);
      table(`shares of R² (${ladder.name})`, "importance", [one.id]);
    }
    for (const one of study.searches.filter((s) => s.ladder === ladder.id)) {
      if (!toldSearch(source, one.id)) continue;
      paragraph(`the search for predictors (${ladder.name})`, "search", one.id);
      table(`the search for predictors (${ladder.name})`, "search", [one.id]);
    }
  }
  if (study.hypotheses.length > 0 && source.stands.size > 0) {
    paragraph("the hypotheses", "hypotheses");
    table("hypotheses", "theory", []);
    for (const ladder of fitted) if (study.hypotheses.some((h) => h.ladder === ladder.id)) figure(`the hypotheses on ${ladder.name}`, "theory", ladder.id); // prettier-ignore
    study.hypotheses.forEach((h, k) => source.stands.has(h.id) && paragraph(`${codesOf(study.hypotheses)[k]!} alone`, "hypothesis", h.id));
  }
  if (worksUsed(source).length > 0) paragraph("references of the procedures", "references");
  return all;
}

/** Two to four ladders in one table. */
export const together = (ladders: readonly string[]): BlockContent =>
  parse({ kind: "table", of: of("coefficients", ...ladders), options: { metric: "beta", spread: "interval", tests: "stars" } });

/** What a part is told of: it stands under the heading of this. */
function sectionOf(what: BlockContent): string {
  if (!("of" in what)) return "";
  return what.of.ids[0] ?? what.of.kind;
}

/** Kinds that stand in the text only where a person wants them. */
const ONLY_ASKED = new Set(["table steps", "table descriptives", "paragraph hypothesis"]);

/**
 * The whole text as it is composed at first: method, preliminary analyses, a section a ladder with its probes, hypotheses, references.
 * @param at the time, ISO
 */
export function begun(source: Source, at = ""): Block[] {
  const { study } = source;
  const blocks: Block[] = [];
  const ids: string[] = [];
  const put = (what: BlockContent) => {
    const full = filled(what, source);
    if (!full) return;
    const name = full.kind === "heading" ? `h ${full.text}` : sourceKey(full);
    const id = newId(name, ids);
    ids.push(id);
    blocks.push({ id, what: full, at });
  };
  const heading = (level: 2 | 3, text: string) => put({ kind: "heading", level, text });
  const there = offers(source).filter(({ what }) => "of" in what && !ONLY_ASKED.has(`${what.kind} ${what.of.kind}`));
  const take = (...sections: string[]) => there.filter(({ what }) => sections.includes(sectionOf(what))).forEach(({ what }) => put(what));
  heading(2, "Method");
  heading(3, "Participants");
  take("participants");
  if (study.scales.some((s) => source.scales.get(s.id)?.status === "scored")) {
    heading(3, "Measures");
    take("measures", ...study.structures.map((s) => s.id));
  }
  heading(3, "Analysis");
  take("analysis");
  heading(2, "Results");
  if (source.look && source.look.found.columns.length > 1) {
    heading(3, "Preliminary analyses");
    take("look");
  }
  for (const ladder of study.ladders) {
    if (!fittedLadder(source, ladder.id)) continue;
    heading(3, ladder.name);
    const own = (all: readonly { id: string; ladder: string }[]) => all.filter((one) => one.ladder === ladder.id).map(({ id }) => id);
    there.filter(({ what }) => sectionOf(what) === ladder.id && what.kind !== "figure").forEach(({ what }) => put(what));
    take(...own(study.probes), ...own(study.means), ...own(study.groups), ...own(study.importances), ...own(study.searches));
  }
  if (study.hypotheses.length > 0 && source.stands.size > 0) {
    heading(3, "Hypotheses");
    take("hypotheses");
    there.filter(({ what }) => what.kind === "figure" && what.of.kind === "theory").forEach(({ what }) => put(what));
    take("theory");
  }
  if (worksUsed(source).length > 0) {
    heading(2, "References");
    take("references");
  }
  return blocks;
}

/** What is in the study and nowhere in the text: a further ladder, a probe, a measure. */
export function notInText(source: Source, blocks: readonly Block[]): Offer[] {
  const told = new Set(blocks.flatMap(({ what }) => ("of" in what ? [what.of.kind, ...what.of.ids] : [])));
  return offers(source).filter(({ what }) => {
    if (!("of" in what) || ONLY_ASKED.has(`${what.kind} ${what.of.kind}`)) return false;
    return what.of.ids.length === 0 ? !told.has(what.of.kind) && what.of.kind !== "theory" : !told.has(what.of.ids[0]!);
  });
}

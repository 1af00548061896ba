import type { Block, BlockContent, BlockOf } from "@/study/model/block";
import { codesOf } from "@/study/model/hypothesis";
import type { Study } from "@/study/model/study";
import type { numbering } from "@/study/report/document/manuscript";
import { listed } from "@/study/report/format-number";
import type { Titles } from "@/study/report/level-title";

const SAID: Readonly<Record<string, string>> = { participants: "participants", measures: "measures", analysis: "the analysis", look: "the preliminary analyses", hypotheses: "the hypotheses", references: "references" }; // prettier-ignore

/** What each block is called where it is spoken of: `Table 2`, `the paragraph on Willingness`; of those that would be called alike the later ones have a number. */
export function blockNames(
  blocks: readonly Block[],
  study: Study,
  numberOf: ReturnType<typeof numbering>,
  title: Titles,
): ReadonlyMap<string, string> {
  const seen = new Map<string, number>();
  return new Map(
    blocks.map((block) => {
      const name = blockName(block, study, numberOf, title);
      const before = seen.get(name) ?? 0;
      seen.set(name, before + 1);
      return [block.id, before === 0 ? name : `${name} (${before + 1})`];
    }),
  );
}

function blockName({ id, what }: Block, study: Study, numberOf: ReturnType<typeof numbering>, title: Titles): string {
  switch (what.kind) {
    case "heading":
      return `the heading ${what.text}`;
    case "prose":
      return "a text of your own";
    case "paragraph":
      return `the paragraph on ${SAID[what.of.kind] ?? toldOf(what.of, study, title)}`;
    case "table":
    case "figure":
      return numberOf(id)?.words ?? what.kind;
  }
}

/** The objects of the study that a block tells of, by their names. */
export function whatOf(what: BlockContent, study: Study, title: Titles): string {
  if (!("of" in what)) return "";
  return listed(what.of.ids.map((id) => objectName(id, study, title) || what.of.kind));
}

/** What a paragraph tells of: a ladder by its name, what was asked of one with its ladder. */
function toldOf({ kind, ids }: BlockOf<"paragraph">["of"], study: Study, title: Titles): string {
  const name = listed(ids.map((id) => objectName(id, study, title)).filter((one) => one !== ""));
  const own = [...study.probes, ...study.means, ...study.groups, ...study.searches, ...study.importances].find(({ id }) => id === ids[0]);
  const ladder = own && study.ladders.find(({ id }) => id === own.ladder)?.name;
  const words = { means: `means by ${name}`, groups: `groups of ${name}`, search: "the search for predictors", importance: "each term’s share of R²" }[kind as string] ?? (name || kind); // prettier-ignore
  return ladder === undefined ? words : `${words} (${ladder})`;
}

/** An object of the study as it is called in a sentence; "" for one that is gone. */
export function objectName(id: string, study: Study, title: Titles): string {
  const named = [...study.ladders, ...study.structures, ...study.scales].find((one) => one.id === id);
  if (named) return named.name;
  const probe = study.probes.find((p) => p.id === id);
  if (probe) return `${title(probe.focal)} by ${listed(probe.moderators.map((m) => title(m.variable)))}`;
  const by = study.means.find((m) => m.id === id) ?? study.groups.find((g) => g.id === id);
  if (by) return title(by.variable);
  const k = study.hypotheses.findIndex((h) => h.id === id);
  return codesOf(study.hypotheses)[k] ?? "";
}

/** What a block without an object of its own rests on. */
export const GROUND: Readonly<Record<string, string>> = {
  participants: "the responses",
  measures: "the scales",
  look: "the first look",
  descriptives: "the first look",
  hypotheses: "the hypotheses",
  theory: "the hypotheses",
};

/** Where in the study the numbers of a block are worked out, from the study's own address. */
export function placeOf(what: BlockContent, study: Study): string | null {
  if (!("of" in what)) return null;
  const [id] = what.of.ids;
  switch (what.of.kind) {
    case "measures":
    case "structure":
    case "loadings":
      return "scales";
    case "look":
    case "descriptives":
      return "first-look";
    case "participants":
      return "responses";
    case "hypotheses":
    case "theory":
      return "theory";
    case "hypothesis":
      return `theory?hypothesis=${id}`;
    default: {
      if (id === undefined) return "ladders";
      if (study.ladders.some((l) => l.id === id)) return `ladders?ladder=${id}`;
      const after = [...study.probes, ...study.means, ...study.groups, ...study.searches, ...study.importances].find(
        (one) => one.id === id,
      );
      return after ? `ladders?ladder=${after.ladder}&probe=${id}` : "ladders";
    }
  }
}

import { type Block, sourceKey } from "../../model/block";
import type { PrintTable } from "../print-table";
import { joined, runsOf, type Words } from "../words";
import type { Drawing } from "./figures";
import { FIGURES } from "./figures";
import { proseWords } from "./numbers-in";
import type { Source } from "./source";

/** A part of a manuscript as it is printed, in the order in which it is read. */
export type PrintedBlock =
  | { readonly key: string; readonly kind: "heading"; readonly level: 2 | 3; readonly text: string }
  | { readonly key: string; readonly kind: "paragraph"; readonly sentences: readonly Words[]; readonly hanging?: boolean }
  | { readonly key: string; readonly kind: "table"; readonly number: number; readonly table: PrintTable }
  | { readonly key: string; readonly kind: "figure"; readonly number: number; readonly title: Words; readonly note: Words; readonly alt: string; readonly drawing: Drawing | null }; // prettier-ignore

/** A manuscript as values: the page and every kind of file print it, and nobody composes it twice. */
export interface Manuscript {
  readonly title: string;
  readonly blocks: readonly PrintedBlock[];
}

/** Numbers of tables and figures by the ids of their blocks, in the order in which they stand; and where a reference leads. */
export function numbering(blocks: readonly Block[]): (to: string) => { id: string; words: string } | null {
  const numbers = new Map<string, { id: string; words: string }>();
  const count = { table: 0, figure: 0 };
  for (const { id, what } of blocks) {
    if (what.kind !== "table" && what.kind !== "figure") continue;
    const words = `${what.kind === "table" ? "Table" : "Figure"} ${++count[what.kind]}`;
    numbers.set(id, { id, words });
    const key = sourceKey(what);
    if (!numbers.has(key)) numbers.set(key, { id, words });
  }
  // what stands beside others in one table is found there, unless it has a table of its own
  for (const { id, what } of blocks) {
    if (what.kind !== "table" || what.of.ids.length < 2) continue;
    for (const one of what.of.ids) {
      const key = sourceKey({ ...what, of: { ...what.of, ids: [one] } });
      if (!numbers.has(key)) numbers.set(key, numbers.get(id)!);
    }
  }
  return (to) => numbers.get(to) ?? null;
}

/** Words whose references lead to their numbers. Null: one of them leads nowhere. */
function resolved(words: Words, numberOf: ReturnType<typeof numbering>): Words | null {
  let whole = true;
  const runs = runsOf(words).map((run): Words => {
    if (run.as !== "reference") return run.as === null ? run.text : [run];
    const found = numberOf(run.to);
    if (!found) whole = false;
    return found ? [{ ...run, text: found.words, to: found.id }] : "";
  });
  return whole ? joined(runs) : null;
}

/** A composed sentence that names a table which is not in the text says nothing; of a person's own, only the name goes. */
export function printedSentences(sentences: readonly Words[], numberOf: ReturnType<typeof numbering>): Words[] {
  return sentences.map((sentence) => resolved(sentence, numberOf)).filter((sentence) => sentence !== null);
}

/** A person's own paragraph: a table that is not in the text reads so. */
export function printedProse(words: Words, numberOf: ReturnType<typeof numbering>): Words {
  return joined(
    runsOf(words).map((run): Words => {
      if (run.as === null) return run.text;
      if (run.as !== "reference") return [run];
      const found = numberOf(run.to);
      return found ? [{ ...run, text: found.words, to: found.id }] : "(a table that is not in the text)";
    }),
  );
}

/** Blocks as they are printed, by what each shows: nothing is worked out anew but the drawing of figures. */
export function manuscriptOf(title: string, blocks: readonly Block[], source: Source): Manuscript {
  const numberOf = numbering(blocks);
  const printed = blocks.flatMap(({ id, what }): PrintedBlock[] => {
    switch (what.kind) {
      case "heading":
        return what.text === "" ? [] : [{ key: id, kind: "heading", level: what.level, text: what.text }];
      case "prose":
        return ownParagraphs(id, what.text, numberOf);
      case "paragraph": {
        if (what.own !== null) return ownParagraphs(id, what.own, numberOf);
        const sentences = printedSentences((what.shown ?? []) as Words[], numberOf);
        if (what.of.kind === "references")
          return sentences.map((one, k) => ({ key: `${id} ${k}`, kind: "paragraph", sentences: [one], hanging: true }));
        return sentences.length === 0 ? [] : [{ key: id, kind: "paragraph", sentences }];
      }
      case "table": {
        if (!what.shown) return [];
        const note = what.note === "" ? what.shown.note : joined([what.shown.note as Words, ` ${what.note}`]);
        return [{ key: id, kind: "table", number: numberIn(numberOf(id)!.words), table: { ...what.shown, note } as PrintTable }];
      }
      case "figure": {
        if (!what.shown) return [];
        const note = what.note === "" ? what.shown.note : joined([what.shown.note as Words, ` ${what.note}`]);
        const { title: name, marks } = what.shown;
        const drawing = FIGURES[what.of.kind].draw(what.of, source)?.drawing ?? null;
        return [{ key: id, kind: "figure", number: numberIn(numberOf(id)!.words), title: name as Words, note: note as Words, alt: marks.join("; "), drawing }]; // prettier-ignore
      }
    }
  });
  return { title, blocks: printed };
}

const numberIn = (words: string) => Number(words.split(" ")[1]);

function ownParagraphs(id: string, text: Parameters<typeof proseWords>[0][], numberOf: ReturnType<typeof numbering>): PrintedBlock[] {
  return text.flatMap((paragraph, k) => {
    const words = printedProse(proseWords(paragraph), numberOf);
    return words === "" ? [] : [{ key: k === 0 ? id : `${id} ${k}`, kind: "paragraph" as const, sentences: [words] }];
  });
}

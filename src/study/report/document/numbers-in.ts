import type { ProsePiece, Prose } from "../../model/block";
import type { Study } from "../../model/study";
import { joined, plain, runsOf, type Words } from "../words";

/** A piece of a composed sentence: letters as they are set, or a number that counts itself among all numbers of the paragraph. */
export type SentencePiece = { readonly number: null; readonly words: Words } | { readonly number: number; readonly words: string };

/** A sign, thousands parted by thin spaces, decimals, a power of ten. */
const NUMBER = "[−]?(?:\\d{1,3}(?:\\u202f\\d{3})+|\\d+)?(?:\\.\\d+|(?<=\\d))(?: × 10[⁻⁰¹²³⁴⁵⁶⁷⁸⁹]+)?";

/**
 * Where the numbers of composed sentences stand. The sentences are our own, so that whatever is digits in them is a number, but for the names of the study: those
 * that hold a digit are letters.
 */
export class NumberFinder {
  private readonly pattern: RegExp;

  constructor(names: Iterable<string>) {
    const own = [...new Set(names)].filter((name) => /\d/.test(name)).sort((a, b) => b.length - a.length);
    const escaped = own.map((name) => name.replace(/[.*+?^${}()|[\]\\]/g, "\\$&"));
    this.pattern = new RegExp(`(${[...escaped, "[A-Za-z]+\\d+"].join("|")})|(${NUMBER})`, "gu");
  }

  /** @param from how many numbers came before */
  pieces(sentence: Words, from = 0): SentencePiece[] {
    let count = from;
    return runsOf(sentence).flatMap((run): SentencePiece[] => {
      if (run.as !== null) return [{ number: null, words: [run] }];
      const pieces: SentencePiece[] = [];
      let at = 0;
      for (const found of run.text.matchAll(this.pattern)) {
        const number = found[2];
        if (number === undefined || number === "") continue;
        if (found.index > at) pieces.push({ number: null, words: run.text.slice(at, found.index) });
        pieces.push({ number: count++, words: number });
        at = found.index + number.length;
      }
      if (at < run.text.length) pieces.push({ number: null, words: run.text.slice(at) });
      return pieces;
    });
  }

  /** All numbers of a paragraph, in their order. */
  numbers(sentences: readonly Words[]): string[] {
    return sentences.flatMap((sentence) => this.pieces(sentence).flatMap((piece) => (piece.number === null ? [] : [piece.words])));
  }

  /** What a sentence says without its numbers. */
  skeleton(sentence: Words): string {
    return this.pieces(sentence).map((piece) => (piece.number === null ? plain(piece.words) : "#")).join(""); // prettier-ignore
  }

  /** A composed paragraph as one that a person can write in. */
  prose(sentences: readonly Words[]): Prose {
    let count = 0;
    const paragraph: ProsePiece[] = [];
    sentences.forEach((sentence, k) => {
      if (k > 0) push(paragraph, " ");
      for (const piece of this.pieces(sentence, count)) {
        if (piece.number === null)
          for (const run of runsOf(piece.words)) push(paragraph, run.as === null ? run.text : run.as === "reference" ? { as: "reference", to: run.to } : run); // prettier-ignore
        else {
          paragraph.push({ as: "number", of: String(piece.number), shown: piece.words });
          count = piece.number + 1;
        }
      }
    });
    return [paragraph];
  }
}

function push(all: ProsePiece[], piece: ProsePiece): void {
  const last = all.at(-1);
  if (typeof last === "string" && typeof piece === "string") all[all.length - 1] = last + piece;
  else if (piece !== "") all.push(piece);
}

/** Every text in an object, however deep. */
function textsIn(of: unknown, into: Set<string>): Set<string> {
  if (typeof of === "string") into.add(of);
  else if (of !== null && typeof of === "object") for (const value of Object.values(of)) textsIn(value, into);
  return into;
}

/** Every name of a study that may stand in a sentence: of the codebook only what something names, since a file may have thousands of columns. */
export function namesIn(study: Study): string[] {
  const { ladders, scales, looks, structures, probes, means, groups, searches, hypotheses, filters } = study;
  const named = textsIn([ladders, scales, looks, structures, probes, means, groups, searches, hypotheses, filters], new Set());
  return [
    ...study.codebook.filter((v) => named.has(v.name)).flatMap((v) => [v.name, v.label, v.short, ...v.levels.flatMap((level) => [level.value, level.label]).filter((word) => /\D/.test(word))]), // prettier-ignore
    ...study.scales.map((s) => s.name),
    ...study.ladders.flatMap((l) => [l.name, ...l.steps.map((s) => s.name)]),
    ...study.filters.flatMap((f) => [f.name, f.reason.replace(/\.$/, "")]),
    ...study.structures.map((s) => s.name),
    ...study.hypotheses.map((h) => h.text),
  ].filter((name) => name.trim() !== "");
}

/** Words with the letters of prose: numbers as they were shown. References stay to be resolved. */
export function proseWords(paragraph: readonly ProsePiece[]): Words {
  return joined(
    paragraph.map((piece): Words => {
      if (typeof piece === "string") return piece;
      if (piece.as === "number") return piece.shown;
      return piece.as === "reference" ? [{ text: "Table", as: "reference", to: piece.to }] : [piece];
    }),
  );
}

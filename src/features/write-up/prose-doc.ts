import type { JSONContent } from "@tiptap/core";
import type { Prose, ProsePiece } from "@/study/model/block";
import type { numbering } from "@/study/report/document/manuscript";
import { plain, type Words } from "@/study/report/words";

/** Prose as the editor holds it. @param numberOf the words of what a reference leads to: `Table 2` */
export function editorDocument(prose: Prose, numberOf: (to: string) => string): JSONContent {
  return {
    type: "doc",
    content: (prose.length === 0 ? [[]] : prose).map((paragraph) => ({
      type: "paragraph",
      content: paragraph.flatMap((piece): JSONContent[] => {
        if (typeof piece === "string") return piece === "" ? [] : [{ type: "text", text: piece }];
        if (piece.as === "number") return [{ type: "live", attrs: { of: piece.of, shown: JSON.stringify(piece.shown) } }];
        if (piece.as === "reference") return [{ type: "leading", attrs: { to: piece.to, words: numberOf(piece.to) } }];
        return piece.text === "" ? [] : [{ type: "text", text: piece.text, marks: [{ type: piece.as }] }];
      }),
    })),
  };
}

/** What a reference reads as. */
export const wordsOf =
  (numberOf: ReturnType<typeof numbering>) =>
  (to: string): string =>
    numberOf(to)?.words ?? "a table that is not in the text";

/** Where each paragraph and each piece of prose stands in its letters. */
interface Stretch {
  piece: ProsePiece;
  letters: string;
  /** Offset of its first letter. */
  from: number;
  /** It is one letter to the editor, and nobody types into it. */
  bound: boolean;
}

/** Prose as letters alone, as a plain field holds it: a line each paragraph. */
export class Plain {
  readonly letters: string;
  private readonly paragraphs: readonly (readonly Stretch[])[];

  constructor(
    private readonly prose: Prose,
    numberOf: (to: string) => string,
  ) {
    let at = 0;
    this.paragraphs = (prose.length === 0 ? [[]] : prose).map((paragraph, k) => {
      if (k > 0) at++; // the end of the line before
      return paragraph.map((piece): Stretch => {
        const from = at;
        const bound = typeof piece !== "string" && (piece.as === "number" || piece.as === "reference");
        // a field reads an end of a line in a piece as the end of a paragraph
        const letters = lettersOf(piece, numberOf).replace(/[\r\n]/g, " ");
        at += letters.length;
        return { piece, letters, from, bound };
      });
    });
    this.letters = this.paragraphs.map((line) => line.map(({ letters }) => letters).join("")).join("\n");
  }

  /**
   * The prose after its letters were changed to others: what stands before the first and after the last that differs is as it was, with looks and bound numbers,
   * and between them stand the new letters. A number that was written into is letters from then on.
   */
  changedTo(letters: string): Prose {
    const before = this.letters;
    if (letters === before) return this.prose;
    const most = Math.min(before.length, letters.length);
    let start = 0;
    while (start < most && before[start] === letters[start]) start++;
    start = this.edge(start, "from");
    let end = 0;
    while (end < most - start && before.at(-1 - end) === letters.at(-1 - end)) end++;
    end = before.length - this.edge(before.length - end, "to");
    const lines = letters.slice(start, letters.length - end).split("\n");
    return follow(
      follow(
        this.slice(0, start),
        lines.map((line) => [line]),
      ),
      this.slice(before.length - end, before.length),
    );
  }

  /** Where the editor counts the place before a letter: a paragraph begins with one step and ends with one, a bound number is one. */
  place(offset: number): number {
    let place = 1;
    let at = 0;
    for (const [k, line] of this.paragraphs.entries()) {
      if (k > 0) {
        if (offset <= at) return place;
        at++;
        place += 2;
      }
      for (const { letters, bound } of line) {
        if (offset <= at) return place;
        place += bound ? 1 : Math.min(letters.length, offset - at);
        at += letters.length;
      }
    }
    return place;
  }

  /** An offset within a bound number, or between the two halves of a letter, is moved to one of its ends. */
  private edge(offset: number, end: "from" | "to"): number {
    const within = this.paragraphs.flat().find((of) => of.bound && of.from < offset && offset < of.from + of.letters.length);
    if (within) return end === "from" ? within.from : within.from + within.letters.length;
    if (!/^[\uD800-\uDBFF][\uDC00-\uDFFF]$/.test(this.letters.slice(offset - 1, offset + 1))) return offset;
    return end === "from" ? offset - 1 : offset + 1;
  }

  /** What stands between two offsets of which none is within a bound number. */
  private slice(from: number, to: number): Prose {
    const lineOf = (offset: number) => this.letters.slice(0, offset).split("\n").length - 1;
    return this.paragraphs.slice(lineOf(from), lineOf(to) + 1).map((line) =>
      line.flatMap(({ piece, letters, from: at, bound }): ProsePiece[] => {
        const [begin, end] = [Math.max(from, at), Math.min(to, at + letters.length)];
        if (begin >= end) return [];
        return [bound ? piece : cut(piece, begin - at, end - at)];
      }),
    );
  }
}

function lettersOf(piece: ProsePiece, numberOf: (to: string) => string): string {
  if (typeof piece === "string") return piece;
  if (piece.as === "number") return plain(piece.shown as Words);
  return piece.as === "reference" ? numberOf(piece.to) : piece.text;
}

/** A stretch of letters with their look. */
function cut(piece: ProsePiece, from: number, to: number): ProsePiece {
  if (typeof piece === "string") return piece.slice(from, to);
  return "text" in piece ? { ...piece, text: piece.text.slice(from, to) } : piece;
}

/** One prose after another: its first paragraph goes on with the last one before it. */
function follow(before: Prose, after: Prose): Prose {
  const all = [...before.slice(0, -1), [...before.at(-1)!, ...after[0]!], ...after.slice(1)];
  return all.map(joinedLetters);
}

/** Plain letters that stand together are one piece. */
function joinedLetters(pieces: readonly ProsePiece[]): ProsePiece[] {
  const all: ProsePiece[] = [];
  for (const piece of pieces) {
    const last = all.at(-1);
    if (typeof last === "string" && typeof piece === "string") all[all.length - 1] = last + piece;
    else if (piece !== "") all.push(piece);
  }
  return all;
}

/** What a person has written, as the study keeps it: letters that stand together are one piece. */
export function writtenProse(document: JSONContent): Prose {
  return (document.content ?? []).map((paragraph) => joinedLetters((paragraph.content ?? []).map(pieceOf)));
}

function pieceOf(node: JSONContent): ProsePiece {
  const attrs = (node.attrs ?? {}) as { of?: string; shown?: string; to?: string };
  if (node.type === "live")
    return { as: "number", of: attrs.of!, shown: JSON.parse(attrs.shown!) as Extract<ProsePiece, { as: "number" }>["shown"] };
  if (node.type === "leading") return { as: "reference", to: attrs.to! };
  const mark = node.marks?.[0]?.type;
  return mark === "italic" || mark === "superscript" ? { text: node.text ?? "", as: mark } : (node.text ?? "");
}

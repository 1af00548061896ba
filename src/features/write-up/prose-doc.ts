import type { JSONContent } from "@tiptap/core";
import type { Prose, ProsePiece } from "@/study/model/block";

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

/** A text with what was typed after its end; a new line begins a paragraph. */
export function continued(prose: Prose, typed: string): Prose {
  if (typed === "") return prose;
  const [first, ...further] = typed.split("\n");
  const last = prose.at(-1) ?? [];
  const end = last.at(-1);
  const grown = typeof end === "string" ? [...last.slice(0, -1), end + first] : [...last, first!];
  return [...prose.slice(0, -1), grown, ...further.map((line) => (line === "" ? [] : [line]))];
}

/** What a person has written, as the study keeps it: letters that stand together are one piece. */
export function writtenProse(document: JSONContent): Prose {
  return (document.content ?? []).map((paragraph) => {
    const pieces: ProsePiece[] = [];
    for (const node of paragraph.content ?? []) {
      const piece = pieceOf(node);
      const last = pieces.at(-1);
      if (typeof last === "string" && typeof piece === "string") pieces[pieces.length - 1] = last + piece;
      else if (piece !== "") pieces.push(piece);
    }
    return pieces;
  });
}

function pieceOf(node: JSONContent): ProsePiece {
  const attrs = (node.attrs ?? {}) as { of?: string; shown?: string; to?: string };
  if (node.type === "live")
    return { as: "number", of: attrs.of!, shown: JSON.parse(attrs.shown!) as Extract<ProsePiece, { as: "number" }>["shown"] };
  if (node.type === "leading") return { as: "reference", to: attrs.to! };
  const mark = node.marks?.[0]?.type;
  return mark === "italic" || mark === "superscript" ? { text: node.text ?? "", as: mark } : (node.text ?? "");
}

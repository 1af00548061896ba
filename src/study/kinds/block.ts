import { Block } from "../model/block";
import { ObjectId } from "../model/names";
import type { KeptKind } from "./kind";

const TOLD = { heading: "heading", prose: "text of one’s own", paragraph: "paragraph", table: "table", figure: "figure" } as const;

/** A part of the write-up. */
export const block = {
  kind: "block",
  list: "blocks",
  schema: Block,
  id: ObjectId,
  word: "Write-up:",
  many: "Write-up",
  fieldWords: { what: "what it says" },
  place: "write-up",
  idOf: (b: Block) => b.id,
  nameOf: ({ what }: Block) => {
    if (what.kind === "heading") return `heading “${what.text.slice(0, 60)}”`;
    return "of" in what ? `${TOLD[what.kind]} of ${what.of.kind}` : TOLD[what.kind];
  },
  opens: { at: (b: Block) => `write-up#${b.id}` },
  // what it tells of may be gone: it then says so, and keeps what it said
  needs: () => ({ names: [] }),
} satisfies KeptKind<"block", "blocks", Block>;

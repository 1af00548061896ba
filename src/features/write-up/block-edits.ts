import { type Block, type BlockContent, sourceKey } from "@/study/model/block";
import type { Edit } from "@/study/model/edit";
import { newId } from "@/study/model/new-id";

/** Ids of blocks that were quoted before the text was composed begin so. */
const QUOTED = "quoted";
export const isQuote = ({ id }: Block) => id.startsWith(QUOTED);

export const changeBlock = (block: Block, what: BlockContent, at = block.at): Edit => ({
  subject: "block",
  id: block.id,
  to: { ...block, what, at },
});

/** A new block at a place of the list. */
export function addBlock(blocks: readonly Block[], place: number, what: BlockContent, at: string): { id: string; edit: Edit } {
  const name = what.kind === "heading" ? `h ${what.text}` : sourceKey(what);
  const id = newId(name, blocks.map((b) => b.id)); // prettier-ignore
  return { id, edit: { subject: "block", id, to: { id, what, at }, at: place } };
}

/** A block at another place: taken out, and put back there. */
export function moveBlock(blocks: readonly Block[], from: number, to: number): Edit[] {
  const block = blocks[from];
  if (!block || to === from || to < 0 || to >= blocks.length) return [];
  return [
    { subject: "block", id: block.id, to: null },
    { subject: "block", id: block.id, to: block, at: to },
  ];
}

/** The text as it was composed, with what was quoted before at its end. */
export function keepBegun(begun: readonly Block[], quoted: readonly Block[]): Edit[] {
  const taken = new Set(begun.map(({ id }) => id));
  return [
    ...quoted.map(({ id }): Edit => ({ subject: "block", id, to: null })),
    ...[...begun, ...quoted.filter(({ id }) => !taken.has(id))].map((to, at): Edit => ({ subject: "block", id: to.id, to, at })),
  ];
}

import type { Block, Manuscript } from "@/study/report/document/manuscript";
import { tableAsMarkdown, wordsAsMarkdown } from "./markdown";

/** A manuscript as Markdown. */
export function manuscriptMarkdown({ title, blocks }: Manuscript): string {
  return `${[`# ${wordsAsMarkdown(title)}`, ...blocks.map(blockLines)].join("\n\n")}\n`;
}

function blockLines(block: Block): string {
  switch (block.kind) {
    case "heading":
      return `${"#".repeat(block.level)} ${wordsAsMarkdown(block.text)}`;
    case "paragraph":
      return block.sentences.map(wordsAsMarkdown).join(" ");
    case "table":
      return tableAsMarkdown(block.table, block.number).trimEnd();
  }
}

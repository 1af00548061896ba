import type { Manuscript, PrintedBlock } from "@/study/report/document/manuscript";
import { tableAsMarkdown, wordsAsMarkdown } from "./markdown";

/** A manuscript as Markdown; of a figure its numbers are told, since a text holds no picture. */
export function manuscriptMarkdown({ title, blocks }: Manuscript): string {
  return `${[`# ${wordsAsMarkdown(title)}`, ...blocks.map(blockLines)].join("\n\n")}\n`;
}

function blockLines(block: PrintedBlock): string {
  switch (block.kind) {
    case "heading":
      return `${"#".repeat(block.level)} ${wordsAsMarkdown(block.text)}`;
    case "paragraph":
      return block.sentences.map(wordsAsMarkdown).join(" ");
    case "table":
      return tableAsMarkdown(block.table, block.number).trimEnd();
    case "figure":
      return `**Figure ${block.number}** ${wordsAsMarkdown(block.title)}\n\n${wordsAsMarkdown(block.alt)}\n\n*Note.* ${wordsAsMarkdown(block.note)}`; // prettier-ignore
  }
}

import type { PrintTable } from "@/study/report/print-table";
import { runsOf, type Words, words } from "@/study/report/words";
import { overOf } from "./print-table-csv";

/** Words as Markdown: what would be taken for a mark of it is set off. */
export function wordsAsMarkdown(words: Words): string {
  return runsOf(words)
    .map(({ text, as }) => {
      const safe = text.replace(/[\\`*_[\]<>#|]/g, (mark) => `\\${mark}`).replace(/\s*\n\s*/g, " ");
      if (as === "italic") return `*${safe}*`;
      return as === "superscript" ? `<sup>${safe}</sup>` : safe;
    })
    .join("");
}

/** A table as Markdown of the kind with pipes: its title above, its note below. @param number of a table in a manuscript: above its title */
export function tableAsMarkdown(table: PrintTable, number: number | null = null): string {
  const line = (cells: readonly Words[]) => `| ${cells.map(wordsAsMarkdown).join(" | ")} |`;
  const rows = table.sections.flatMap(({ heading, rows: own }) => {
    const said = wordsAsMarkdown(heading);
    return [...(said === "" ? [] : [`| **${said}** |${" |".repeat(table.head.length - 1)}`]), ...own.map(line)];
  });
  // a table with pipes has one row of headings
  const over = overOf(table);
  const head = [
    line(table.head.map((own, i) => (over[i] === "" ? own : words`${over[i]!}: ${own}`))),
    `|${" --- |".repeat(table.head.length)}`,
  ];
  const title = wordsAsMarkdown(table.title);
  return [
    number === null ? `**${title}**` : `**Table ${number}** ${title}`,
    "",
    ...head,
    ...rows,
    "",
    `*Note.* ${wordsAsMarkdown(table.note)}`,
    "",
  ].join("\n");
}

import type { PrintTable } from "@/study/report/print-table";
import { plain, runsOf, type Words } from "@/study/report/words";

/** A table as an HTML page of its own, with three rules and no more. */
export function tableAsHtml(table: PrintTable): string {
  const cell = (tag: "td" | "th", text: Words, extra = "") => `<${tag}${extra}>${printed(text)}</${tag}>`;
  const head = table.head.map((text) => cell("th", text, ' scope="col"')).join("");
  const body = table.sections.map((section) => {
    const heading = `<tr class="step">${cell("th", section.heading, ` scope="rowgroup" colspan="${table.head.length}"`)}</tr>`;
    const rows = section.rows.map(
      (row) => `<tr>${row.map((text, i) => (i === 0 ? cell("th", text, ' scope="row"') : cell("td", text))).join("")}</tr>`,
    );
    return `<tbody>\n${[heading, ...rows].join("\n")}\n</tbody>`;
  });
  return `<!doctype html>
<html lang="en"><head><meta charset="utf-8"><title>${escape(plain(table.title))}</title><style>
body{font:15px/1.5 "Source Serif 4 Variable","Source Serif 4",Georgia,serif;color:#23211e;margin:2rem}
table{border-collapse:collapse;border-top:1.5px solid;border-bottom:1.5px solid}
caption{text-align:left;padding-bottom:.5rem}
th,td{padding:.2rem .8rem;text-align:right;font-weight:400}
thead th{border-bottom:1px solid}
th:first-child{text-align:left}
tr.step th{text-align:left;padding-top:.6rem}
</style></head><body>
<table>
<caption>${printed(table.title)}</caption>
<thead><tr>${head}</tr></thead>
${body.join("\n")}
</table>
<p><i>Note.</i> ${printed(table.note)}</p>
</body></html>
`;
}

function escape(text: string): string {
  return text.replaceAll("&", "&amp;").replaceAll("<", "&lt;").replaceAll(">", "&gt;").replaceAll('"', "&quot;");
}

/** Words with their runs as elements. */
function printed(words: Words): string {
  const tags = { italic: "i", superscript: "sup" };
  return runsOf(words)
    .map(({ text, as }) => (as === null ? escape(text) : `<${tags[as]}>${escape(text)}</${tags[as]}>`))
    .join("");
}

import type { PrintTable } from "@/study/report/print-table";
import { plain, runsOf, unbroken, type Words } from "@/study/report/words";

/** Three rules and no more. */
export const TABLE_STYLE = `table{border-collapse:collapse;border-top:1.5px solid;border-bottom:1.5px solid}
caption{text-align:left;padding-bottom:.5rem}
th,td{padding:.2rem .8rem;text-align:right;font-weight:400}
thead tr:last-child th,th.over{border-bottom:1px solid}
th.over{text-align:center}
tbody+tbody tr:first-child:not(.step)>*{padding-top:.6rem}
th:first-child{text-align:left}
tr.step th{text-align:left;padding-top:.6rem}`;
export const SERIF = '"Source Serif 4 Variable","Source Serif 4",Georgia,serif';

/** A table as it lies in the clipboard: a word processor takes it as a table. */
export function tableToPaste(table: PrintTable, number: number): string {
  return `<meta charset="utf-8"><style>${TABLE_STYLE}</style>${tableElements(table, number)}`;
}

/** A table as an HTML page of its own. */
export function tableAsHtml(table: PrintTable): string {
  return `<!doctype html>
<html lang="en"><head><meta charset="utf-8"><title>${escaped(plain(table.title))}</title><style>
body{font:15px/1.5 ${SERIF};color:#23211e;margin:2rem}
${TABLE_STYLE}
</style></head><body>
${tableElements(table)}
</body></html>
`;
}

/** A table and its note as elements. @param number of a table in a manuscript: above its title */
export function tableElements(table: PrintTable, number: number | null = null): string {
  const cell = (tag: "td" | "th", text: Words, extra = "") => `<${tag}${extra}>${wordsAsHtml(text)}</${tag}>`;
  const over = (table.over ?? []).map(({ words, columns }) => cell("th", words, ` scope="colgroup" colspan="${columns}"${words === "" ? "" : ' class="over"'}`)).join(""); // prettier-ignore
  const head = table.head.map((text) => cell("th", text, ' scope="col"')).join("");
  const body = table.sections.map((section) => {
    const heading = `<tr class="step">${cell("th", section.heading, ` scope="rowgroup" colspan="${table.head.length}"`)}</tr>`;
    const rows = section.rows.map(
      (row) => `<tr>${row.map((text, i) => (i === 0 ? cell("th", text, ' scope="row"') : cell("td", text))).join("")}</tr>`,
    );
    return `<tbody>\n${[...(section.heading === "" && number !== null ? [] : [heading]), ...rows].join("\n")}\n</tbody>`;
  });
  const title = wordsAsHtml(table.title);
  return `<table>
<caption>${number === null ? title : `<b>Table ${number}</b><br><i>${title}</i>`}</caption>
<thead>${over === "" ? "" : `<tr>${over}</tr>`}<tr>${head}</tr></thead>
${body.join("\n")}
</table>
<p><i>Note.</i> ${wordsAsHtml(table.note)}</p>`;
}

/** Text as it stands between tags and in attributes. */
export function escaped(text: string): string {
  return text.replaceAll("&", "&amp;").replaceAll("<", "&lt;").replaceAll(">", "&gt;").replaceAll('"', "&quot;");
}

/** Words with their runs as elements. */
export function wordsAsHtml(words: Words): string {
  const tags = { italic: "i", superscript: "sup" };
  return runsOf(words)
    .map((run) => {
      if (run.as === null) return escaped(unbroken(run.text));
      if (run.as === "reference") return `<a href="#${escaped(run.to)}">${escaped(run.text)}</a>`;
      return `<${tags[run.as]}>${escaped(run.text)}</${tags[run.as]}>`;
    })
    .join("");
}

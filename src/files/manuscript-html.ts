import type { Block, Manuscript } from "@/study/report/document/manuscript";
import { escaped, SERIF, TABLE_STYLE, tableElements, wordsAsHtml } from "./table-html";

/** A manuscript as one HTML page: nothing of it lies elsewhere, and printed, a table is not torn where it fits a page. */
export function manuscriptHtml({ title, blocks }: Manuscript): string {
  return `<!doctype html>
<html lang="en"><head><meta charset="utf-8"><title>${escaped(title)}</title><style>
body{font:15px/1.55 ${SERIF};color:#23211e;max-width:46rem;margin:2rem auto;padding:0 1rem}
h1{font-size:1.6em}
h2{font-size:1.25em;text-align:center;margin-top:2.2rem}
h3{font-size:1.05em;margin-top:1.6rem}
table{margin-top:1.4rem}
${TABLE_STYLE}
@media print{body{max-width:none;margin:0;font-size:11pt}thead{display:table-header-group}tr{break-inside:avoid}h2,h3,caption{break-after:avoid}}
</style></head><body>
<h1>${escaped(title)}</h1>
${blocks.map(blockElements).join("\n")}
</body></html>
`;
}

function blockElements(block: Block): string {
  switch (block.kind) {
    case "heading":
      return `<h${block.level}>${escaped(block.text)}</h${block.level}>`;
    case "paragraph":
      return `<p>${block.sentences.map(wordsAsHtml).join(" ")}</p>`;
    case "table":
      return tableElements(block.table, block.number);
  }
}

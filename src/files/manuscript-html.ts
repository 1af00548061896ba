import type { Manuscript, PrintedBlock } from "@/study/report/document/manuscript";
import { plain } from "@/study/report/words";
import { escaped, SERIF, TABLE_STYLE, tableElements, wordsAsHtml } from "./table-html";

/** SVG text of the figures of a manuscript, by the keys of their blocks. */
export type DrawnFigures = ReadonlyMap<string, { readonly svg: string; readonly width: number; readonly height: number }>;

/** A manuscript as one HTML page: nothing of it lies elsewhere, and printed, a table is not torn where it fits a page. */
export function manuscriptHtml({ title, blocks }: Manuscript, figures: DrawnFigures = new Map(), language = "en"): string {
  return `<!doctype html>
<html lang="${escaped(language)}"><head><meta charset="utf-8"><title>${escaped(title)}</title><style>
body{font:15px/1.55 ${SERIF};color:#23211e;max-width:46rem;margin:2rem auto;padding:0 1rem}
h1{font-size:1.6em}
h2{font-size:1.25em;text-align:center;margin-top:2.2rem}
h3{font-size:1.05em;margin-top:1.6rem}
table{margin-top:1.4rem}
a{color:inherit;text-decoration:none}
.hanging{padding-left:2em;text-indent:-2em}
figure{margin:1.6rem 0}
figure svg{max-width:100%;height:auto}
${TABLE_STYLE}
@media print{body{max-width:none;margin:0;font-size:11pt}thead{display:table-header-group}tr,figure{break-inside:avoid}h2,h3,caption{break-after:avoid}}
</style></head><body>
<h1>${escaped(title)}</h1>
${blocks.map((block) => blockElements(block, figures)).join("\n")}
</body></html>
`;
}

function blockElements(block: PrintedBlock, figures: DrawnFigures): string {
  switch (block.kind) {
    case "heading":
      return `<h${block.level}>${escaped(block.text)}</h${block.level}>`;
    case "paragraph":
      return `<p${block.hanging ? ' class="hanging"' : ""}>${block.sentences.map(wordsAsHtml).join(" ")}</p>`;
    case "table":
      return `<div id="${escaped(block.key)}">${tableElements(block.table, block.number)}</div>`;
    case "figure": {
      const drawn = figures.get(block.key);
      const picture = drawn ? drawn.svg.replace(/^<svg/, `<svg role="img" aria-label="${escaped(block.alt)}"`).replace(/ aria-label="[^"]*"(?=[^>]* aria-label=)/, "") : `<p>${escaped(block.alt)}</p>`; // prettier-ignore
      return `<figure id="${escaped(block.key)}"><figcaption><b>Figure ${block.number}</b><br><i>${wordsAsHtml(block.title)}</i></figcaption>
${picture}
<p><i>Note.</i> ${wordsAsHtml(block.note)}</p></figure>`;
    }
  }
}

/** What a figure is, for one who cannot see it. */
export const alternativeText = (block: Extract<PrintedBlock, { kind: "figure" }>): string => `${plain(block.title)}. ${block.alt}`;

import { parse } from "csv-parse/sync";

/** How a delimited file is written, as found from its first lines. */
export interface DelimitedFormat {
  delimiter: "," | ";" | "\t";
  decimal: "." | ",";
}

const DELIMITERS = [",", ";", "\t"] as const;

/**
 * Finds the delimiter (the one that cuts the first lines into the most columns, equally many in each) and the decimal
 * mark (a comma only where the delimiter is another one and more cells read `3,5` than `3.5`).
 * @param head the first lines of the file; a last line cut short is ignored when there are others
 */
export function findFormat(head: string): DelimitedFormat {
  const end = Math.max(head.lastIndexOf("\n"), head.lastIndexOf("\r"));
  const sample = end > 0 ? head.slice(0, end + 1) : head;
  let best = { delimiter: DELIMITERS[0] as DelimitedFormat["delimiter"], width: 1, equal: 0, rows: [] as string[][] };
  for (const delimiter of DELIMITERS) {
    const rows = sampleRows(sample, delimiter);
    const width = rows[0]?.length ?? 1;
    if (width < 2) continue;
    const equal = rows.filter((row) => row.length === width).length / rows.length;
    if (equal > best.equal + 1e-9 || (equal > best.equal - 1e-9 && width > best.width)) best = { delimiter, width, equal, rows };
  }
  let [commas, points] = [0, 0];
  for (const cell of best.rows.flat()) {
    if (/^\s*[-+]?\d+,\d+\s*$/.test(cell)) commas++;
    if (/^\s*[-+]?\d+\.\d+\s*$/.test(cell)) points++;
  }
  return { delimiter: best.delimiter, decimal: best.delimiter !== "," && commas > points ? "," : "." };
}

function sampleRows(sample: string, delimiter: string): string[][] {
  try {
    return parse(sample, { delimiter, relax_column_count: true, relax_quotes: true, skip_empty_lines: true, to: 300 });
  } catch {
    return sample
      .split(/\r\n|\n|\r/)
      .filter((l) => l !== "")
      .slice(0, 300)
      .map((l) => l.split(delimiter)); // a quote runs past the sample
  }
}

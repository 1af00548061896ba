import { greatest, rollup } from "d3-array";
import Papa from "papaparse";
import type { Delimiter } from "./table-options";

/** How a delimited file is written, as found from its first lines, and how that is known. */
export interface DelimitedFormat {
  delimiter: Delimiter;
  decimal: "." | ",";
  why: { delimiter: string; decimal: string };
}

const DELIMITERS: readonly Delimiter[] = [",", ";", "\t", "|"];
const NUMBER = /^\s*[-+]?\d+([.,]\d+)?\s*$/;
export const DELIMITER_WORDS: Record<Delimiter, string> = { ",": "comma", ";": "semicolon", "\t": "tab", "|": "upright bar" };

/**
 * Finds the delimiter (the one that cuts the first lines into the most columns, equally many in each) and the decimal
 * mark (a comma only where the delimiter is another one and more cells read `3,5` than `3.5`).
 * @param head the first lines of the file; a last line cut short is ignored when there are others
 */
export function findFormat(head: string): DelimitedFormat {
  const end = Math.max(head.lastIndexOf("\n"), head.lastIndexOf("\r"));
  const sample = end > 0 ? head.slice(0, end + 1) : head;
  let best = { delimiter: DELIMITERS[0]!, width: 1, equal: 0, odd: 0, rows: [] as string[][] };
  for (const delimiter of DELIMITERS) {
    const rows = Papa.parse<string[]>(sample, { delimiter, skipEmptyLines: true, preview: 300 }).data;
    const width = usualWidth(rows);
    if (width < 2) continue;
    const equal = rows.filter((row) => row.length === width).length / rows.length;
    // of two that cut equally well, the one that leaves fewer cells with another delimiter inside: 1,5;2 is two numbers
    const odd = rows.flat().filter((cell) => !NUMBER.test(cell) && DELIMITERS.some((d) => cell.includes(d))).length;
    const better =
      equal > best.equal + 1e-9 || (equal > best.equal - 1e-9 && (width > best.width || (width === best.width && odd < best.odd)));
    if (better) best = { delimiter, width, equal, odd, rows };
  }
  let [commas, points] = [0, 0];
  for (const cell of best.rows.flat()) {
    if (/^\s*[-+]?\d+,\d+\s*$/.test(cell)) commas++;
    if (/^\s*[-+]?\d+\.\d+\s*$/.test(cell)) points++;
  }
  const decimal = best.delimiter !== "," && commas > points ? "," : ".";
  const why = {
    delimiter:
      best.width < 2
        ? "no sign cuts the first lines into columns: there is one column"
        : best.equal === 1
          ? `a ${DELIMITER_WORDS[best.delimiter]} cuts each of the first ${best.rows.length} rows into ${best.width} cells`
          : `a ${DELIMITER_WORDS[best.delimiter]} cuts ${Math.round(best.equal * 100)} % of the first rows into ${best.width} cells`,
    decimal:
      commas + points === 0
        ? "no number with decimals stands in the first rows"
        : `${decimal === "," ? commas : points} of ${commas + points} numbers with decimals are written so in the first rows`,
  };
  return { delimiter: best.delimiter, decimal, why };
}

/** The number of cells most rows have: a title above a table has fewer. */
function usualWidth(rows: readonly string[][]): number {
  const counts = rollup(rows, (same) => same.length, (row) => row.length); // prettier-ignore
  return greatest(counts, (a, b) => a[1] - b[1] || a[0] - b[0])?.[0] ?? 1;
}

import Papa from "papaparse";
import type { ExploratoryMark } from "@/study/model/exploratory";
import { csvOf } from "./csv-cells";
import { unguarded } from "./spreadsheet-guard";

/** A CSV from numbers that a search has led to says so in a column of its own, so that no row goes without. */
export function markedCsv(csv: string, mark: ExploratoryMark): string {
  const rows = Papa.parse<string[]>(csv.replace(/^\uFEFF/, ""), { skipEmptyLines: true }).data.map((row) => row.map(unguarded));
  const said = mark.kind === "exploratory" ? mark.said : `on other respondents: ${mark.said}`;
  return csvOf(rows.map((row, k) => [...row, k === 0 ? "exploratory" : said])); // prettier-ignore
}

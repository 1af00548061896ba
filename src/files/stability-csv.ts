import Papa from "papaparse";
import type { SearchStability } from "@/study/analyse/joined-stability";
import { guarded } from "./spreadsheet-guard";

/** In how many of the samples each candidate was chosen, a row a candidate. */
export function stabilityCsv({ terms, chosen, drawn }: SearchStability): string {
  const fields = ["candidate", "samples", "of", "chosen_here"];
  const data = terms.map((term, k) => [guarded(term), drawn.times[k]!, drawn.resamples - drawn.failed, chosen.includes(term) ? 1 : 0]);
  return `\uFEFF${Papa.unparse({ fields, data }, { newline: "\r\n" })}\r\n`;
}

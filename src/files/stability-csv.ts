import type { SearchStability } from "@/study/analyse/joined-stability";
import { csvOf } from "./csv-cells";

/** In how many of the samples each candidate was chosen, a row a candidate. */
export function stabilityCsv({ terms, chosen, drawn }: SearchStability): string {
  const drew = drawn.resamples - drawn.failed;
  const rows = terms.map((term, k) => [term, drawn.times[k]!, drew, chosen.includes(term) ? 1 : 0]);
  return csvOf([["candidate", "samples", "of", "chosen_here"], ...rows]);
}

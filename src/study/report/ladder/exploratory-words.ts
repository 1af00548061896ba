import type { ExploratoryMark } from "../../model/exploratory";
import { formatCount } from "../format-number";
import type { PrintTable } from "../print-table";
import { joined, type Words } from "../words";

/** What a mark says wherever numbers of the ladder stand. */
export function exploratoryWords(mark: ExploratoryMark): { head: string; says: string } {
  if (mark.kind === "on-others")
    return {
      head: "Chosen on other respondents",
      says: `${mark.said}; none of the ${formatCount(mark.used)} respondents here had a part in that.`,
    };
  if (mark.used === 0)
    return { head: "Exploratory", says: `${mark.said}. p and intervals ignore the search; only other respondents can confirm it.` };
  const who = mark.shared === mark.used ? "the same respondents chose it" : `${formatCount(mark.shared)} of the ${formatCount(mark.used)} respondents chose it`; // prettier-ignore
  return { head: "Exploratory", says: `${mark.said}. p and intervals ignore the search (${who}); only other respondents can confirm it.` };
}

/** A table with the mark in its title and note. */
export function markedTable(table: PrintTable, mark: ExploratoryMark | null): PrintTable {
  if (mark === null) return table;
  const { head, says } = exploratoryWords(mark);
  const title: Words = mark.kind === "exploratory" ? joined([table.title, ", exploratory"]) : table.title;
  return { ...table, title, note: joined([table.note, ` ${head}: ${says}`]) };
}

"use client";

import { createContext, useContext, useEffect } from "react";
import { tableAsHtml } from "@/files/table-html";
import type { ExploratoryMark } from "@/study/model/exploratory";
import { exploratoryWords, markedTable } from "@/study/report/ladder/exploratory-words";
import type { PrintTable } from "@/study/report/print-table";
import { fileName, saveFile } from "@/ui/parts/save-file";
import css from "./ladders.module.css";

/** Whether the numbers below come from a search: every table that is saved then says so. */
export const MarkContext = createContext<ExploratoryMark | null>(null);

/** What writes the mark into a file: fetched where a mark stands, so that it is there when a table is saved. */
const fetchMarking = () => import("@/files/marked-csv");

/** The mark in words, above numbers. */
export function ExploratoryNote({ mark }: { mark: ExploratoryMark }) {
  useEffect(() => void fetchMarking().catch(() => undefined), []); // asked for again when a table is saved
  const { head, says } = exploratoryWords(mark);
  return (
    <p className={css.exploratory} data-testid="exploratory">
      <b>{head}</b>: {says}
    </p>
  );
}

/** Saves a table under a name, with the mark of what is around it. */
export const useSaveTable = () => tableSaver(useContext(MarkContext));

/** The same where the mark is at hand. */
export function tableSaver(mark: ExploratoryMark | null) {
  return (name: string, kind: "csv" | "html", of: { csv: () => string; table: () => PrintTable }): void => {
    const text = (csv: string) => saveFile(fileName(name, "csv"), "text/csv", csv);
    if (kind === "html") saveFile(fileName(name, "html"), "text/html", tableAsHtml(markedTable(of.table(), mark)));
    else if (mark === null) text(of.csv());
    else void fetchMarking().then(({ markedCsv }) => text(markedCsv(of.csv(), mark)));
  };
}

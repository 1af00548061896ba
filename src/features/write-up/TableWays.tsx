"use client";

import { useState } from "react";
import { useStudy } from "@/features/study/study-context";
import type { BlockOf } from "@/study/model/block";
import type { PrintTable } from "@/study/report/print-table";
import { joined, type Words } from "@/study/report/words";
import { Note } from "@/ui/parts/Margin";
import { fileName, saveBlob, saveFile } from "@/ui/parts/save-file";
import css from "./write-up.module.css";

/** A table on its way into a text of one's own: pasted as a table, or as a file. */
export function TableWays({ what, name }: { what: BlockOf<"table">; name: string }) {
  const { study } = useStudy();
  const [said, setSaid] = useState("");
  const number = Number(name.split(" ")[1]);
  const note = what.note === "" ? what.shown!.note : joined([what.shown!.note as Words, ` ${what.note}`]);
  const table = { ...what.shown!, note } as PrintTable;
  const copy = async () => {
    const [{ tableToPaste }, { printedRows }] = await Promise.all([import("@/files/table-html"), import("@/files/print-table-csv")]);
    const blob = (type: string, text: string) => new Blob([text], { type });
    const cells = printedRows(table).map((row) => row.join("\t")).join("\n"); // prettier-ignore
    try {
      await navigator.clipboard.write([new ClipboardItem({ "text/html": blob("text/html", tableToPaste(table, number)), "text/plain": blob("text/plain", cells) })]); // prettier-ignore
      setSaid(`${name} is in the clipboard.`);
    } catch {
      setSaid("The browser does not give the clipboard. Save it as CSV, or the whole as HTML.");
    }
  };
  const csv = async () => {
    const { printTableCsv } = await import("@/files/print-table-csv");
    saveFile(fileName(`${study.name} ${name}`, "csv"), "text/csv", printTableCsv(table));
  };
  const xlsx = async () => {
    const { printTableXlsx } = await import("@/files/print-table-xlsx");
    saveBlob(fileName(`${study.name} ${name}`, "xlsx"), await printTableXlsx(table, name));
  };
  return (
    <Note heading="Take it along">
      <p className={css.acts}>
        <button type="button" className="link" onClick={() => void copy()}>
          Copy {name}
        </button>
        <button type="button" className="link" onClick={() => void csv()}>
          Save as CSV
        </button>
        <button type="button" className="link" onClick={() => void xlsx()}>
          Save as XLSX
        </button>
      </p>
      <p role="status" className="quiet">
        {said}
      </p>
    </Note>
  );
}

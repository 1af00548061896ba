import writeXlsxFile, { type SheetData } from "write-excel-file/universal";
import type { PrintTable } from "@/study/report/print-table";
import { plain, type Words } from "@/study/report/words";
import { overOf } from "./print-table-csv";
import { guarded } from "./spreadsheet-guard";

/** A printed number as a number, so that a spreadsheet counts with it; null where a cell is more than one. */
export function numberIn(text: string): { value: number; decimals: number } | null {
  if (!/^−?(\d{1,3}(\u202f\d{3})+|\d*)(\.\d+)?$/u.test(text) || !/\d/.test(text)) return null;
  const plainly = text.replace("−", "-").replaceAll("\u202f", "");
  return { value: Number(plainly), decimals: plainly.split(".")[1]?.length ?? 0 };
}

/** A printed table as the bytes of an XLSX file: title, heads, cells, note; what is a number is one, shown with the decimals it is printed with. */
export async function printTableXlsx(table: PrintTable, name: string): Promise<Blob> {
  const text = (words: Words, more: object = {}) => ({ value: guarded(plain(words)), type: String, ...more });
  const cell = (words: Words, i: number) => {
    const found = i === 0 ? null : numberIn(plain(words));
    if (!found) return plain(words) === "" ? null : text(words, i === 0 ? {} : { align: "right" as const });
    return { value: found.value, type: Number, format: found.decimals === 0 ? "0" : `0.${"0".repeat(found.decimals)}` };
  };
  const bold = { fontWeight: "bold" as const };
  const rule = { bottomBorderStyle: "thin" as const };
  const data = [
    [text(`${name}. ${plain(table.title)}`, bold)],
    ...(table.over ? [overOf(table).map((words, i, all) => (plain(words) === "" || words === all[i - 1] ? null : text(words, bold)))] : []),
    table.head.map((words, i) => text(words, { ...bold, ...rule, ...(i === 0 ? {} : { align: "right" as const }) })),
    ...table.sections.flatMap(({ heading, rows }) => [...(plain(heading) === "" ? [] : [[text(heading, { fontStyle: "italic" as const })]]), ...rows.map((row) => row.map(cell))]), // prettier-ignore
    [text(`Note. ${plain(table.note)}`)],
  ] as unknown as SheetData;
  const columns = table.head.map((_, i) => ({ width: i === 0 ? 34 : 14 }));
  return writeXlsxFile(data, { sheet: name, columns }).toBlob();
}

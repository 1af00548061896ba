import { strToU8, zipSync } from "fflate";
import Papa from "papaparse";
import { cellText, type ResponseColumn } from "@/study/model/response-column";
import type { Variable } from "@/study/model/variable";
import { GUARD, guarded } from "../spreadsheet-guard";
import { toTableSchema } from "./table-schema";

/** The description of a data package with one table. */
export function packageDescriptor(title: string, codebook: readonly Variable[]) {
  return {
    name:
      title
        .toLowerCase()
        .replace(/[^a-z0-9]+/g, "-")
        .replace(/^-+|-+$/g, "") || "study",
    title,
    resources: [
      { name: "responses", path: "responses.csv", format: "csv", encoding: "utf-8", [GUARD]: true, schema: toTableSchema(codebook) },
    ],
  };
}

/** Codebook and columns, in its order, as one ZIP file: datapackage.json and responses.csv. */
export function writePackage(title: string, codebook: readonly Variable[], columns: readonly ResponseColumn[]): Uint8Array<ArrayBuffer> {
  const rows = columns[0]?.values.length ?? 0;
  const pieces = [Papa.unparse([codebook.map((v) => guarded(v.name))], { newline: "\n" })];
  for (let row = 0; row < rows; row++) pieces.push(Papa.unparse([columns.map((c) => guarded(cellText(c, row) ?? ""))], { newline: "\n" }));
  return zipSync({
    "datapackage.json": strToU8(JSON.stringify(packageDescriptor(title, codebook), null, 1)),
    "responses.csv": strToU8(`${pieces.join("\n")}\n`),
  });
}

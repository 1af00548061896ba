import { guarded } from "./spreadsheet-guard";

/**
 * Rows as CSV for further work: numbers at full precision with a decimal point, empty where a value is not available. UTF-8 with a byte order mark so
 * that spreadsheets read names right.
 */
export function csvOf(rows: readonly (readonly (string | number | null)[])[]): string {
  return `\uFEFF${rows.map((row) => row.map(cell).join(",")).join("\r\n")}\r\n`;
}

function cell(value: string | number | null): string {
  if (value === null) return "";
  if (typeof value === "number") return String(value);
  const safe = guarded(value);
  return /[",\r\n]/.test(safe) ? `"${safe.replaceAll('"', '""')}"` : safe;
}

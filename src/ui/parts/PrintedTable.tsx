import type { PrintTable } from "@/study/report/print-table";
import type { Words } from "@/study/report/words";
import { Said } from "./Said";

/** A cell of no more letters stays on one line: an estimate with its interval. */
const UNBROKEN = 26;

const lettersIn = (cell: Words): number =>
  typeof cell === "string"
    ? cell.length
    : cell.reduce((sum, piece) => sum + (typeof piece === "string" ? piece.length : piece.text.length), 0);

/** A table as it is saved, on the page: the same cells, its title for those who hear it. */
export function PrintedTable({ table, className, testId }: { table: PrintTable; className: string | undefined; testId: string }) {
  return (
    <table className={className} data-testid={testId}>
      <caption className="visually-hidden">
        <Said>{table.title}</Said>
      </caption>
      <thead>
        {table.over && (
          <tr>
            {table.over.map(({ words, columns }, i) =>
              words === "" ? (
                <td key={i} colSpan={columns} />
              ) : (
                <th key={i} scope="colgroup" colSpan={columns} style={{ textAlign: "center" }}>
                  <Said>{words}</Said>
                </th>
              ),
            )}
          </tr>
        )}
        <tr>
          {table.head.map((head, i) => (
            <th key={i} scope="col" style={i === 0 ? { textAlign: "left" } : undefined}>
              <Said>{head}</Said>
            </th>
          ))}
        </tr>
      </thead>
      {table.sections.map((section, k) => (
        <tbody key={k}>
          {section.heading !== "" && (
            <tr>
              <th colSpan={table.head.length} scope="rowgroup" style={{ textAlign: "left" }}>
                <Said>{section.heading}</Said>
              </th>
            </tr>
          )}
          {section.rows.map((cells, r) => (
            <tr key={r}>
              {cells.map((cell, i) =>
                i === 0 ? (
                  <th key={i} scope="row">
                    <Said>{cell}</Said>
                  </th>
                ) : (
                  <td key={i} style={lettersIn(cell) <= UNBROKEN ? { whiteSpace: "nowrap" } : undefined}>
                    <Said>{cell}</Said>
                  </td>
                ),
              )}
            </tr>
          ))}
        </tbody>
      ))}
    </table>
  );
}

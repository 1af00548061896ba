"use client";

import Link from "next/link";
import { filterWithout } from "@/features/study/filter-without";
import { LeaveOut } from "@/features/study/LeaveOut";
import { MOST_ROWS, rowsAddress } from "@/features/study/rows-address";
import { useStudy } from "@/features/study/study-context";
import type { WithoutPullers } from "@/study/analyse/without-pullers";
import type { Refusal } from "@/study/analyse/refusal";
import type { Ladder } from "@/study/model/ladder";
import { counted } from "@/study/report/format-number";
import { refusalWords } from "@/study/report/refusals";
import { whatWithoutSays, withoutTable } from "@/study/report/ladder/without-words";
import { tableAsHtml } from "@/files/table-html";
import { withoutCsv } from "@/files/without-csv";
import { PrintedTable } from "@/ui/parts/PrintedTable";
import { SaveAs } from "@/ui/parts/SaveAs";
import { fileName, saveFile } from "@/ui/parts/save-file";
import { Said } from "@/ui/parts/Said";
import ladders from "../ladders.module.css";
import css from "./probes.module.css";

/** What if those who pull most were not in: side by side, and left out only with a reason. */
export function WithoutThem({ without, ladder }: { without: WithoutPullers | { refusal: Refusal } | null; ladder: Ladder }) {
  const { study, store, title } = useStudy();
  if (!without) return null;
  if ("refusal" in without) return <p>Without the respondents above the mark: {refusalWords(without.refusal, title).what}</p>;
  const { rows } = without;
  const name = `${ladder.name} with and without`;
  const table = withoutTable(without, ladder, title);
  const leaveOut = (reason: string) => {
    const named = `Without ${counted(rows.length, "respondent")} above 4/n`;
    const filter = filterWithout(study, ladder.respondents, { rows: [...rows].sort((a, b) => a - b), name: named, reason });
    // one change, taken back as one
    return store.edit(
      { subject: "filter", id: filter.id, to: filter },
      { subject: "ladder", id: ladder.id, to: { ...ladder, respondents: filter.id } },
    );
  };
  return (
    <section className={css.part} aria-label="What if they were not in">
      <h4>What if they were not in?</h4>
      <p>
        <Said>{whatWithoutSays(without, ladder, title)}</Said>
      </p>
      <PrintedTable table={table} className={ladders.table} testId="without" />
      <div className={css.remedies}>
        {rows.length <= MOST_ROWS && (
          <Link className="link" href={rowsAddress(store.id, rows)}>
            See their rows
          </Link>
        )}
        <span>
          <SaveAs
            onSave={(kind) =>
              kind === "csv"
                ? saveFile(fileName(name, "csv"), "text/csv", withoutCsv(without))
                : saveFile(fileName(name, "html"), "text/html", tableAsHtml(table))
            }
          />
        </span>
        <LeaveOut offer="Leave them out, with a reason" label="Leave them out of this ladder" onLeaveOut={leaveOut} />
      </div>
    </section>
  );
}

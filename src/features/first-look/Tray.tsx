"use client";

import { useRouter } from "next/navigation";
import { filterWithout } from "@/features/study/filter-without";
import { LeaveOut } from "@/features/study/LeaveOut";
import { MOST_ROWS, rowsAddress } from "@/features/study/rows-address";
import { useStudy } from "@/features/study/study-context";
import type { RespondentFilter } from "@/study/model/respondent-filter";
import { counted } from "@/study/report/format-number";
import css from "./first-look.module.css";
import { useMarked } from "./marked";

/** So many rows are named; more are counted. */
const NAMED = 12;

/** Who is marked, and what can be done about them: see their rows, leave them out with a reason, forget them. Nothing is left out silently. */
export function Tray({ respondents, onLeaveOut }: { respondents: string | null; onLeaveOut: (filter: RespondentFilter) => boolean }) {
  const { study, store } = useStudy();
  const router = useRouter();
  const marked = useMarked();
  const rows = [...marked.rows].sort((a, b) => a - b);
  if (rows.length === 0) return null;
  const leaveOut = (reason: string) => {
    const name = rows.length === 1 ? `Without row ${rows[0]!}` : `Without ${rows.length} marked`;
    const done = onLeaveOut(filterWithout(study, respondents, { rows, name, reason }));
    if (done) marked.forget();
    return done;
  };
  return (
    <aside className={css.tray} aria-label="Marked respondents">
      <b>{counted(rows.length, "respondent")} marked</b>
      <span>
        {rows.length <= NAMED ? `rows ${rows.join(", ")}` : `rows ${rows.slice(0, NAMED).join(", ")} and ${rows.length - NAMED} more`}
      </span>
      <button type="button" className="link" disabled={rows.length > MOST_ROWS} onClick={() => router.push(rowsAddress(store.id, rows))}>
        See their rows
      </button>
      {rows.length > MOST_ROWS && <span className="quiet">up to {MOST_ROWS} can be shown as rows</span>}
      <LeaveOut offer="Leave them out" label="Leave them out of this look" onLeaveOut={leaveOut} />
      <button type="button" className="link" onClick={marked.forget}>
        Forget them
      </button>
    </aside>
  );
}

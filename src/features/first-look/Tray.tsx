"use client";

import { useRouter } from "next/navigation";
import { useState } from "react";
import { newId } from "@/study/model/new-id";
import { useStudy } from "@/features/study/study-context";
import type { RespondentFilter } from "@/study/model/respondent-filter";
import { counted } from "@/study/report/format-number";
import css from "./first-look.module.css";
import { useMarked } from "./marked";

/** So many rows are named; more are counted. */
const NAMED = 12;
/** Rows that an address can hold. */
const MOST_ROWS = 400;

/** Who is marked, and what can be done about them: see their rows, leave them out with a reason, forget them. Nothing is left out silently. */
export function Tray({ respondents, onLeaveOut }: { respondents: string | null; onLeaveOut: (filter: RespondentFilter) => boolean }) {
  const { study, store } = useStudy();
  const router = useRouter();
  const marked = useMarked();
  const [reason, setReason] = useState<string | null>(null);
  const rows = [...marked.rows].sort((a, b) => a - b);
  if (rows.length === 0) return null;
  const leaveOut = () => {
    const name = rows.length === 1 ? `Without row ${rows[0]!}` : `Without ${rows.length} marked`;
    const id = newId(name, study.filters.map((f) => f.id)); // prettier-ignore
    const named = study.filters.find((f) => f.id === respondents && !f.everywhere);
    const why = [reason!.trim(), ...(named ? [`Besides whom “${named.name}” leaves out.`] : [])].join(" ");
    const to = {
      id,
      name,
      reason: why,
      everywhere: false,
      conditions: [...(named?.conditions ?? []), { kind: "not-rows" as const, rows }],
    };
    if (!onLeaveOut(to)) return;
    marked.forget();
    setReason(null);
  };
  return (
    <aside className={css.tray} aria-label="Marked respondents">
      <b>{counted(rows.length, "respondent")} marked</b>
      <span>
        {rows.length <= NAMED ? `rows ${rows.join(", ")}` : `rows ${rows.slice(0, NAMED).join(", ")} and ${rows.length - NAMED} more`}
      </span>
      <button
        type="button"
        className="link"
        disabled={rows.length > MOST_ROWS}
        onClick={() => router.push(`/studies/${store.id}/responses?rows=${rows.join(",")}`)}
      >
        See their rows
      </button>
      {rows.length > MOST_ROWS && <span className="quiet">up to {MOST_ROWS} can be shown as rows</span>}
      {reason === null ? (
        <button type="button" className="link" onClick={() => setReason("")}>
          Leave them out
        </button>
      ) : (
        <form
          onSubmit={(event) => {
            event.preventDefault();
            if (reason.trim() !== "") leaveOut();
          }}
        >
          <label>
            Why? <input autoFocus value={reason} maxLength={400} onChange={(event) => setReason(event.target.value)} />
          </label>{" "}
          <button type="submit" className="link" disabled={reason.trim() === ""}>
            Leave them out of this look
          </button>
        </form>
      )}
      <button type="button" className="link" onClick={marked.forget}>
        Forget them
      </button>
    </aside>
  );
}

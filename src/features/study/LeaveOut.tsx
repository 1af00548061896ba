"use client";

import { useState } from "react";

/** Leaving respondents out is asked for its reason, which the report's flow of respondents tells. `onLeaveOut` says whether it was done. */
export function LeaveOut({ offer, label, onLeaveOut }: { offer: string; label: string; onLeaveOut: (reason: string) => boolean }) {
  const [reason, setReason] = useState<string | null>(null);
  if (reason === null)
    return (
      <button type="button" className="link" onClick={() => setReason("")}>
        {offer}
      </button>
    );
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault();
        if (reason.trim() !== "" && onLeaveOut(reason.trim())) setReason(null);
      }}
    >
      <label>
        Why? <input autoFocus value={reason} maxLength={400} onChange={(event) => setReason(event.target.value)} />
      </label>{" "}
      <button type="submit" className="link" disabled={reason.trim() === ""}>
        {label}
      </button>
    </form>
  );
}

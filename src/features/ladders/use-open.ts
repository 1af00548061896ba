"use client";

import { useSearchParams } from "next/navigation";

/** What is open on this page, as the address has it, so that it can be linked, reloaded and gone back to. */
export interface Open {
  ladder: string | null;
  comparison: string | null;
  /** Id of the step that is selected. */
  step: string | null;
  /** A probe of the ladder that is to be seen. */
  probe: string | null;
}

/** What the address says is open, and a way to open something else. Opening leaves a trace for the way back; selecting a step does not. */
export function useOpen(): Open & { open: (what: Partial<Open>) => void; select: (step: string) => void } {
  const params = useSearchParams();
  const now: Open = {
    ladder: params.get("ladder"),
    comparison: params.get("beside"),
    step: params.get("step"),
    probe: params.get("probe"),
  };
  const addressOf = ({ ladder, comparison, step, probe }: Open) => {
    const next = new URLSearchParams();
    if (ladder !== null) next.set("ladder", ladder);
    if (comparison !== null) next.set("beside", comparison);
    if (step !== null) next.set("step", step);
    if (probe !== null) next.set("probe", probe);
    return `?${next}`;
  };
  return {
    ...now,
    open: (what) => window.history.pushState(null, "", addressOf({ ladder: null, comparison: null, step: null, probe: null, ...what })),
    select: (step) => window.history.replaceState(null, "", addressOf({ ...now, step })),
  };
}

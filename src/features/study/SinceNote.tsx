"use client";

import type { SeenResult } from "@/study/model/seen-result";
import { changedSince } from "@/study/report/seen-words";
import { Note } from "@/ui/parts/Margin";
import { useSeenStore } from "./study-context";

/** What has changed in a result since it was last looked at, because of a change somewhere else. */
export function SinceNote({ before }: { before: SeenResult | null }) {
  const now = useSeenStore()
    .snapshot()
    .get(before ? `${before.kind} ${before.id}` : "");
  if (!before || !now) return null;
  const when = new Date(before.at).toLocaleString("en-GB", { dateStyle: "medium", timeStyle: "short" });
  return (
    <Note heading="Since you last looked">
      <p>
        {changedSince(before, now.numbers) ?? "What it stands on has changed; its main numbers have not."}{" "}
        <span className="quiet">
          ({when}, change {before.revision})
        </span>
      </p>
    </Note>
  );
}

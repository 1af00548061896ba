"use client";

import { SinceNote } from "@/features/study/SinceNote";
import { useStudy } from "@/features/study/study-context";
import type { Look } from "@/study/model/look";
import type { SeenResult } from "@/study/model/seen-result";
import { formatCount } from "@/study/report/format-number";
import { type Looked, lookWatches, whatTheLookSays } from "@/study/report/look-words";
import { Margin, Note } from "@/ui/parts/Margin";
import { SentencesNote, WatchNote } from "@/ui/parts/notes";

/** What the table says, what the eye might miss, who is in, and how it is computed. */
export function LookMargin({ look, found, before }: { look: Look; found: Looked | null; before: SeenResult | null }) {
  const { study, title } = useStudy();
  const outcomes = new Set(study.ladders.flatMap((l) => (l.outcome === null ? [] : [l.outcome])));
  return (
    <Margin>
      <SinceNote before={before} />
      {found && <SentencesNote heading="What this says" sentences={whatTheLookSays(found, title)} />}
      <WatchNote watches={found ? lookWatches(found, outcomes, title) : []} />
      {found && (
        <Note heading="Who is in">
          <p>
            {formatCount(found.all)} rows in the data, {formatCount(found.kept)} kept by filters
            {look.cases === "complete" ? `, ${formatCount(found.rows)} with all variables` : "; each pair over those who have both"}.
          </p>
        </Note>
      )}
      <Note heading="How it is computed">
        <p>
          {look.correlation === "pearson"
            ? "Pearson's r with t on n − 2 degrees of freedom; intervals by Fisher's z."
            : "Spearman's ρ: r of ranks, equal values sharing theirs; p from t on n − 2 degrees of freedom, no interval."}{" "}
          Partial correlations are of what the controls leave. No p is adjusted for how many there are.
        </p>
      </Note>
    </Margin>
  );
}

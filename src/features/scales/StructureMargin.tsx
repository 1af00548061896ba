"use client";

import { SinceNote } from "@/features/study/SinceNote";
import { useStudy } from "@/features/study/study-context";
import type { StructureAnalysis } from "@/study/analyse/analyse-structure";
import type { SeenResult } from "@/study/model/seen-result";
import type { Structure } from "@/study/model/structure";
import { formatCount } from "@/study/report/format-number";
import { structureMethod, structureWatches, whatTheStructureSays } from "@/study/report/structure-words";
import { plain } from "@/study/report/words";
import { Margin, Note } from "@/ui/parts/Margin";
import { CopyNote, SentencesNote, WatchNote } from "@/ui/parts/notes";

/** What the structure's numbers say, what to look at, and words for a method section. */
export function StructureMargin(props: {
  structure: Structure;
  analysis: StructureAnalysis | null;
  before: SeenResult | null;
  onChange: (structure: Structure) => void;
}) {
  const { study, title } = useStudy();
  const { structure, analysis, onChange } = props;
  const watches = analysis
    ? structureWatches(structure, analysis, study, title).map(({ id, words, fixes = [] }) => ({
        id,
        words,
        fixes: fixes
          .filter(({ to }) => to.items === undefined || to.items.length >= 3)
          .map(({ label, to }) => ({ label, act: () => onChange({ ...structure, ...to }) })),
      }))
    : [];
  const method = analysis && structureMethod(structure, analysis);
  return (
    <Margin>
      <SinceNote before={props.before} />
      {analysis && <SentencesNote heading="What this says" sentences={whatTheStructureSays(analysis, title)} />}
      <WatchNote watches={watches} />
      {method && <CopyNote heading="For a method section" text={method} copied={plain(method)} />}
      <Note heading="How it is computed">
        <p>
          Correlations of respondents complete on all items{analysis ? ` (${formatCount(analysis.n)})` : ""}. Random data:{" "}
          {formatCount(structure.sets)} seeded sets of independent normal items (seed {structure.seed}). Turned with Kaiser&rsquo;s
          normalization, the best of several starts.
          {analysis?.solution &&
            structure.extraction !== "principal-components" &&
            ` The extraction took ${analysis.solution.rounds} rounds.`}
        </p>
      </Note>
    </Margin>
  );
}

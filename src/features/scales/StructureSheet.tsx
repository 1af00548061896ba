"use client";

import { useState } from "react";
import { ComputationState } from "@/features/study/ComputationState";
import { useStudy } from "@/features/study/study-context";
import { useAsked } from "@/features/study/use-computed";
import { useSeen } from "@/features/study/use-seen";
import type { StructureAnalysis } from "@/study/analyse/analyse-structure";
import type { Structure } from "@/study/model/structure";
import { formatCount, formatShare } from "@/study/report/format-number";
import { refusalWords } from "@/study/report/refusals";
import { CorrelationTable } from "@/ui/parts/CorrelationTable";
import page from "@/ui/parts/page.module.css";
import { AgainstScales } from "./AgainstScales";
import { Explained } from "./Explained";
import { HowMany } from "./HowMany";
import { LoadingsTable } from "./LoadingsTable";
import { StructureFit } from "./StructureFit";
import { StructureMargin } from "./StructureMargin";
import { StructureSentence } from "./StructureSentence";
import css from "./scales.module.css";

const PARTS = [
  ["fit", "Fit for factoring"],
  ["how-many", "How many"],
  ["loadings", "Loadings"],
  ["explained", "Explained"],
  ["scales", "Against the scales"],
  ["correlations", "Correlations"],
] as const;

/** What lies behind a set of items, from their correlations to scales made of the factors. */
export function StructureSheet({
  structure,
  titles,
  onOpenScale,
}: {
  structure: Structure;
  titles: React.ReactNode;
  onOpenScale: (id: string) => void;
}) {
  const { store, title } = useStudy();
  const computed = useAsked("structure", structure);
  const { result, outdated, fault } = computed;
  const before = useSeen("structure", structure, computed);
  const change = (to: Structure) => void store.edit({ subject: "structure", id: structure.id, to });
  const analysis = result?.status === "explored" ? result.analysis : null;
  const refused = analysis?.refusal ? refusalWords(analysis.refusal, title) : null;
  return (
    <>
      <main className={page.sheet} aria-busy={outdated || (!result && !fault)}>
        {titles}
        <StructureSentence structure={structure} analysis={analysis} onChange={change} />
        <ComputationState of={computed} refusal={result?.status === "refused" ? result.refusal : null} />
        {analysis && (
          <div className={outdated ? page.outdated : undefined} data-testid="structure-numbers" data-outdated={outdated}>
            <nav className={css.jumps} aria-label="Parts of this sheet">
              {PARTS.map(([id, name]) => (
                <a key={id} href={`#${id}`}>
                  {name}
                </a>
              ))}
            </nav>
            <StructureFit analysis={analysis} />
            <section id="how-many" className={css.part}>
              <HowMany structure={structure} analysis={analysis} onChange={change} />
            </section>
            <section id="loadings" className={css.part}>
              {refused && (
                <p className={page.refusal} role="status" data-testid="no-solution">
                  {refused.what} {refused.remedy}
                </p>
              )}
              {analysis.solution && (
                <LoadingsTable structure={structure} analysis={analysis} solution={analysis.solution} onChange={change} />
              )}
            </section>
            <section id="explained" className={css.part}>
              {analysis.solution && <Explained analysis={analysis} solution={analysis.solution} />}
            </section>
            <section id="scales" className={css.part}>
              {analysis.solution && (
                <AgainstScales structure={structure} analysis={analysis} solution={analysis.solution} onOpenScale={onOpenScale} />
              )}
            </section>
            <section id="correlations" className={css.part}>
              <Correlations structure={structure} analysis={analysis} />
            </section>
          </div>
        )}
        <p className={css.foot}>
          <button type="button" className="link" onClick={() => store.edit({ subject: "structure", id: structure.id, to: null })}>
            Take this structure away
          </button>
        </p>
      </main>
      <StructureMargin structure={structure} analysis={analysis} before={before} onChange={change} />
    </>
  );
}

function Correlations({ structure, analysis }: { structure: Structure; analysis: StructureAnalysis }) {
  const { study, title } = useStudy();
  const { items, correlations } = analysis;
  const k = items.length;
  const [open, setOpen] = useState(k <= 30);
  return (
    <details className={css.more} open={open} onToggle={(event) => setOpen(event.currentTarget.open)}>
      <summary>Correlations among the items</summary>
      {open && (
        <CorrelationTable
          caption={`Correlations among the items of ${structure.name}`}
          names={items.map((name) => title(name))}
          wording={(i) => study.codebook.find((v) => v.name === items[i])?.label ?? ""}
          r={(i, j) => correlations[i * k + j]!}
          format={formatShare}
        />
      )}
      <p className={css.tableNote}>
        <i>n</i> = {formatCount(analysis.n)} respondents complete on all items
        {structure.keying === "scales" &&
          analysis.reversed.length > 0 &&
          `; turned round: ${analysis.reversed.map((name) => title(name)).join(", ")}`}
        .
      </p>
    </details>
  );
}

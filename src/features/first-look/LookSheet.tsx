"use client";

import { useState } from "react";
import { ComputationState } from "@/features/study/ComputationState";
import { newId } from "@/study/model/new-id";
import { useStudy } from "@/features/study/study-context";
import { useAsked } from "@/features/study/use-computed";
import { useSeen } from "@/features/study/use-seen";
import { lookCsv } from "@/files/look-csv";
import { tableAsHtml } from "@/files/table-html";
import { Look, MOST_SCATTERS } from "@/study/model/look";
import { lookTable } from "@/study/report/look-table";
import { SaveAs } from "@/ui/parts/SaveAs";
import { fileName, saveFile } from "@/ui/parts/save-file";
import page from "@/ui/parts/page.module.css";
import { Descriptions } from "./Descriptions";
import css from "./first-look.module.css";
import { LookCorrelations } from "./LookCorrelations";
import { LookMargin } from "./LookMargin";
import { LookSentence } from "./LookSentence";
import { PairMatrix } from "./PairMatrix";
import { ScatterSheet } from "./ScatterSheet";
import { Tray } from "./Tray";

/** One look: its sentence, the table, scatters, every pair at once, and how each variable lies. */
export function LookSheet({ look }: { look: Look }) {
  const { store, study, title } = useStudy();
  const computed = useAsked("first-look", look);
  const { result, outdated } = computed;
  const kept = study.looks.some((l) => l.id === look.id);
  const before = useSeen("first-look", look, kept ? computed : { ...computed, result: null });
  const [matrix, setMatrix] = useState(false);
  const found = result?.status === "looked" ? result : null;
  const change = (to: Partial<Look>) => void store.edit({ subject: "first-look", id: look.id, to: Look.parse({ ...look, ...to }) });
  const numbers = found ? found.columns.filter((c) => c.level === null).map((c) => c.variable) : [];
  const numbersOfAll = useAsked("points", { names: numbers, respondents: look.respondents }, { subject: `points ${look.id}`, urgency: "background", enabled: found !== null }); // prettier-ignore
  const points = numbersOfAll.result;
  const open = (x: string, y: string) => {
    if (look.scatters.some((s) => s.x === x && s.y === y)) return;
    const id = newId(`${x} ${y}`, look.scatters.map((s) => s.id)); // prettier-ignore
    change({ scatters: [...look.scatters.slice(1 - MOST_SCATTERS), { id, x, y, by: null, panels: [] }] });
  };
  const save = (kind: "csv" | "html") => {
    if (!found) return;
    if (kind === "csv") saveFile(fileName(look.name, "csv"), "text/csv", lookCsv(found));
    else saveFile(fileName(look.name, "html"), "text/html", tableAsHtml(lookTable(look, found, title)));
  };
  return (
    <>
      <main className={page.sheet} aria-busy={outdated || !result}>
        <LookSentence look={look} found={found} onChange={change} />
        <ComputationState of={computed} refusal={result?.status === "refused" ? result.refusal : null} />
        {look.variables.length === 0 && <p className="quiet">Choose variables in the sentence: by name, or all of a ladder.</p>}
        {found && found.columns.length > 0 && (
          <div className={outdated ? page.outdated : undefined} data-testid="look" data-outdated={outdated}>
            <LookCorrelations look={look} found={found} points={points} onOpen={open} />
            <p className={css.foot}>
              Point at a correlation to see it; a click keeps it below{look.scatters.length === MOST_SCATTERS && ", in place of the oldest"}
              . <SaveAs onSave={save} />
            </p>
            {look.scatters.map((scatter) => (
              <ScatterSheet
                key={scatter.id}
                scatter={scatter}
                respondents={look.respondents}
                look={look}
                looked={found}
                onChange={(to) => change({ scatters: to ? look.scatters.map((s) => (s.id === scatter.id ? to : s)) : look.scatters.filter((s) => s.id !== scatter.id) })} // prettier-ignore
              />
            ))}
            {numbers.length > 1 && (
              <section className={css.part} aria-label="Every pair">
                <button type="button" className="link" aria-expanded={matrix} onClick={() => setMatrix(!matrix)}>
                  {matrix ? "Fold the matrix of pairs" : `Every pair at once${numbers.length > 12 ? ", of the first 12 numbers" : ""}`}
                </button>
                {matrix && <PairMatrix names={numbers.slice(0, 12)} points={points} found={found} onOpen={open} />}
              </section>
            )}
            <Descriptions found={found} by={look.by} points={points} />
          </div>
        )}
      </main>
      <LookMargin look={look} found={found} before={before} />
      <Tray
        respondents={look.respondents}
        onLeaveOut={
          (filter) =>
            store.edit(
              { subject: "filter", id: filter.id, to: filter },
              { subject: "first-look", id: look.id, to: { ...look, respondents: filter.id } },
            ) // one change, taken back as one
        }
      />
    </>
  );
}

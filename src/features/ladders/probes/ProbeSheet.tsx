"use client";

import { useMemo, useState } from "react";
import { ComputationState } from "@/features/study/ComputationState";
import { useStudy } from "@/features/study/study-context";
import { useAsked } from "@/features/study/use-computed";
import { probeCsv } from "@/files/probe-csv";
import { tableAsHtml } from "@/files/table-html";
import { readProbe } from "@/study/analyse/read-probe";
import type { Ladder } from "@/study/model/ladder";
import type { Probe } from "@/study/model/probe";
import { whatTheProbeSays } from "@/study/report/ladder/probe-words";
import { probeTable } from "@/study/report/ladder/probe-table";
import { plain } from "@/study/report/words";
import page from "@/ui/parts/page.module.css";
import { Said } from "@/ui/parts/Said";
import { fileName, saveFile } from "@/ui/parts/save-file";
import { ProbePictures } from "./ProbePictures";
import { ProbeSentence } from "./ProbeSentence";
import { SlopeTable } from "./SlopeTable";
import { useFold } from "./use-fold";
import css from "./probes.module.css";

/** One probe: its sentence, its pictures, the table of its slopes, and what they say. A mark that is dragged is read off the fitted step; nothing is fitted anew. */
export function ProbeSheet({ probe, ladder }: { probe: Probe; ladder: Ladder }) {
  const { store, title } = useStudy();
  const computed = useAsked("probe", probe);
  const { result, outdated } = computed;
  const { folded, fold, section } = useFold(probe.id);
  const [moved, setMoved] = useState<Probe["moderators"] | null>(null);
  const draft = useMemo(() => ({ ...probe, moderators: moved ?? probe.moderators }), [probe, moved]);
  const probed = result?.status === "probed" && knows(result.ground, draft) ? result : null;
  const reading = useMemo(() => probed && readProbe(draft, probed.ground, probe.metric), [draft, probed, probe.metric]);
  const change = (to: Probe) => store.edit({ subject: "probe", id: probe.id, to });
  const rest = () => {
    if (!moved) return;
    change({ ...probe, moderators: moved });
    setMoved(null);
  };
  const said = probed && reading ? whatTheProbeSays(draft, reading, probed, title) : [];
  const name = `${title(probe.focal)} by ${probe.moderators.map((m) => title(m.variable)).join(" and ")}`;
  const save = (kind: "csv" | "html") => {
    if (!probed || !reading) return;
    if (kind === "csv") saveFile(fileName(name, "csv"), "text/csv", probeCsv(reading, probed));
    else saveFile(fileName(name, "html"), "text/html", tableAsHtml(probeTable(draft, reading, probed, ladder.name, title)));
  };
  return (
    <article ref={section} aria-label={`Probe: ${name}`} className={css.probe} aria-busy={outdated}>
      <p className={css.of}>
        <span>
          Probe of step {probe.step ?? ladder.steps.length} ·{" "}
          {probe.moderators.length === 1 && probe.moderators[0]!.variable === probe.focal ? "square" : "product"}
        </span>
        <span className={css.ways}>
          {fold}
          {" · "}
          <button type="button" className="link" onClick={() => store.edit({ subject: "probe", id: probe.id, to: null })}>
            Remove
          </button>
        </span>
      </p>
      <ProbeSentence probe={probe} outcome={ladder.outcome} onChange={change} />
      <ComputationState of={computed} refusal={result?.status === "refused" ? result.refusal : null} />
      {folded && said.length > 0 && <p className={css.line}>{plain(said[0]!)}</p>}
      {!folded && probed && reading && (
        <div className={outdated && !moved ? page.outdated : undefined} data-testid={`probe-${probe.id}`} data-outdated={outdated}>
          <ProbePictures probe={draft} reading={reading} result={probed} onMove={setMoved} onRest={rest} />
          <ul className={css.said} aria-label="What it says">
            {said.map((sentence, i) => (
              <li key={i}>
                <Said>{sentence}</Said>
              </li>
            ))}
          </ul>
          <SlopeTable probe={draft} reading={reading} result={probed} />
          <p className={css.foot}>
            Others at their means, categories at equal weights. {ERRORS[probed.ground.of.kind]} Save as{" "}
            <button type="button" className="link" onClick={() => save("csv")}>
              CSV
            </button>{" "}
            or{" "}
            <button type="button" className="link" onClick={() => save("html")}>
              HTML
            </button>
            .
          </p>
        </div>
      )}
    </article>
  );
}

const ERRORS = {
  classical: "Intervals and tests from the covariance of the coefficients.",
  hc3: "Intervals and tests with HC3 standard errors.",
  cluster: "Intervals and tests with cluster-robust standard errors (CR1).",
} as const;

/** Numbers of the question before do not know a variable that has only now been asked about. */
function knows(
  ground: { spreads: ReadonlyMap<string, unknown>; design: { tables: readonly { variable: string }[] } },
  probe: Probe,
): boolean {
  return [probe.focal, ...probe.moderators.map((m) => m.variable)].every(
    (name) => ground.spreads.has(name) || ground.design.tables.some((t) => t.variable === name),
  );
}

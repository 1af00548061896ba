"use client";

import { useMemo, useState } from "react";
import { QuoteThis } from "@/features/study/QuoteThis";
import { useStudy } from "@/features/study/study-context";
import { useAsked } from "@/features/study/use-computed";
import { useReplicates } from "@/features/study/use-replicates";
import { probeCsv } from "@/files/probe-csv";
import type { ProbeResult } from "@/study/analyse/analyse-probe";
import { drawnReading } from "@/study/analyse/probe-figures";
import { readProbe } from "@/study/analyse/read-probe";
import type { Ladder } from "@/study/model/ladder";
import type { Probe } from "@/study/model/probe";
import { whatTheProbeSays } from "@/study/report/ladder/probe-words";
import { probeTable } from "@/study/report/ladder/probe-table";
import { SaveAs } from "@/ui/parts/SaveAs";
import { ReplicateState } from "../bootstrap/ReplicateState";
import { ProbeFrame } from "./ProbeFrame";
import { ProbePictures } from "./ProbePictures";
import { ProbeSentence } from "./ProbeSentence";
import { SlopeTable } from "./SlopeTable";
import { useSaveTable } from "../exploratory";
import css from "./probes.module.css";

/** One probe: its sentence, its pictures, the table of its slopes, and what they say. A mark that is dragged is read off the fitted step; nothing is fitted anew. */
export function ProbeSheet({ probe, ladder }: { probe: Probe; ladder: Ladder }) {
  const { store, title } = useStudy();
  const saveTable = useSaveTable();
  const computed = useAsked("probe", probe);
  const { result } = computed;
  const [moved, setMoved] = useState<Probe["moderators"] | null>(null);
  const draft = useMemo(() => ({ ...probe, moderators: moved ?? probe.moderators }), [probe, moved]);
  const probed = result?.status === "probed" && knows(result, draft) ? result : null;
  const boot = useReplicates("probe", probe, null, probed !== null);
  const drawn = boot.intervals;
  const reading = useMemo(() => {
    const read = probed && readProbe(draft, probed.ground, probe.metric);
    return read && drawn ? drawnReading(read, probed!.ground, probed!.step - 1, probe.metric, drawn) : read;
  }, [draft, probed, probe.metric, drawn]);
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
    saveTable(name, kind, { csv: () => probeCsv(reading, probed), table: () => probeTable(draft, reading, probed, ladder.name, title) });
  };
  const square = probe.moderators.length === 1 && probe.moderators[0]!.variable === probe.focal;
  return (
    <ProbeFrame
      id={probe.id}
      name={name}
      of={`step ${probed?.step ?? Math.min(probe.step ?? Infinity, ladder.steps.length)} · ${square ? "square" : "product"}`}
      sentence={<ProbeSentence probe={probe} outcome={ladder.outcome} onChange={change} />}
      computed={computed}
      live={moved !== null}
      said={said}
      picture={probed && reading && <ProbePictures probe={draft} reading={reading} result={probed} onMove={setMoved} onRest={rest} />}
      quote={
        computed.result && (
          <QuoteThis
            of={{ paragraph: { kind: "probe", id: probe.id } }}
            part={{ probes: new Map([[probe.id, computed.result]]), replicates: new Map([[`probe ${probe.id}`, boot.intervals]]) }}
          />
        )
      }
      onRemove={() => store.edit({ subject: "probe", id: probe.id, to: null })}
    >
      {probed && <ReplicateState boot={boot} testId="probe-replicates" />}
      {probed && reading && <SlopeTable probe={draft} reading={reading} result={probed} />}
      {probed && (
        <p className={css.foot}>
          Others at their means, categories at equal weights. {drawn ? DRAWN[probed.ground.of.kind] : ERRORS[probed.ground.of.kind]}{" "}
          <SaveAs onSave={save} />
        </p>
      )}
    </ProbeFrame>
  );
}

const ERRORS = {
  classical: "Intervals and tests from the covariance of the coefficients.",
  hc3: "Intervals and tests with HC3 standard errors.",
  cluster: "Intervals and tests with cluster-robust standard errors (CR1).",
} as const;

/** Tests stay as they are; bands in the pictures too. */
const DRAWN = {
  classical: "Intervals from replicates; tests, and bands in the pictures, from the covariance of the coefficients.",
  hc3: "Intervals from replicates; tests, and bands in the pictures, with HC3 standard errors.",
  cluster: "Intervals from replicates of whole clusters; tests, and bands in the pictures, with cluster-robust standard errors (CR1).",
} as const;

/** Numbers of the question before do not know a variable that has only now been asked about. */
function knows({ numbers, cases }: Extract<ProbeResult, { status: "probed" }>, probe: Probe): boolean {
  return [probe.focal, ...probe.moderators.map((m) => m.variable)].every((name) => numbers.has(name) || cases.has(name));
}

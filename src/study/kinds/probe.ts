import { z } from "zod";
import type { ProbeResult } from "../analyse/analyse-probe";
import type { StudyParts } from "../model/context";
import { Ladder } from "../model/ladder";
import { ObjectId } from "../model/names";
import { Probe } from "../model/probe";
import type { AskedKind, KeptKind } from "./kind";
import { bareLadder, replicatingAsLadder } from "./ladder";

const ProbeSpec = z.strictObject({ probe: Probe, ladder: Ladder });
export type ProbeSpec = z.infer<typeof ProbeSpec>;

/** How a relation changes: a product of a step, looked into. */
export const probe = {
  kind: "probe",
  list: "probes",
  schema: Probe,
  id: ObjectId,
  word: "Probe",
  place: "ladders",
  idOf: (p: Probe) => p.id,
  nameOf: ({ focal, moderators }: Probe) => `${focal} by ${moderators.map((m) => m.variable).join(" and ")}`,
  opens: { at: (p: Probe) => `ladders?ladder=${p.ladder}&probe=${p.id}` },
  spec: ProbeSpec,
  specOf: (p: Probe, study: StudyParts) => ({
    probe: { ...p, id: "-", ladder: "-", metric: "raw" as const },
    ladder: bareLadder(study.ladders.find((l) => l.id === p.ladder)!),
  }),
  needs: ({ ladder, focal, moderators }: Probe) => ({
    names: [focal, ...moderators.map((m) => m.variable)].map((name) => ({ name })),
    objects: [{ kind: "ladder", id: ladder }],
  }),
  load: () => import("../analyse/probe-analysis"),
  headline: (result: ProbeResult) =>
    result.status === "refused"
      ? null
      : result.reading.found.flatMap((effects, i) =>
          effects.map((effect) => ({ name: `slope, ${result.reading.places[i]!.key}`, value: effect?.estimate ?? null })),
        ),
  replicating: replicatingAsLadder.replicating,
  replicated: (spec: ProbeSpec) => ({ ...spec, ladder: replicatingAsLadder.replicatedLadder(spec.ladder) }),
} satisfies KeptKind<"probe", "probes", Probe> & AskedKind<"probe", Probe, ProbeSpec, ProbeResult>;

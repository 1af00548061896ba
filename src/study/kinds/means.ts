import { z } from "zod";
import type { MeansResult } from "../analyse/analyse-means";
import type { StudyParts } from "../model/context";
import { Ladder } from "../model/ladder";
import { Means } from "../model/means";
import { ObjectId } from "../model/names";
import type { AskedKind, KeptKind } from "./kind";
import { bareLadder, replicatingAsLadder } from "./ladder";

const MeansSpec = z.strictObject({ means: Means, ladder: Ladder });
type MeansSpec = z.infer<typeof MeansSpec>;

/** Predicted outcomes of a step over the levels of a variable. */
export const means = {
  kind: "means",
  list: "means",
  schema: Means,
  id: ObjectId,
  word: "Predicted means",
  many: "Predicted means",
  place: "ladders",
  idOf: (m: Means) => m.id,
  nameOf: ({ variable, by }: Means) => `means of ${variable}${by === null ? "" : ` by ${by}`}`,
  opens: { at: (m: Means) => `ladders?ladder=${m.ladder}&probe=${m.id}` },
  spec: MeansSpec,
  specOf: (m: Means, study: StudyParts) => ({
    means: { ...m, id: "-", ladder: "-" },
    ladder: bareLadder(study.ladders.find((l) => l.id === m.ladder)!),
  }),
  needs: ({ ladder, variable, by }: Means) => ({
    names: [variable, ...(by === null ? [] : [by])].map((name) => ({ name })),
    objects: [{ kind: "ladder", id: ladder }],
  }),
  load: () => import("../analyse/means-analysis"),
  headline: (result: MeansResult) =>
    result.status === "refused"
      ? null
      : result.reading.cells.map(({ key, predicted }) => ({ name: `predicted, ${key}`, value: predicted?.estimate ?? null })),
  replicating: replicatingAsLadder.replicating,
  replicated: (spec: MeansSpec) => ({ ...spec, ladder: replicatingAsLadder.replicatedLadder(spec.ladder) }),
} satisfies KeptKind<"means", "means", Means> & AskedKind<"means", Means, MeansSpec, MeansResult>;

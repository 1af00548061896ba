import { z } from "zod";
import type { ImportanceResult } from "../analyse/analyse-importance";
import { type ImportancePiece, joinedImportance } from "../analyse/joined-importance";
import type { StudyParts } from "../model/context";
import { Importance } from "../model/importance";
import { Ladder } from "../model/ladder";
import { ObjectId } from "../model/names";
import type { AskedKind, KeptKind } from "./kind";
import { bareLadder } from "./ladder";

const Spec = z.strictObject({ importance: Importance, ladder: Ladder });
type Spec = z.infer<typeof Spec>;

/** How much each term of a step explains, in whatever order they enter. */
export const importance = {
  kind: "importance",
  list: "importances",
  schema: Importance,
  id: ObjectId,
  word: "Importance",
  many: "Importance",
  place: "ladders",
  idOf: (i: Importance) => i.id,
  nameOf: ({ ladder, step }: Importance) => `importance in ${ladder}${step === null ? "" : `, step ${step}`}`,
  opens: { at: (i: Importance) => `ladders?ladder=${i.ladder}&probe=${i.id}` },
  spec: Spec,
  specOf: (i: Importance, study: StudyParts) => ({
    importance: { ...i, id: "-", ladder: "-" },
    ladder: bareLadder(study.ladders.find((l) => l.id === i.ladder)!),
  }),
  needs: ({ ladder }: Importance) => ({ names: [], objects: [{ kind: "ladder", id: ladder }] }),
  load: () => import("../analyse/importance-analysis"),
  headline: (result: ImportanceResult) =>
    result.status === "refused" ? null : result.terms.map(({ key, share }) => ({ name: `share, ${key}`, value: share })),
  headlineSpec: (spec: Spec) => ({ ...spec, importance: { ...spec.importance, resamples: null } }),
  joined: (pieces) => joinedImportance(pieces as (ImportancePiece | null)[]),
} satisfies KeptKind<"importance", "importances", Importance> & AskedKind<"importance", Importance, Spec, ImportanceResult>;

import { z } from "zod";
import type { AddedResult } from "../analyse/analyse-added";
import { Added } from "../model/added";
import type { StudyParts } from "../model/context";
import { Ladder } from "../model/ladder";
import { ObjectId } from "../model/names";
import type { AskedKind, KeptKind } from "./kind";
import { bareLadder } from "./ladder";

const Spec = z.strictObject({ added: Added, ladder: Ladder });
type Spec = z.infer<typeof Spec>;

/** What each term of a step adds to the others. */
export const added = {
  kind: "added",
  list: "added",
  schema: Added,
  id: ObjectId,
  word: "What each term adds",
  many: "What each term adds",
  place: "ladders",
  idOf: (a: Added) => a.id,
  nameOf: ({ ladder, step }: Added) => `what each term adds in ${ladder}${step === null ? "" : `, step ${step}`}`,
  opens: { at: (a: Added) => `ladders?ladder=${a.ladder}&probe=${a.id}` },
  spec: Spec,
  specOf: (a: Added, study: StudyParts) => ({
    added: { ...a, id: "-", ladder: "-" },
    ladder: bareLadder(study.ladders.find((l) => l.id === a.ladder)!),
  }),
  needs: ({ ladder, columns }: Added) => ({
    names: columns.flat().map(({ variable }) => ({ name: variable })),
    objects: [{ kind: "ladder", id: ladder }],
  }),
  load: () => import("../analyse/added-analysis"),
} satisfies KeptKind<"added", "added", Added> & AskedKind<"added", Added, Spec, AddedResult>;

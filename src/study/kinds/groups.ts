import { z } from "zod";
import type { PermutedDifference } from "@/core/resampling/label-permutation";
import type { GroupsResult } from "../analyse/analyse-groups";
import type { StudyParts } from "../model/context";
import { Groups } from "../model/groups";
import { Ladder } from "../model/ladder";
import { ObjectId } from "../model/names";
import type { AskedKind, KeptKind } from "./kind";
import { bareLadder, replicatingAsLadder } from "./ladder";

const GroupsSpec = z.strictObject({ groups: Groups, ladder: Ladder });
export type GroupsSpec = z.infer<typeof GroupsSpec>;

/** A step in every group of a variable. */
export const groups = {
  kind: "groups",
  list: "groups",
  schema: Groups,
  id: ObjectId,
  word: "Groups",
  fieldWords: { leftOut: "levels left out", together: "levels together" },
  place: "ladders",
  idOf: (g: Groups) => g.id,
  nameOf: ({ variable }: Groups) => `groups by ${variable}`,
  opens: { at: (g: Groups) => `ladders?ladder=${g.ladder}&probe=${g.id}` },
  spec: GroupsSpec,
  specOf: (g: Groups, study: StudyParts) => ({
    groups: { ...g, id: "-", ladder: "-", metric: "all" as const },
    ladder: bareLadder(study.ladders.find((l) => l.id === g.ladder)!),
  }),
  needs: ({ ladder: id, variable }: Groups) => ({
    names: [{ name: variable, variable: true, as: "groups" }],
    objects: [{ kind: "ladder", id }],
  }),
  load: () => import("../analyse/groups-analysis"),
  headline: (result: GroupsResult) =>
    result.status === "refused" ? null : result.groups.flatMap(({ name, fitted }) => [{ name: `R², ${name}`, value: fitted?.R2 ?? null }]),
  // shuffles of the labels move none of the numbers beside them
  headlineSpec: (spec: GroupsSpec) => ({ ...spec, groups: { ...spec.groups, shuffles: null } }),
  replicating: replicatingAsLadder.replicating,
  replicated: ({ groups: of, ladder }: GroupsSpec) => ({
    groups: { ...of, shuffles: null },
    ladder: replicatingAsLadder.replicatedLadder(ladder),
  }),
  joined(pieces) {
    const [first, ...rest] = pieces as PermutedDifference[][];
    return (first ?? []).map((one, k) => ({ ...one, beyond: rest.reduce((sum, some) => sum + some[k]!.beyond, one.beyond) }));
  },
} satisfies KeptKind<"groups", "groups", Groups> & AskedKind<"groups", Groups, GroupsSpec, GroupsResult>;

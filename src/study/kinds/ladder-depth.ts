import { z } from "zod";
import type { LadderDepth } from "../analyse/ladder-depth";
import { Ladder } from "../model/ladder";
import type { AskedKind } from "./kind";
import { bareLadder, ladderNeeds } from "./ladder";

const DepthSpec = z.strictObject({ ladder: Ladder, /** From 0. */ step: z.int().min(0) });
type DepthSpec = z.infer<typeof DepthSpec>;

/** What of a step takes longer than a ladder's tables. */
export const ladderDepth = {
  kind: "ladder-depth",
  spec: DepthSpec,
  specOf: ({ ladder, step }: DepthSpec) => ({ ladder: bareLadder(ladder), step }),
  needs: ({ ladder }: DepthSpec) => ladderNeeds(ladder),
  load: () => import("../analyse/ladder-depth"),
} satisfies AskedKind<"ladder-depth", DepthSpec, DepthSpec, LadderDepth | null>;

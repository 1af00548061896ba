import type { LadderDepth } from "../../analyse/ladder-depth";
import type { LadderResult } from "../../analyse/analyse-ladder";
import type { Ladder } from "../../model/ladder";
import type { Study } from "../../model/study";
import type { Titles } from "../level-title";

/** What cautions are drawn from. */
export interface WatchInput {
  study: Pick<Study, "codebook" | "scales" | "derived">;
  ladder: Ladder;
  result: Extract<LadderResult, { status: "fitted" }>;
  /** Null until it is worked out. */
  depth: LadderDepth | null;
  /** The step that is spoken of, from 0. */
  step: number;
  title: Titles;
}

import type { Points } from "../analyse/points-analysis";
import { PointsSpec } from "../model/look";
import type { AskedKind } from "./kind";

/** Some numbers of every respondent, for pictures that share them. */
export const points = {
  kind: "points",
  spec: PointsSpec,
  specOf: ({ names, respondents }: PointsSpec) => ({ names, respondents }),
  needs: ({ names, respondents }: PointsSpec) => ({ names: names.map((name) => ({ name })), filters: [respondents] }),
  load: () => import("../analyse/points-analysis"),
} satisfies AskedKind<"points", PointsSpec, PointsSpec, Points>;

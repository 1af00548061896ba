import type { PairLook } from "../analyse/analyse-pair";
import { PairSpec } from "../model/look";
import type { AskedKind } from "./kind";

/** Two numbers as a scatter, with lines and smooths. */
export const pair = {
  kind: "pair",
  spec: PairSpec,
  specOf: ({ x, y, by, panels, respondents }: PairSpec) => ({ x, y, by, panels, respondents }),
  needs: ({ x, y, by, panels, respondents }: PairSpec) => ({
    names: [x, y, ...(by === null ? [] : [by]), ...panels.map((p) => p.variable)].map((name) => ({ name })),
    filters: [respondents],
  }),
  load: () => import("../analyse/pair-analysis"),
} satisfies AskedKind<"pair", PairSpec, PairSpec, PairLook>;

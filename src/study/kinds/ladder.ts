import type { Beyond } from "@/core/diagnostics/residual-tests";
import type { LadderResult } from "../analyse/analyse-ladder";
import { withItsSearch } from "../model/exploratory";
import { Ladder, ladderPredictors, ladderSettingsVariables } from "../model/ladder";
import { ObjectId } from "../model/names";
import type { AskedKind, KeptKind, Needs, Replicating } from "./kind";

/** Names, labels and the metric that is shown do not change numbers: renaming a step computes nothing. */
export const bareLadder = (ladder: Ladder): Ladder => ({
  ...ladder,
  name: "-",
  metric: "z",
  exploratory: "",
  searchedOn: "",
  steps: ladder.steps.map((step) => ({ ...step, name: "" })),
});

/** How the replicates of what is asked of a ladder are drawn: as the ladder's own. */
export const replicatingAsLadder = {
  replicating({ ladder: of }: { ladder: Ladder }): Replicating | null {
    const how = ladder.replicating(of);
    return how && { ...how, compared: null };
  },
  replicatedLadder: (of: Ladder): Ladder => ladder.replicated(of),
};

/** What a ladder stands on; what is worked out from one stands on the same. */
export const ladderNeeds = (ladder: Ladder): Needs => ({
  names: [
    ...ladderPredictors(ladder).map((name) => ({ name })),
    ...(ladder.outcome === null ? [] : [{ name: ladder.outcome, as: "outcome" }]),
    ...ladder.alsoComplete.map((name) => ({ name })),
    ...ladderSettingsVariables(ladder).map(({ role, name }) => ({ name, as: role, variable: true })),
  ],
  filters: [ladder.respondents],
});

/** A hierarchical regression. */
export const ladder = {
  kind: "ladder",
  list: "ladders",
  schema: Ladder,
  id: ObjectId,
  word: "Ladder",
  fieldWords: { alsoComplete: "complete on", standardizeIndicators: "standardized indicators" },
  place: "ladders",
  idOf: (l: Ladder) => l.id,
  carried: withItsSearch,
  nameOf: (l: Ladder) => l.name,
  opens: {
    at: (l: Ladder) => `ladders?ladder=${l.id}`,
    words: (l: Ladder) =>
      l.steps
        .map((step) => step.name)
        .join(" ")
        .trim(),
  },
  spec: Ladder,
  specOf: bareLadder,
  needs: ladderNeeds,
  load: () => import("../analyse/ladder-analysis"),
  headline: (result: LadderResult) =>
    result.status === "refused"
      ? null
      : [{ name: "N", value: result.fit.n }, ...result.fit.steps.map((s, k) => ({ name: `R² of step ${k + 1}`, value: s.model.R2 }))],
  replicating: ({ intervals, confidence, seed, steps }: Ladder) =>
    intervals.by === "normal" ? null : { ...intervals, confidence, seed, compared: steps.length - 1, onRequest: false },
  replicated: (l: Ladder): Ladder => ({
    ...l,
    confidence: 0.95,
    seed: 1,
    intervals: l.intervals.by === "normal" ? l.intervals : { by: "bca", replicates: 5000 },
  }),
  joined(pieces) {
    const [first, ...rest] = pieces as Beyond[][];
    return (first ?? []).map(({ below, above }, k) => ({
      below: rest.reduce((sum, some) => sum + some[k]!.below, below),
      above: rest.reduce((sum, some) => sum + some[k]!.above, above),
    }));
  },
} satisfies KeptKind<"ladder", "ladders", Ladder> & AskedKind<"ladder", Ladder, Ladder, LadderResult>;

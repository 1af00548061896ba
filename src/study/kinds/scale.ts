import type { ScaleResult } from "../analyse/analyse-scale";
import { ObjectId } from "../model/names";
import { Scale } from "../model/scale";
import type { AskedKind, KeptKind } from "./kind";

/** How the replicates behind α and ω are drawn; a scale has no words of its own for it. */
export const REPLICATING = { by: "bca", confidence: 0.95, replicates: 5000, seed: 1, compared: null, onRequest: true } as const;

/** Items gathered into one score: its reliability and how it is spread. */
export const scale = {
  kind: "scale",
  list: "scales",
  schema: Scale,
  id: ObjectId,
  word: "Scale",
  fieldWords: { answeredShare: "answered share", weigh: "weights count", weightsFrom: "weights from", byGroup: "told by" },
  place: "scales",
  idOf: (s: Scale) => s.id,
  nameOf: (s: Scale) => s.name,
  opens: { at: (s: Scale) => `scales?scale=${s.id}`, words: (s: Scale) => s.items.map((item) => item.variable).join(" ") },
  spec: Scale,
  specOf: (s: Scale) => ({ ...s, name: "-", weightsFrom: "" }),
  needs: ({ items, byGroup, respondents }: Scale) => ({
    names: [
      ...items.map((item) => ({ name: item.variable, as: "item" })),
      ...(byGroup === null ? [] : [{ name: byGroup, variable: true, as: "group" }]),
    ],
    filters: [respondents],
  }),
  load: () => import("../analyse/scale-analysis"),
  headline: (result: ScaleResult) =>
    result.status === "refused"
      ? null
      : [
          { name: "respondents scored", value: result.analysis.complete + result.analysis.prorated },
          { name: "M", value: result.analysis.description.mean },
          { name: "α", value: result.analysis.reliability.alpha?.alpha ?? null },
        ],
  // telling reliability by group as well moves none of the numbers before it
  headlineSpec: (s: Scale) => ({ ...s, byGroup: null }),
  replicating: () => REPLICATING,
  replicated: (s: Scale) => ({ ...s, byGroup: null }),
} satisfies KeptKind<"scale", "scales", Scale> & AskedKind<"scale", Scale, Scale, ScaleResult>;

import { codesOf, hasDirection, Hypothesis } from "../model/hypothesis";
import { ObjectId } from "../model/names";
import type { StudyParts } from "../model/context";
import type { KeptKind } from "./kind";

/** A directed statement and what it rests on. */
export const hypothesis = {
  kind: "hypothesis",
  list: "hypotheses",
  schema: Hypothesis,
  id: ObjectId,
  word: "Hypothesis",
  many: "Hypotheses",
  place: "theory",
  idOf: (h: Hypothesis) => h.id,
  nameOf: (h: Hypothesis) => (h.text === "" ? `hypothesis ${h.id}` : h.text.slice(0, 80)),
  opens: { at: (h: Hypothesis) => `theory?hypothesis=${h.id}` },
  // what it names may be gone: it then waits, and says what it waits for
  needs: () => ({ names: [] }),
  faults: ({ id, claim, direction, rests }: Hypothesis, { hypotheses }: StudyParts) => {
    const code = codesOf(hypotheses)[hypotheses.findIndex((one) => one.id === id)] ?? "A hypothesis";
    if (hasDirection(rests) || (claim === "effect" && direction === "none")) return [];
    return [
      rests.on === "change"
        ? `${code} rests on ΔR², which can be tested against nothing only.`
        : `${code} rests on whether all groups are alike, which has no direction: name two groups.`,
    ];
  },
} satisfies KeptKind<"hypothesis", "hypotheses", Hypothesis>;

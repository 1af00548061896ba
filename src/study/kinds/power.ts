import { z } from "zod";
import type { PowerResult } from "../analyse/analyse-power";
import { joinedSamples, type SimulatedPower } from "../analyse/joined-samples";
import type { StudyParts } from "../model/context";
import { Hypothesis } from "../model/hypothesis";
import { Ladder } from "../model/ladder";
import { ObjectId } from "../model/names";
import { Power } from "../model/power";
import { Theory, theoryOf } from "../model/theory";
import type { AskedKind, KeptKind } from "./kind";
import { bareLadder } from "./ladder";

const Spec = z.strictObject({ power: Power, hypothesis: Hypothesis, ladder: Ladder.nullable(), theory: Theory });
type Spec = z.infer<typeof Spec>;

const restsOf = (p: Power, { hypotheses, ladders }: StudyParts) => {
  const hypothesis = hypotheses.find((h) => h.id === p.hypothesis);
  return { hypothesis, ladder: ladders.find((l) => l.id === hypothesis?.ladder) ?? null };
};

/** How many respondents a hypothesis needs, and what those who are there can show. */
export const power = {
  kind: "power",
  list: "powers",
  schema: Power,
  id: ObjectId,
  word: "Number of respondents",
  many: "Numbers of respondents",
  fieldWords: { R2: "R² that is assumed", r: "correlation of the predictors", power: "power that is wanted" },
  place: "theory",
  idOf: (p: Power) => p.id,
  nameOf: ({ hypothesis }: Power) => `respondents for hypothesis ${hypothesis}`,
  opens: { at: (p: Power) => `theory?hypothesis=${p.hypothesis}` },
  spec: Spec,
  specOf: (p: Power, study: StudyParts) => {
    const { hypothesis, ladder } = restsOf(p, study);
    return {
      power: { ...p, id: "-", hypothesis: "-" },
      hypothesis: { ...hypothesis!, id: "-", text: "", since: null, changes: [] },
      ladder: ladder && bareLadder(ladder),
      theory: theoryOf(study.theories),
    };
  },
  needs: (p: Power, study: StudyParts) => {
    const { ladder } = restsOf(p, study);
    return { names: [], objects: [{ kind: "hypothesis", id: p.hypothesis }, ...(ladder ? [{ kind: "ladder", id: ladder.id }] : [])] };
  },
  load: () => import("../analyse/power-analysis"),
  headline: (result: PowerResult) => (result.status === "refused" ? null : [{ name: "power", value: result.power }]),
  // samples that are drawn move none of the numbers beside them
  headlineSpec: (spec: Spec) => ({ ...spec, power: { ...spec.power, samples: null, skew: 0, missing: 0, seed: 1 } }),
  joined: (pieces) => joinedSamples(pieces as (SimulatedPower | null)[]),
} satisfies KeptKind<"power", "powers", Power> & AskedKind<"power", Power, Spec, PowerResult>;

import { z } from "zod";
import { columnKey } from "@/core/regression/terms";
import type { ShiftResult } from "../analyse/analyse-shift";
import type { StudyParts } from "../model/context";
import { Ladder } from "../model/ladder";
import { ObjectId } from "../model/names";
import { Shift } from "../model/shift";
import type { AskedKind, KeptKind } from "./kind";
import { bareLadder } from "./ladder";

const Spec = z.strictObject({ shift: Shift, ladder: Ladder });
type Spec = z.infer<typeof Spec>;

/** Why a coefficient changes from one step to the next. */
export const shift = {
  kind: "shift",
  list: "shifts",
  schema: Shift,
  id: ObjectId,
  word: "Change of a coefficient",
  many: "Changes of coefficients",
  place: "ladders",
  idOf: (s: Shift) => s.id,
  nameOf: ({ ladder, column }: Shift) => `change of ${columnKey(column)} in ${ladder}`,
  opens: { at: (s: Shift) => `ladders?ladder=${s.ladder}&probe=${s.id}` },
  spec: Spec,
  specOf: (s: Shift, study: StudyParts) => ({
    shift: { ...s, id: "-", ladder: "-" },
    ladder: bareLadder(study.ladders.find((l) => l.id === s.ladder)!),
  }),
  needs: ({ ladder, column }: Shift) => ({
    names: column.map(({ variable }) => ({ name: variable })),
    objects: [{ kind: "ladder", id: ladder }],
  }),
  load: () => import("../analyse/shift-analysis"),
  headline: (result: ShiftResult) =>
    result.status === "refused"
      ? null
      : [
          { name: "b before", value: result.before.b.estimate },
          { name: "b after", value: result.after.b.estimate },
        ],
} satisfies KeptKind<"shift", "shifts", Shift> & AskedKind<"shift", Shift, Spec, ShiftResult>;

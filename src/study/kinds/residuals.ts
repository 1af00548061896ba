import { z } from "zod";
import type { ResidualsResult } from "../analyse/analyse-residuals";
import type { StudyParts } from "../model/context";
import { Ladder } from "../model/ladder";
import { ObjectId } from "../model/names";
import { Residuals } from "../model/residuals";
import type { AskedKind, KeptKind } from "./kind";
import { bareLadder } from "./ladder";

const Spec = z.strictObject({ residuals: Residuals, ladder: Ladder });
type Spec = z.infer<typeof Spec>;

/** Whether the residuals of a step can be trusted. */
export const residuals = {
  kind: "residuals",
  list: "residuals",
  schema: Residuals,
  id: ObjectId,
  word: "Residuals",
  many: "Residuals",
  place: "ladders",
  idOf: (r: Residuals) => r.id,
  nameOf: ({ ladder, along }: Residuals) => `residuals of ${ladder}${along === null ? "" : ` along ${along}`}`,
  opens: { at: (r: Residuals) => `ladders?ladder=${r.ladder}&probe=${r.id}` },
  spec: Spec,
  specOf: (r: Residuals, study: StudyParts) => ({
    residuals: { ...r, id: "-", ladder: "-" },
    ladder: bareLadder(study.ladders.find((l) => l.id === r.ladder)!),
  }),
  needs: ({ ladder, along, pulls }: Residuals) => ({
    names: [
      ...(along === null ? [] : [{ name: along, as: "what residuals are seen along" }]),
      ...(pulls.by === "coefficient" ? pulls.column.map(({ variable }) => ({ name: variable })) : []),
    ],
    objects: [{ kind: "ladder", id: ladder }],
  }),
  load: () => import("../analyse/residuals-analysis"),
  headline: (result: ResidualsResult) =>
    result.status === "refused" ? null : [{ name: "largest Cook’s distance", value: result.cooks.largest }],
} satisfies KeptKind<"residuals", "residuals", Residuals> & AskedKind<"residuals", Residuals, Spec, ResidualsResult>;

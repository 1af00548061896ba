import { z } from "zod";
import type { StructureResult } from "../analyse/analyse-structure";
import type { StudyParts } from "../model/context";
import { VariableName } from "../model/names";
import { ObjectId } from "../model/names";
import { Structure, structureParts } from "../model/structure";
import type { AskedKind, KeptKind } from "./kind";

/** A structure without its names, its items already keyed. */
const StructureSpec = z
  .strictObject(Structure.shape)
  .pick({ respondents: true, extraction: true, rotation: true, factors: true, sets: true, seed: true })
  .extend({ parts: z.array(z.strictObject({ name: VariableName, reversed: z.boolean() })) });
export type StructureSpec = z.infer<typeof StructureSpec>;

/** What lies behind a set of items. */
export const structure = {
  kind: "structure",
  list: "structures",
  schema: Structure,
  id: ObjectId,
  word: "Structure",
  fieldWords: { dimBelow: "dimmed below" },
  place: "scales",
  idOf: (s: Structure) => s.id,
  nameOf: (s: Structure) => s.name,
  opens: { at: (s: Structure) => `scales?structure=${s.id}` },
  spec: StructureSpec,
  specOf: (s: Structure, study: StudyParts): StructureSpec => {
    const { respondents, extraction, rotation, factors, sets, seed } = s;
    const parts = structureParts(study.scales, s).map(({ name, reversed }) => ({ name, reversed }));
    return { parts, respondents, extraction, rotation, factors, sets, seed };
  },
  needs: (s: Structure, study: StudyParts) => ({
    names: s.items.map((name) => ({ name })),
    filters: [s.respondents],
    // its scales say which items are turned round
    looksAt:
      s.keying === "scales" ? structureParts(study.scales, s).flatMap((part) => part.scales.map((id) => ({ kind: "name", id }))) : [],
  }),
  load: () => import("../analyse/structure-analysis"),
  headline: (result: StructureResult) =>
    result.status === "refused"
      ? null
      : [
          { name: "complete respondents", value: result.analysis.n },
          { name: "sampling adequacy", value: result.analysis.adequacy?.overall ?? null },
          { name: "factors", value: result.analysis.factors },
        ],
} satisfies KeptKind<"structure", "structures", Structure> & AskedKind<"structure", Structure, StructureSpec, StructureResult>;

import { z } from "zod";
import { byName } from "../model/by-name";
import { Correction, correctionId } from "../model/correction";
import type { KeptKind } from "./kind";

/** A cell mended by hand. */
export const correction = {
  kind: "correction",
  list: "corrections",
  schema: Correction,
  id: z.string().max(220),
  word: "Correction of",
  place: "responses",
  idOf: correctionId,
  nameOf: correctionId,
  needs: ({ variable }) => ({ names: [{ name: variable, variable: true }] }),
  faults: ({ variable }, { derived }) =>
    byName(derived, variable) ? [`"${variable}" is worked out from others; its cells cannot be corrected one by one.`] : [],
} satisfies KeptKind<"correction", "corrections", Correction>;

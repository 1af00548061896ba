import { z } from "zod";
import type { variableResults } from "../analyse/variable-results";
import { VariableName } from "../model/names";
import { Variable } from "../model/variable";
import type { AskedKind, KeptKind } from "./kind";

/** A row of the codebook; of numbers, how they are spread. */
export const variable = {
  kind: "variable",
  list: "codebook",
  schema: Variable,
  id: VariableName,
  word: "Variable",
  fieldWords: { range: "possible answers", missing: "missing codes", levels: "value labels" },
  place: "responses",
  idOf: (v: Variable) => v.name,
  nameOf: (v: Variable) => v.name,
  opens: {
    at: (v: Variable) => `responses?variable=${encodeURIComponent(v.name)}`,
    words: (v: Variable) => [v.label || v.short, v.question].filter(Boolean).join(" · "),
  },
  spec: z.strictObject({ name: VariableName }),
  specOf: ({ name }: Variable) => ({ name }),
  needs: ({ name }: Variable) => ({ names: [{ name }] }),
  load: () => import("../analyse/variable-results"),
} satisfies KeptKind<"variable", "codebook", Variable> &
  AskedKind<"variable", Variable, { name: string }, ReturnType<typeof variableResults>>;

import { z } from "zod";
import type { AskedKind, KeptKind } from "../../kinds/kind";
import { ObjectId, Title, VariableName } from "../../model/names";
import type { SpanResult } from "./span-analysis";

const Span = z.strictObject({ id: ObjectId, name: Title, of: VariableName });
type Span = z.infer<typeof Span>;

/** A made-up kind of object, as one would be added: how far the values of a variable or scale reach. */
export const span = {
  kind: "span",
  list: "spans",
  schema: Span,
  id: ObjectId,
  word: "Span",
  place: "scales",
  idOf: (s: Span) => s.id,
  nameOf: (s: Span) => s.name,
  spec: z.strictObject({ of: VariableName }),
  specOf: ({ of }: Span) => ({ of }),
  needs: ({ of }: Span) => ({ names: [{ name: of }] }),
  load: () => import("./span-analysis"),
  headline: (result: SpanResult) => [{ name: "width", value: result.high - result.low }],
} satisfies KeptKind<"span", "spans", Span> & AskedKind<"span", Span, { of: string }, SpanResult>;

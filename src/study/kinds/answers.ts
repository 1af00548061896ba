import { z } from "zod";
import type { AnswerStrip } from "../analyse/answer-strip";
import type { Finding } from "../analyse/responses/findings";
import type { MissingPattern } from "../analyse/responses/missing-pattern";
import type { OpenPoint } from "../analyse/responses/open-points";
import type { LookResult } from "../analyse/responses/variable-look";
import type { StudyParts } from "../model/context";
import { ObjectId, VariableName } from "../model/names";
import { OpenPoints } from "../model/open-points";
import type { ResponseColumn } from "../model/response-column";
import { askedFor } from "../prepare/answers/attention";
import { familyOf } from "../prepare/answers/column-answers";
import type { AskedKind } from "./kind";

const Name = z.strictObject({ name: VariableName });
const Names = z.strictObject({ names: z.array(VariableName) });
const Nothing = z.strictObject({});
type Name = z.infer<typeof Name>;
type Names = z.infer<typeof Names>;
type Nothing = z.infer<typeof Nothing>;

const itself = <T>(of: T): T => of;
const named = (names: readonly string[]) => names.map((name) => ({ name }));

/** How the answers of some variables are spread. */
export const strips = {
  kind: "strips",
  spec: Names,
  specOf: itself<Names>,
  needs: ({ names }: Names) => ({ names: named(names) }),
  load: () => import("../analyse/answer-strip"),
} satisfies AskedKind<"strips", Names, Names, AnswerStrip[]>;

/** A column as it counts: corrected or derived. */
export const column = {
  kind: "column",
  spec: Name,
  specOf: itself<Name>,
  needs: ({ name }: Name) => ({ names: [{ name }] }),
  load: () => import("../analyse/responses/counted-column"),
} satisfies AskedKind<"column", Name, Name, ResponseColumn>;

/** What a variable holds. */
export const look = {
  kind: "look",
  spec: Name,
  specOf: itself<Name>,
  needs: ({ name }: Name) => ({ names: [{ name }] }),
  load: () => import("../analyse/responses/variable-look"),
} satisfies AskedKind<"look", Name, Name, LookResult>;

/** Every check on every variable of the file. */
export const checks = {
  kind: "checks",
  spec: Nothing,
  specOf: itself<Nothing>,
  needs: (_: Nothing, __: unknown, file: readonly string[]) => ({ names: named(file) }),
  load: () => import("../analyse/responses/check-responses"),
} satisfies AskedKind<"checks", Nothing, Nothing, Finding[]>;

/** What in the file is still to be understood: words without numbers, items without a range, several answers in a cell. */
export const openPoints = {
  kind: "open-points",
  spec: OpenPoints,
  specOf: (_: Nothing, { codebook, derived, readings }: StudyParts) => {
    const made = new Set(derived.map((d) => d.name));
    const read = new Map(readings.flatMap((r) => r.variables.map((name) => [name, r.id] as const)));
    const used = new Set(derived.flatMap(({ recipe }) => (recipe.kind === "choice" || recipe.kind === "ticked" ? [recipe.from] : [])));
    const minutesOf = derived.flatMap(({ recipe }) => (recipe.kind === "minutes" ? [recipe.from, recipe.to] : []));
    return {
      variables: codebook
        .filter((v) => !made.has(v.name) && !v.asIs && !used.has(v.name))
        .map((v) => ({
          name: v.name,
          family: familyOf(v),
          read: read.get(v.name) ?? null,
          ...(askedFor(v) === null ? {} : { check: true }),
          ...(minutesOf.length === 0 ? {} : { minutesOf }),
        })),
    };
  },
  needs: (_: Nothing, __: unknown, file: readonly string[]) => ({ names: named(file) }),
  load: () => import("../analyse/responses/open-points"),
} satisfies AskedKind<"open-points", Nothing, OpenPoints, OpenPoint[]>;

/** Who left what open. */
export const missing = {
  kind: "missing",
  spec: Names,
  specOf: itself<Names>,
  needs: ({ names }: Names) => ({ names: named(names) }),
  load: () => import("../analyse/responses/missing-pattern"),
} satisfies AskedKind<"missing", Names, Names, MissingPattern>;

const RowList = z.strictObject({
  shown: z.discriminatedUnion("kind", [
    z.strictObject({ kind: z.literal("all") }),
    z.strictObject({ kind: z.literal("in-study") }),
    z.strictObject({ kind: z.literal("kept"), filter: ObjectId }),
    z.strictObject({ kind: z.literal("left-out"), filter: ObjectId }),
    z.strictObject({ kind: z.literal("rows"), rows: z.array(z.int().min(1)) }),
  ]),
  order: z.strictObject({ by: VariableName, descending: z.boolean() }).nullable(),
});
type RowList = z.infer<typeof RowList>;

/** The rows a sheet shows, in order. */
export const rowList = {
  kind: "row-list",
  spec: RowList,
  specOf: itself<RowList>,
  needs: ({ shown, order }: RowList) => ({
    names: order ? [{ name: order.by }] : [],
    filters: [shown.kind === "kept" || shown.kind === "left-out" ? shown.filter : null],
  }),
  load: () => import("../analyse/responses/row-list"),
} satisfies AskedKind<"row-list", RowList, RowList, Uint32Array>;

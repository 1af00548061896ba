import { z } from "zod";
import { ObjectId } from "./names";
import { PrintedCells, PrintedFigure, PrintedWords } from "./printed";

/** What a part of the write-up is of: a kind of it, and the objects of the study that it stands on, in their order. */
const of = <const K extends readonly [string, ...string[]]>(kinds: K) =>
  z.strictObject({ kind: z.enum(kinds), ids: z.array(ObjectId).max(4).default([]) });

export const TABLE_KINDS = ["look", "descriptives", "steps", "coefficients", "slopes", "groups", "means", "loadings", "search", "importance", "theory"] as const; // prettier-ignore
export type TableKind = (typeof TABLE_KINDS)[number];
export const FIGURE_KINDS = ["lines", "means", "groups", "theory"] as const;
export type FigureKind = (typeof FIGURE_KINDS)[number];
export const PARAGRAPH_KINDS = ["participants", "measures", "analysis", "look", "ladder", "probe", "groups", "means", "structure", "search", "importance", "hypotheses", "hypothesis", "references"] as const; // prettier-ignore
export type ParagraphKind = (typeof PARAGRAPH_KINDS)[number];

/** How a table is told. What does not apply to a kind of table moves nothing in it. */
export const TableOptions = z.strictObject({
  /** Of coefficients. */
  metric: z.enum(["beta", "b", "both"]).default("both"),
  /** How sure they are. */
  spread: z.enum(["se", "interval", "both", "neither"]).default("both"),
  tests: z.enum(["p", "stars", "both", "neither"]).default("p"),
  /** Ids of steps that are not told. */
  without: z.array(ObjectId).default([]),
  /** Of several ladders in one table, the step of each that is told, from 1; null: the last. */
  step: z.int().min(1).nullable().default(null),
  /** Steps one below the other, or side by side. */
  form: z.enum(["below", "beside"]).default("below"),
  /** Of correlations, coefficients and their spread. */
  decimals: z.int().min(2).max(4).default(2),
  order: z.enum(["as it stands", "by size", "by name"]).default("as it stands"),
});
export type TableOptions = z.infer<typeof TableOptions>;

/** A piece of a person's own text: letters, a number of the study with the text it had, or a table or figure. */
const LiveNumber = z.strictObject({ as: z.literal("number"), of: z.string().min(1).max(4000), shown: PrintedWords });
const Leading = z.strictObject({ as: z.literal("reference"), to: z.string().max(400) });
const Letters = z.strictObject({ text: z.string().max(20_000), as: z.enum(["italic", "superscript"]) });
export const ProsePiece = z.union([z.string().max(20_000), Letters, LiveNumber, Leading]);
export type ProsePiece = z.infer<typeof ProsePiece>;
export const Prose = z.array(z.array(ProsePiece).max(4000)).max(200);
export type Prose = z.infer<typeof Prose>;

const Heading = z.strictObject({
  kind: z.literal("heading"),
  level: z.union([z.literal(2), z.literal(3)]),
  text: z.string().trim().max(300),
});
const OwnProse = z.strictObject({ kind: z.literal("prose"), text: Prose });
const Paragraph = z.strictObject({
  kind: z.literal("paragraph"),
  of: of(PARAGRAPH_KINDS),
  /** Its sentences when it was last brought up to date; null: it had nothing to say. */
  shown: z.array(PrintedWords).max(5000).nullable().default(null),
  /** The same as a person has written it; its numbers are those of the sentences, by their place among them ("3"). Null: as composed. */
  own: Prose.nullable().default(null),
});
const Table = z.strictObject({
  kind: z.literal("table"),
  of: of(TABLE_KINDS),
  options: TableOptions.prefault({}),
  /** Said below it, after its own note. */
  note: z.string().trim().max(2000).default(""),
  shown: PrintedCells.nullable().default(null),
});
const Figure = z.strictObject({
  kind: z.literal("figure"),
  of: of(FIGURE_KINDS),
  note: z.string().trim().max(2000).default(""),
  shown: PrintedFigure.nullable().default(null),
});

export const BlockContent = z.discriminatedUnion("kind", [Heading, OwnProse, Paragraph, Table, Figure]);
export type BlockContent = z.infer<typeof BlockContent>;

/** A part of the write-up. The list of them in their order is the text. */
export const Block = z.strictObject({
  id: ObjectId,
  what: BlockContent,
  /** ISO time at which what it shows was last taken from the results; "" for what shows none. */
  at: z.string().max(40).default(""),
});
export type Block = z.infer<typeof Block>;
export type BlockOf<K extends BlockContent["kind"]> = Extract<BlockContent, { kind: K }>;

/** One text for what a part is of: two that are equal say the same. */
export const sourceKey = (what: BlockContent): string =>
  "of" in what ? [what.kind, what.of.kind, ...what.of.ids].join(" ") : `${what.kind}`;

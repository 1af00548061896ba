import { z } from "zod";
import { ExtractionMethod, FactorCount, RotationMethod } from "./factoring";
import { Seed } from "./ladder";
import { ObjectId, Title, VariableName } from "./names";
import type { Scale } from "./scale";

/** What lies behind a set of items: a factor exploration and its choices. */
export const Structure = z
  .strictObject({
    id: ObjectId,
    name: Title,
    /** Variables, or scales by their scores. */
    items: z.array(VariableName).min(3, "A structure needs at least three items.").max(400),
    /** Items turned round as their scales key them, or all as they were asked. */
    keying: z.enum(["scales", "asked"]).default("scales"),
    /** A named filter: its respondents are looked at. */
    respondents: ObjectId.nullable().default(null),
    extraction: ExtractionMethod.default("principal-axis"),
    rotation: RotationMethod.default("varimax"),
    /** Null: as many as parallel analysis suggests. */
    factors: FactorCount.nullable().default(null),
    /** Random data sets of the parallel analysis. */
    sets: z.int().min(100).max(5000).default(500),
    seed: Seed.default(1),
    /** Loadings of a smaller size are dimmed, and do not tie an item to a factor. */
    dimBelow: z.number().min(0).max(0.95).default(0.3),
    /** Items by the factor they go with, strongest first; else in their own order. */
    sorted: z.boolean().default(true),
  })
  .refine((s) => new Set(s.items).size === s.items.length, { path: ["items"], error: "An item stands in this structure twice." });
export type Structure = z.infer<typeof Structure>;

/** An item as a structure counts it. */
export interface StructurePart {
  name: string;
  reversed: boolean;
  /** The scales it is an item of, in the study's order; the first decides how it is keyed. */
  scales: string[];
}

/** The items of a structure, keyed. */
export function structureParts(scales: readonly Scale[], { items, keying }: Pick<Structure, "items" | "keying">): StructurePart[] {
  return items.map((name) => {
    const holding = scales.filter((s) => s.items.some((item) => item.variable === name));
    const keyed = holding[0]?.items.find((item) => item.variable === name)?.reversed ?? false;
    return { name, reversed: keying === "scales" && keyed, scales: holding.map((s) => s.id) };
  });
}

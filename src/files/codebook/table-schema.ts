import { z } from "zod";
import { AnswerRange, Variable, type VariableKind } from "@/study/model/variable";

// A codebook as the open Table Schema describes columns, inside a data package.

const Coded = z.union([z.string(), z.number(), z.boolean()]);
const Categories = z.array(z.union([Coded, z.looseObject({ value: Coded, label: z.string().optional() })]));
const MissingValues = z.array(z.union([z.string(), z.looseObject({ value: z.string(), label: z.string().optional() })]));

export const TableField = z.looseObject({
  name: z.string().min(1),
  title: z.string().optional(),
  description: z.string().optional(),
  type: z.string().default("string"),
  unit: z.string().optional(),
  decimalChar: z.string().optional(),
  missingValues: MissingValues.optional(),
  categories: Categories.optional(),
  constraints: z
    .looseObject({ minimum: z.unknown(), maximum: z.unknown(), enum: z.array(Coded).optional() })
    .partial()
    .optional(),
  /** Ours: what the schema has no word for. */
  betaStep: z.looseObject({ kind: z.string(), short: z.string(), note: z.string(), question: z.string() }).partial().optional(),
});
export const TableSchema = z.looseObject({ fields: z.array(TableField), missingValues: MissingValues.optional() });
export type TableSchema = z.infer<typeof TableSchema>;

const TYPES: Record<VariableKind, string> = {
  item: "integer",
  number: "number",
  category: "string",
  date: "date",
  text: "string",
  code: "string",
};

/** Codebook → schema. */
export function toTableSchema(codebook: readonly Variable[]) {
  return {
    fields: codebook.map((v) => ({
      name: v.name,
      type: TYPES[v.kind],
      ...(v.label === "" ? {} : { title: v.label }),
      ...(v.unit === "" ? {} : { unit: v.unit }),
      ...(v.note === "" ? {} : { description: v.note }),
      missingValues: ["", ...v.missing.filter((code) => code !== "")],
      ...(v.levels.length === 0 ? {} : { categories: v.levels.map(({ value, label }) => (label === "" ? { value } : { value, label })) }),
      ...(v.range === null ? {} : { constraints: { minimum: v.range.low, maximum: v.range.high } }),
      betaStep: { kind: v.kind, ...(v.short === "" ? {} : { short: v.short }), ...(v.question === "" ? {} : { question: v.question }) },
    })),
    missingValues: [""],
  };
}

/** Schema → codebook. What it does not say stays open. */
export function fromTableSchema(schema: TableSchema): Variable[] {
  const forAll = codesOf(schema.missingValues);
  return schema.fields.map((field) => {
    const range = AnswerRange.safeParse({ low: field.constraints?.minimum, high: field.constraints?.maximum });
    const levels = (field.categories ?? field.constraints?.enum ?? []).map((c) =>
      typeof c === "object" ? { value: String(c.value), label: c.label ?? "" } : { value: String(c), label: "" },
    );
    return Variable.parse({
      name: field.name.trim(),
      label: (field.title ?? "").slice(0, 2000),
      question: (field.betaStep?.question ?? "").slice(0, 2000),
      note: (field.description ?? "").slice(0, 4000),
      unit: (field.unit ?? "").slice(0, 60),
      short: (field.betaStep?.short ?? "").slice(0, 60),
      kind: kindOf(field, levels.length > 0),
      range: range.success ? range.data : null,
      missing: field.missingValues ? codesOf(field.missingValues) : forAll,
      levels: levels.filter((level, i) => level.value !== "" && levels.findIndex((l) => l.value === level.value) === i),
    });
  });
}

function kindOf(field: z.infer<typeof TableField>, labelled: boolean): VariableKind {
  const ours = field.betaStep?.kind;
  if (ours !== undefined && Object.hasOwn(TYPES, ours)) return ours as VariableKind;
  if (field.type === "date" || field.type === "datetime") return "date";
  if (field.type === "boolean") return "category";
  if (["number", "integer", "year"].includes(field.type))
    return labelled && field.constraints?.minimum === undefined ? "category" : "number";
  return labelled ? "category" : "text";
}

function codesOf(values: z.infer<typeof MissingValues> = []): string[] {
  return values.map((v) => (typeof v === "string" ? v : v.value).trim()).filter((code) => code !== "");
}

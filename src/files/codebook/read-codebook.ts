import { Variable } from "@/study/model/variable";
import { type CodebookReading, readCodebookTable } from "./codebook-table";
import { fromTableSchema, TableSchema } from "./table-schema";

/** A codebook in any of the formats, told by how it begins: DDI Codebook XML, a data package description, or a table. */
export async function readCodebook(text: string, codebook: readonly Variable[]): Promise<CodebookReading> {
  const nothing: CodebookReading = { variables: [], unknown: [], faults: [], ignored: [] };
  const head = text.replace(/^\uFEFF/, "").trimStart();
  if (head.startsWith("<")) {
    const { readDdiCodebook } = await import("./ddi-codebook");
    return readDdiCodebook(text, codebook);
  }
  if (!head.startsWith("{")) return readCodebookTable(text, codebook);
  try {
    const raw = JSON.parse(head) as { resources?: { schema?: unknown }[]; fields?: unknown };
    const schema = TableSchema.parse(raw.fields ? raw : raw.resources?.find((r) => r.schema)?.schema);
    const said = fromTableSchema(schema);
    const names = new Set(codebook.map((v) => v.name));
    return {
      ...nothing,
      variables: said.filter((v) => names.has(v.name)),
      unknown: said.filter((v) => !names.has(v.name)).map((v) => v.name),
    };
  } catch {
    return { ...nothing, faults: ["This JSON does not describe a table: a data package has its fields under resources, schema, fields."] };
  }
}

/** A codebook of variables that nobody knows yet: every row with a name that can be one becomes a variable. */
export async function newCodebook(text: string): Promise<CodebookReading> {
  const first = await readCodebook(text, []);
  const made = [...new Set(first.unknown)].map((name) => Variable.safeParse({ name }));
  const names = made.flatMap((one) => (one.success ? [one.data] : []));
  const refused = [...new Set(first.unknown)].filter((_, k) => !made[k]!.success);
  const reading = names.length === 0 ? first : await readCodebook(text, names);
  const said = new Map(reading.variables.map((v) => [v.name, v]));
  return {
    variables: names.map((v) => said.get(v.name) ?? v),
    unknown: [],
    faults: [...reading.faults, ...refused.map((name) => `“${name.slice(0, 60)}” cannot be the name of a variable.`)],
    ignored: reading.ignored,
  };
}

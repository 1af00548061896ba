import { z } from "zod";
import { fromTableSchema, TableSchema } from "@/files/codebook/table-schema";
import { GUARD } from "@/files/spreadsheet-guard";
import type { Variable } from "@/study/model/variable";
import { formatCount } from "@/study/report/format-number";
import { ImportFaultError } from "./import-fault";
import { Delimiter, type TableEncodingHint } from "./table-options";

const Dialect = z.looseObject({ delimiter: z.string().optional(), header: z.boolean().optional() });
const Resource = z.looseObject({
  name: z.string().optional(),
  path: z.union([z.string(), z.array(z.string()).length(1)]).optional(),
  data: z.unknown().optional(),
  encoding: z.string().optional(),
  dialect: Dialect.optional(),
  schema: TableSchema.optional(),
});
const Descriptor = z.looseObject({ name: z.string().optional(), title: z.string().optional(), resources: z.array(Resource).min(1) });

/** A table of a data package. */
export interface PackageTable {
  name: string;
  /** Name of the part that holds it; null when its rows stand in the descriptor. */
  part: string | null;
  data: unknown;
  hint: TableEncodingHint;
  codebook: Variable[];
  /** Formulas in its cells are set off with an apostrophe. */
  guarded: boolean;
}

const MOST_TABLES = 1000;
export const DESCRIPTOR = "datapackage.json";

/** What a descriptor (datapackage.json) says of its tables. @throws ImportFaultError */
export function readDescriptor(text: string): { title: string; tables: PackageTable[] } {
  let raw: unknown;
  try {
    raw = JSON.parse(text);
  } catch {
    throw new ImportFaultError("not-json", `The part ${DESCRIPTOR} is not valid JSON.`);
  }
  const parsed = Descriptor.safeParse(raw);
  if (!parsed.success) {
    const places = parsed.error.issues.slice(0, 3).map((issue) => issue.path.join("."));
    throw new ImportFaultError("not-a-package", `The part ${DESCRIPTOR} does not describe a data package (look at ${places.join(", ")}).`);
  }
  const { title, name, resources } = parsed.data;
  if (resources.length > MOST_TABLES)
    throw new ImportFaultError(
      "too-many-sheets",
      `The package has more than ${formatCount(MOST_TABLES)} tables. Drop the one you need by itself.`,
    );
  const tables = resources.map((resource, i): PackageTable => {
    const path = Array.isArray(resource.path) ? resource.path[0]! : resource.path;
    if (path !== undefined && (/^[a-z]+:|^\/|\\/i.test(path) || path.split("/").includes("..")))
      throw new ImportFaultError(
        "outside-the-package",
        `The table ${i + 1} of the package lies outside it. Put its file into the package.`,
      );
    if (path === undefined && resource.data === undefined)
      throw new ImportFaultError("not-a-package", `The table ${i + 1} of the package has neither a path nor data.`);
    const delimiter = Delimiter.safeParse(resource.dialect?.delimiter);
    const marks = resource.schema?.fields.map((f) => f.decimalChar);
    return {
      name: resource.name ?? path ?? `table ${i + 1}`,
      part: path ?? null,
      data: resource.data,
      hint: {
        delimiter: delimiter.success ? delimiter.data : null,
        decimal: marks?.includes(",") ? "," : null,
        encoding: resource.encoding ?? null,
        header: resource.dialect?.header !== false,
      },
      guarded: resource[GUARD] === true,
      codebook: resource.schema ? fromTableSchema(resource.schema) : [],
    };
  });
  return { title: title ?? name ?? "", tables };
}

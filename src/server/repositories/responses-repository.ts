import { and, asc, eq, inArray, lte, notInArray, sql } from "drizzle-orm";
import { z } from "zod";
import { CHUNK_ROWS, type ColumnChunk } from "@/files/column-builder";
import { ReadSummary } from "@/files/read-summary";
import { cellText, type ResponseColumn } from "@/study/model/response-column";
import type { Database } from "../database";
import { NotFoundError } from "../errors";
import { parseStored } from "../parse-stored";
import { changes, chunks, columns, datasets, studies } from "../schema";

/** A dataset as the page needs to know it. */
export interface DatasetFacts {
  id: string;
  fileName: string;
  rows: number;
  /** Column names in the order of the file. */
  columns: string[];
}

/** What the import of a table leaves behind besides its chunks. */
export interface ImportedTable {
  rows: number;
  chunkRows: number;
  columns: { name: string; /** JSON list of the column's distinct texts. */ texts: string; summary: ReadSummary }[];
  options: { delimiter: string; decimal: string };
}

const Texts = z.array(z.string());
const Options = z.looseObject({ delimiter: z.string(), decimal: z.string() });

/** What a statement that is prepared once is given for each of its rows: with thousands of columns, building it anew takes longer than SQLite does. */
const given = (name: string) => sql.placeholder(name);

/** Imported responses: written once, read by column or by block of cells. */
export const responsesRepository = (db: Database) => ({
  /** Begins an import; its chunks may follow. */
  begin(id: string, fileName: string): void {
    db.insert(datasets).values({ id, state: "reading", fileName, bytes: 0, sha256: "", rows: 0, delimiter: "", decimal: "" }).run();
  },

  addChunks(datasetId: string, added: Iterable<Omit<ColumnChunk, "first">>): void {
    const insert = db
      .insert(chunks)
      .values({ datasetId, position: given("position"), chunk: given("chunk"), values: given("values"), states: given("states") })
      .prepare();
    for (const { position, chunk, values, states } of added) insert.run({ position, chunk, values, states });
  },

  /** Writes a whole column of a dataset that has begun. */
  addColumn(datasetId: string, position: number, column: ResponseColumn): void {
    const pieces = Array.from({ length: Math.ceil(column.values.length / CHUNK_ROWS) }, (_, chunk) => {
      const [from, to] = [chunk * CHUNK_ROWS, (chunk + 1) * CHUNK_ROWS];
      return { position, chunk, values: column.values.slice(from, to), states: column.states.slice(from, to) };
    });
    this.addChunks(datasetId, pieces);
  },

  /** What was seen of some columns of an import, from a position on. */
  describeColumns(datasetId: string, first: number, described: ImportedTable["columns"]): void {
    const insert = db
      .insert(columns)
      .values({ datasetId, position: given("position"), name: given("name"), texts: given("texts"), summary: given("summary") })
      .prepare();
    described.forEach(({ name, texts, summary }, k) => insert.run({ position: first + k, name, texts, summary: JSON.stringify(summary) }));
  },

  /** Ends an import whose columns are described: the dataset is whole. */
  finish(datasetId: string, data: Omit<ImportedTable, "columns"> & { decimal?: string }, source: { bytes: number; sha256: string }): void {
    const { delimiter } = data.options;
    const decimal = data.decimal ?? data.options.decimal;
    db.update(datasets)
      .set({
        state: "ready",
        rows: data.rows,
        chunkRows: data.chunkRows,
        delimiter,
        decimal,
        options: JSON.stringify(data.options),
        ...source,
      })
      .where(eq(datasets.id, datasetId))
      .run();
  },

  /** Drops what came in of an import that failed, or a dataset that no study took. */
  abandon(datasetId: string): void {
    for (const key of lately.keys()) if (key.startsWith(`${datasetId} `)) lately.delete(key);
    db.delete(datasets).where(eq(datasets.id, datasetId)).run();
  },

  /** The same of one that may be large, some chunks at a time, so that others are served in between. */
  async abandonSlowly(datasetId: string): Promise<void> {
    const some = db
      .select({ row: sql`rowid` })
      .from(chunks)
      .where(eq(chunks.datasetId, datasetId))
      .limit(40);
    while (
      db
        .delete(chunks)
        .where(inArray(sql`rowid`, some))
        .run().changes > 0
    )
      await new Promise(setImmediate);
    this.abandon(datasetId);
  },

  /** Datasets that a study (or any) stands on, or that a recorded change names: undo may come back to them. */
  held(studyId?: string): string[] {
    const own = studyId === undefined ? undefined : eq(studies.id, studyId);
    const ofStudy = studyId === undefined ? undefined : eq(changes.studyId, studyId);
    const held = db.select({ id: studies.datasetId }).from(studies).where(own).all();
    const named = db
      .select({ from: changes.from, to: changes.to })
      .from(changes)
      .where(and(eq(changes.subject, "responses"), ofStudy))
      .all();
    const Named = z.object({ dataset: z.string() });
    const ids = named.flatMap(({ from, to }) =>
      [from, to].flatMap((json) => {
        const parsed = Named.safeParse(JSON.parse(json));
        return parsed.success ? [parsed.data.dataset] : [];
      }),
    );
    return [...held.map((s) => s.id), ...ids];
  },

  /** Drops a dataset that was read and never taken; any other stays. */
  abandonUnheld(datasetId: string): void {
    if (!this.held().includes(datasetId)) this.abandon(datasetId);
  },

  /** Drops what was read before a time and never taken. */
  sweep(before: Date): void {
    const old = lte(datasets.importedAt, before.toISOString().slice(0, 19).replace("T", " "));
    db.delete(datasets)
      .where(and(old, eq(datasets.state, "ready"), notInArray(datasets.id, [...this.held(), ""])))
      .run();
  },

  /** Drops imports that a crash left half done. Only for the server that has the house to itself, before it serves. */
  sweepReading(): void {
    db.delete(datasets).where(eq(datasets.state, "reading")).run();
  },

  /** @throws NotFoundError */
  facts(datasetId: string): DatasetFacts {
    const row = ready(db, datasetId);
    const names = db
      .select({ name: columns.name })
      .from(columns)
      .where(eq(columns.datasetId, datasetId))
      .orderBy(asc(columns.position))
      .all();
    return { id: datasetId, fileName: row.fileName, rows: row.rows, columns: names.map((c) => c.name) };
  },

  /** How a dataset's file was read. @throws NotFoundError */
  sourceOf(datasetId: string): { options: { delimiter: string; decimal: string } } {
    const { delimiter, decimal, options } = ready(db, datasetId);
    return { options: options === "" ? { delimiter, decimal } : parseStored(Options, options, { table: "datasets", id: datasetId }) };
  },

  /** What was seen of each column while it was read, in the order of the file. @throws NotFoundError */
  summaries(datasetId: string): { name: string; texts: string[]; summary: ReadSummary }[] {
    ready(db, datasetId);
    return db
      .select()
      .from(columns)
      .where(eq(columns.datasetId, datasetId))
      .orderBy(asc(columns.position))
      .all()
      .map((c) => ({
        name: c.name,
        texts: parseStored(Texts, c.texts, { table: "columns", id: datasetId }),
        summary: parseStored(ReadSummary, c.summary, { table: "columns", id: datasetId }),
      }));
  },

  /** Whole columns by name, in the order asked for. @throws NotFoundError */
  columns(datasetId: string, names: readonly string[]): ResponseColumn[] {
    const { rows, chunkRows, decimal } = ready(db, datasetId);
    return placed(db, datasetId, names).map(({ name, position, texts }) => {
      const values = new Float64Array(rows);
      const states = new Uint8Array(rows);
      const pieces = db
        .select()
        .from(chunks)
        .where(and(eq(chunks.datasetId, datasetId), eq(chunks.position, position)))
        .orderBy(asc(chunks.chunk))
        .all();
      for (const piece of pieces) {
        values.set(piece.values, piece.chunk * chunkRows);
        states.set(piece.states, piece.chunk * chunkRows);
      }
      return { name, values, states, texts, decimal: decimal === "," ? "," : "." };
    });
  },

  /**
   * Cells of some rows (from 0) of some columns as text, null where empty; a list of columns for each row. Of each chunk only
   * the stretch between the first and the last row asked for is read.
   * @throws NotFoundError
   */
  cells(datasetId: string, names: readonly string[], rows: readonly number[]): (string | null)[][] {
    const { rows: count, chunkRows } = ready(db, datasetId);
    const all = placed(db, datasetId, names);
    const block = rows.map(() => new Array<string | null>(names.length).fill(null));
    const byChunk = new Map<number, { row: number; at: number }[]>();
    rows.forEach((row, at) => {
      if (row >= count) return;
      const chunk = Math.floor(row / chunkRows);
      byChunk.set(chunk, [...(byChunk.get(chunk) ?? []), { row, at }]);
    });
    const across = new Map(all.map((column, at) => [column.position, at]));
    for (const [chunk, wanted] of byChunk) {
      const offsets = wanted.map(({ row }) => row - chunk * chunkRows);
      const from = offsets.reduce((least, o) => Math.min(least, o), Infinity);
      const length = offsets.reduce((most, o) => Math.max(most, o), 0) - from + 1;
      const pieces = db
        .select({
          position: chunks.position,
          values: sql<Buffer>`substr(${chunks.values}, ${from * 8 + 1}, ${length * 8})`,
          states: sql<Buffer>`substr(${chunks.states}, ${from + 1}, ${length})`,
        })
        .from(chunks)
        .where(and(eq(chunks.datasetId, datasetId), eq(chunks.chunk, chunk), inArray(chunks.position, [...across.keys()])))
        .all();
      for (const piece of pieces) {
        const at = across.get(piece.position)!;
        const column = {
          name: "",
          values: new Float64Array(new Uint8Array(piece.values).buffer),
          states: piece.states,
          texts: all[at]!.texts,
        };
        wanted.forEach((place, k) => (block[place.at]![at] = cellText(column, offsets[k]! - from)));
      }
    }
    return block;
  },
});

function ready(db: Database, datasetId: string) {
  const row = db
    .select()
    .from(datasets)
    .where(and(eq(datasets.id, datasetId), eq(datasets.state, "ready")))
    .get();
  if (!row) throw new NotFoundError({ what: "dataset", id: datasetId });
  return row;
}

/** Columns by name in the order asked for, with their texts. */
function placed(db: Database, datasetId: string, names: readonly string[]): { name: string; position: number; texts: string[] }[] {
  const found = new Map(
    db
      .select({ name: columns.name, position: columns.position })
      .from(columns)
      .where(and(eq(columns.datasetId, datasetId), inArray(columns.name, [...names])))
      .all()
      .map((c) => [c.name, c]),
  );
  return names.map((name) => {
    const column = found.get(name);
    if (!column) throw new NotFoundError({ what: "column", id: name });
    return { name, position: column.position, texts: textsOf(db, datasetId, column.position) };
  });
}

/** Texts of columns asked for lately: a column of respondent codes has as many as there are rows, and its cells come in many small requests. */
const lately = new Map<string, string[]>();
const MOST_LATELY = 400;

function textsOf(db: Database, datasetId: string, position: number): string[] {
  const key = `${datasetId} ${position}`;
  const known = lately.get(key);
  if (known) return known;
  const row = db
    .select({ texts: columns.texts })
    .from(columns)
    .where(and(eq(columns.datasetId, datasetId), eq(columns.position, position)))
    .get();
  const texts = parseStored(Texts, row!.texts, { table: "columns", id: datasetId });
  if (lately.size >= MOST_LATELY) lately.delete(lately.keys().next().value!);
  lately.set(key, texts);
  return texts;
}

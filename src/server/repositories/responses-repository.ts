import { and, asc, between, eq, inArray } from "drizzle-orm";
import { z } from "zod";
import { CHUNK_ROWS, type ColumnChunk } from "@/files/column-builder";
import type { DelimitedData } from "@/files/read-delimited";
import { cellText, type ResponseColumn } from "@/study/model/response-column";
import type { Database } from "../database";
import { NotFoundError } from "../errors";
import { parseStored } from "../parse-stored";
import { chunks, columns, datasets } from "../schema";

/** A dataset as the page needs to know it. */
export interface DatasetFacts {
  id: string;
  fileName: string;
  rows: number;
  /** Column names in the order of the file. */
  columns: string[];
}

const Texts = z.array(z.string());

/** Imported responses: written once, read by column or by block of cells. */
export const responsesRepository = (db: Database) => ({
  /** Begins an import; its chunks may follow. */
  begin(id: string, fileName: string): void {
    db.insert(datasets).values({ id, state: "reading", fileName, bytes: 0, sha256: "", rows: 0, delimiter: "", decimal: "" }).run();
  },

  addChunk(datasetId: string, chunk: ColumnChunk): void {
    db.insert(chunks)
      .values({ datasetId, ...chunk })
      .run();
  },

  /** Ends an import: the dataset is whole. To be called inside the transaction that makes it part of a study. */
  finish(datasetId: string, data: DelimitedData, source: { bytes: number; sha256: string }): void {
    data.columns.forEach((column, position) => {
      db.insert(columns)
        .values({
          datasetId,
          position,
          name: column.name,
          texts: JSON.stringify(column.texts),
          summary: JSON.stringify(column.summary),
        })
        .run();
    });
    const { delimiter, decimal } = data.format;
    db.update(datasets)
      .set({ state: "ready", rows: data.rows, delimiter, decimal, ...source })
      .where(eq(datasets.id, datasetId))
      .run();
  },

  /** Drops what came in of an import that failed. */
  abandon(datasetId: string): void {
    db.delete(datasets).where(eq(datasets.id, datasetId)).run();
  },

  /** @throws NotFoundError */
  facts(datasetId: string): DatasetFacts {
    const row = db
      .select()
      .from(datasets)
      .where(and(eq(datasets.id, datasetId), eq(datasets.state, "ready")))
      .get();
    if (!row) throw new NotFoundError({ what: "dataset", id: datasetId });
    const names = db
      .select({ name: columns.name })
      .from(columns)
      .where(eq(columns.datasetId, datasetId))
      .orderBy(asc(columns.position))
      .all();
    return { id: datasetId, fileName: row.fileName, rows: row.rows, columns: names.map((c) => c.name) };
  },

  /** Whole columns by name, in the order asked for. @throws NotFoundError */
  columns(datasetId: string, names: readonly string[]): ResponseColumn[] {
    const { rows } = this.facts(datasetId);
    const found = new Map(
      db
        .select()
        .from(columns)
        .where(and(eq(columns.datasetId, datasetId), inArray(columns.name, [...names])))
        .all()
        .map((c) => [c.name, c]),
    );
    return names.map((name) => {
      const column = found.get(name);
      if (!column) throw new NotFoundError({ what: "column", id: name });
      const values = new Float64Array(rows);
      const states = new Uint8Array(rows);
      const pieces = db
        .select()
        .from(chunks)
        .where(and(eq(chunks.datasetId, datasetId), eq(chunks.position, column.position)))
        .orderBy(asc(chunks.chunk))
        .all();
      for (const piece of pieces) {
        values.set(piece.values, piece.chunk * CHUNK_ROWS);
        states.set(piece.states, piece.chunk * CHUNK_ROWS);
      }
      return { name, values, states, texts: parseStored(Texts, column.texts, { table: "columns", id: datasetId }) };
    });
  },

  /** Cells of rows `from` … `from + count − 1` (from 0) as text, null where empty, columns in file order. @throws NotFoundError */
  cells(datasetId: string, from: number, count: number): (string | null)[][] {
    const { rows } = this.facts(datasetId);
    const to = Math.min(rows, from + count);
    const all = db.select().from(columns).where(eq(columns.datasetId, datasetId)).orderBy(asc(columns.position)).all();
    const block: (string | null)[][] = Array.from({ length: Math.max(0, to - from) }, () =>
      new Array<string | null>(all.length).fill(null),
    );
    if (block.length === 0) return block;
    const texts = all.map((c) => parseStored(Texts, c.texts, { table: "columns", id: datasetId }));
    const pieces = db
      .select()
      .from(chunks)
      .where(and(eq(chunks.datasetId, datasetId), between(chunks.chunk, Math.floor(from / CHUNK_ROWS), Math.floor((to - 1) / CHUNK_ROWS))))
      .all();
    for (const piece of pieces) {
      const offset = piece.chunk * CHUNK_ROWS;
      const column = { name: "", values: piece.values, states: piece.states, texts: texts[piece.position]! };
      for (let row = Math.max(from, offset); row < Math.min(to, offset + piece.values.length); row++) {
        block[row - from]![piece.position] = cellText(column, row - offset);
      }
    }
    return block;
  },
});

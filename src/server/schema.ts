import { sql } from "drizzle-orm";
import { customType, index, integer, primaryKey, sqliteTable, text, uniqueIndex } from "drizzle-orm/sqlite-core";

/** Float64 values as their bytes: exact, NaN and −0 included. */
const doubles = customType<{ data: Float64Array; driverData: Buffer }>({
  dataType: () => "blob",
  toDriver: (v) => Buffer.from(v.buffer, v.byteOffset, v.byteLength),
  fromDriver: (b) => new Float64Array(new Uint8Array(b).buffer), // a copy: a Buffer need not start on a multiple of 8
});
const bytes = customType<{ data: Uint8Array; driverData: Buffer }>({
  dataType: () => "blob",
  toDriver: (v) => Buffer.from(v.buffer, v.byteOffset, v.byteLength),
  fromDriver: (b) => new Uint8Array(b),
});

/** One row a study; the document is the Study of src/study/model. */
export const studies = sqliteTable("studies", {
  id: text().primaryKey(),
  name: text().notNull(),
  document: text().notNull(),
  /** Counts the edit sets; an edit must name the revision it was made on. */
  revision: integer().notNull(),
  datasetId: text().notNull(),
  createdAt: text()
    .notNull()
    .default(sql`(datetime('now'))`),
  updatedAt: text()
    .notNull()
    .default(sql`(datetime('now'))`),
  /** When it was deleted, as an ISO time: for a while it can be taken back. */
  deletedAt: text(),
  /** When it was put away, as an ISO time: it stands apart in the list, and all of it is kept. */
  putAwayAt: text(),
});

/** What changed from what to what; never rewritten. The trail and undo read it. */
export const changes = sqliteTable(
  "changes",
  {
    studyId: text()
      .notNull()
      .references(() => studies.id, { onDelete: "cascade" }),
    revision: integer().notNull(),
    position: integer().notNull(),
    at: text().notNull(),
    subject: text().notNull(),
    objectId: text().notNull(),
    from: text("from_json").notNull(),
    to: text("to_json").notNull(),
    listPosition: integer(),
  },
  (t) => [primaryKey({ columns: [t.studyId, t.revision, t.position] })],
);

/** One revision of a study: when it came about and how. Those from before this table was there are changes by a person. */
export const revisions = sqliteTable(
  "revisions",
  {
    studyId: text()
      .notNull()
      .references(() => studies.id, { onDelete: "cascade" }),
    revision: integer().notNull(),
    at: text().notNull(),
    how: text({ enum: ["edit", "undo", "redo", "restore", "withdrawal"] }).notNull(),
    of: integer(),
    /** Version of the objects in its changes: they are brought to today's when they are read. */
    version: integer().notNull().default(1),
    /** The page's own id of the edits: one that is sent again is known by it. */
    editId: text(),
  },
  (t) => [primaryKey({ columns: [t.studyId, t.revision] }), uniqueIndex("revisions_by_edit").on(t.studyId, t.editId)],
);

/** What the numbers of an object were when they were last looked at, and what they stood on. */
export const seenResults = sqliteTable(
  "seen_results",
  {
    studyId: text()
      .notNull()
      .references(() => studies.id, { onDelete: "cascade" }),
    kind: text().notNull(),
    objectId: text().notNull(),
    /** A fingerprint of everything the numbers depend on. */
    inputs: text().notNull(),
    /** JSON list of { name, value }: the few numbers that are told when they change. */
    numbers: text().notNull(),
    revision: integer().notNull(),
    at: text().notNull(),
  },
  (t) => [primaryKey({ columns: [t.studyId, t.kind, t.objectId] })],
);

/** Intervals from replicates, under a fingerprint of all they depend on. Any of them can be worked out anew. */
export const keptIntervals = sqliteTable(
  "kept_intervals",
  {
    studyId: text()
      .notNull()
      .references(() => studies.id, { onDelete: "cascade" }),
    key: text().notNull(),
    /** JSON ReplicateIntervals. */
    intervals: text().notNull(),
    at: text().notNull(),
  },
  (t) => [primaryKey({ columns: [t.studyId, t.key] })],
);

/** An object's whole result as a page has worked it out, drawn when its page is next opened, before any script of it runs. Any of them can be worked out anew. */
export const firstNumbers = sqliteTable(
  "first_numbers",
  {
    studyId: text()
      .notNull()
      .references(() => studies.id, { onDelete: "cascade" }),
    kind: text().notNull(),
    objectId: text().notNull(),
    /** A fingerprint of everything it depends on, and of the program that worked it out. */
    key: text().notNull(),
    result: text().notNull(),
  },
  (t) => [primaryKey({ columns: [t.studyId, t.kind, t.objectId] })],
);

/** One imported file. `reading` while its rows arrive; what is still `reading` at a start is swept away. */
export const datasets = sqliteTable("datasets", {
  id: text().primaryKey(),
  state: text({ enum: ["reading", "ready"] }).notNull(),
  fileName: text().notNull(),
  bytes: integer().notNull(),
  sha256: text().notNull(),
  rows: integer().notNull(),
  delimiter: text().notNull(),
  decimal: text().notNull(),
  /** JSON TableOptions the file was read with; "" for those read before there were any. */
  options: text().notNull().default(""),
  /** Rows each of its chunks holds. */
  chunkRows: integer().notNull().default(65_536),
  importedAt: text()
    .notNull()
    .default(sql`(datetime('now'))`),
});

export const columns = sqliteTable(
  "columns",
  {
    datasetId: text()
      .notNull()
      .references(() => datasets.id, { onDelete: "cascade" }),
    position: integer().notNull(),
    name: text().notNull(),
    /** JSON list of the column's distinct texts. */
    texts: text().notNull(),
    /** JSON ColumnSummary. */
    summary: text().notNull(),
  },
  (t) => [primaryKey({ columns: [t.datasetId, t.position] }), index("columns_by_name").on(t.datasetId, t.name)],
);

/** Up to 65,536 rows of one column. Never changed after import. */
export const chunks = sqliteTable(
  "chunks",
  {
    datasetId: text()
      .notNull()
      .references(() => datasets.id, { onDelete: "cascade" }),
    position: integer().notNull(),
    chunk: integer().notNull(),
    values: doubles("number_values").notNull(),
    states: bytes().notNull(),
  },
  (t) => [primaryKey({ columns: [t.datasetId, t.position, t.chunk] })],
);

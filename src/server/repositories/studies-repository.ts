import { and, asc, desc, eq, sql } from "drizzle-orm";
import type { Change } from "@/study/model/edit";
import { Study } from "@/study/model/study";
import type { Database } from "../database";
import { NotFoundError } from "../errors";
import { parseStored } from "../parse-stored";
import { changes, datasets, studies } from "../schema";

/** A study as saved. */
export interface SavedStudy {
  id: string;
  study: Study;
  revision: number;
  datasetId: string;
}

/** A line of the list of studies. */
export interface StudyLine {
  id: string;
  name: string;
  rows: number;
  updatedAt: string;
}

/** A change as the trail keeps it. */
export interface RecordedChange extends Omit<Change, "subject"> {
  revision: number;
  when: string;
  subject: Change["subject"] | "responses";
}

/** Study documents and the record of their changes. Only src/server/study-door.ts writes through it. */
export const studiesRepository = (db: Database) => ({
  list(): StudyLine[] {
    return db
      .select({ id: studies.id, name: studies.name, rows: datasets.rows, updatedAt: studies.updatedAt })
      .from(studies)
      .innerJoin(datasets, eq(datasets.id, studies.datasetId))
      .orderBy(desc(studies.updatedAt), asc(studies.name))
      .all();
  },

  /** @throws NotFoundError; StoredShapeError when the saved document is no longer a Study */
  load(id: string): SavedStudy {
    const row = db.select().from(studies).where(eq(studies.id, id)).get();
    if (!row) throw new NotFoundError({ what: "study", id });
    return { id, study: parseStored(Study, row.document, { table: "studies", id }), revision: row.revision, datasetId: row.datasetId };
  },

  insert({ id, study, revision, datasetId }: SavedStudy): void {
    db.insert(studies)
      .values({ id, name: study.name, document: JSON.stringify(study), revision, datasetId })
      .run();
  },

  update(id: string, study: Study, revision: number): void {
    db.update(studies)
      .set({ name: study.name, document: JSON.stringify(study), revision, updatedAt: sql`(datetime('now'))` })
      .where(eq(studies.id, id))
      .run();
  },

  record(id: string, revision: number, when: string, list: readonly Omit<RecordedChange, "revision" | "when">[]): void {
    list.forEach((change, position) => {
      db.insert(changes)
        .values({
          studyId: id,
          revision,
          position,
          at: when,
          subject: change.subject,
          objectId: change.id,
          from: JSON.stringify(change.from ?? null),
          to: JSON.stringify(change.to ?? null),
          listPosition: change.at,
        })
        .run();
    });
  },

  /** All changes of a study, oldest first. */
  changes(id: string): RecordedChange[] {
    return db
      .select()
      .from(changes)
      .where(and(eq(changes.studyId, id)))
      .orderBy(asc(changes.revision), asc(changes.position))
      .all()
      .map((row) => ({
        revision: row.revision,
        when: row.at,
        subject: row.subject as RecordedChange["subject"],
        id: row.objectId,
        from: JSON.parse(row.from) as unknown,
        to: JSON.parse(row.to) as unknown,
        at: row.listPosition,
      }));
  },
});

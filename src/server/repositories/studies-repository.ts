import { and, asc, desc, eq, gte, isNotNull, isNull, lte, max, ne, sql } from "drizzle-orm";
import { type Change } from "@/study/model/edit";
import type { RevisionKind, RevisionMark } from "@/study/model/history";
import { StoredStudy, type Study } from "@/study/model/study";
import { STUDY_VERSION, upgradeObject } from "@/study/model/upgrade";
import type { Database } from "../database";
import { NotFoundError } from "../errors";
import { parseStored } from "../parse-stored";
import { changes, datasets, revisions, studies } from "../schema";

/** A study as saved. */
export interface SavedStudy {
  id: string;
  study: Study;
  revision: number;
}

/** A line of the list of studies. */
export interface StudyLine {
  id: string;
  name: string;
  rows: number;
  updatedAt: string;
  putAway: boolean;
}

/** A study that was deleted and can be taken back. */
export interface DeletedLine {
  id: string;
  name: string;
  deletedAt: string;
}

/** A revision as the trail keeps it, with what it changed. */
export interface RecordedRevision extends RevisionMark {
  when: string;
  changes: Change[];
}

/** Study documents and the record of their changes. Only src/server/study-door.ts writes through it. */
export const studiesRepository = (db: Database) => ({
  list(): StudyLine[] {
    return db
      .select({
        id: studies.id,
        name: studies.name,
        rows: datasets.rows,
        updatedAt: sql<string>`replace(${studies.updatedAt}, ' ', 'T') || 'Z'`,
        putAway: sql<number>`${studies.putAwayAt} is not null`,
      })
      .from(studies)
      .innerJoin(datasets, eq(datasets.id, studies.datasetId))
      .where(isNull(studies.deletedAt))
      .orderBy(desc(studies.updatedAt), asc(studies.name))
      .all()
      .map((line) => ({ ...line, putAway: line.putAway === 1 }));
  },

  /** Puts a study away (a time), or among the others again (null). @throws NotFoundError */
  setPutAway(id: string, at: string | null): void {
    const { changes: count } = db
      .update(studies)
      .set({ putAwayAt: at })
      .where(and(eq(studies.id, id), isNull(studies.deletedAt)))
      .run();
    if (count === 0) throw new NotFoundError({ what: "study", id });
  },

  /** Other studies that stand on a dataset. */
  besides(id: string, dataset: string): { name: string }[] {
    return db
      .select({ name: studies.name })
      .from(studies)
      .where(and(eq(studies.datasetId, dataset), ne(studies.id, id)))
      .all();
  },

  /** Those that were deleted and can still be taken back, the last one first. */
  deleted(): DeletedLine[] {
    return db
      .select({ id: studies.id, name: studies.name, deletedAt: studies.deletedAt })
      .from(studies)
      .where(isNotNull(studies.deletedAt))
      .orderBy(desc(studies.deletedAt))
      .all() as DeletedLine[];
  },

  /** Deletes a study for a while (a time), or takes it back (null). @throws NotFoundError when it is not there, or not in that state */
  setDeleted(id: string, at: string | null): void {
    const state = at === null ? isNotNull(studies.deletedAt) : isNull(studies.deletedAt);
    const { changes: count } = db
      .update(studies)
      .set({ deletedAt: at })
      .where(and(eq(studies.id, id), state))
      .run();
    if (count === 0) throw new NotFoundError({ what: "study", id });
  },

  /** The study and all that was recorded of it; its responses are not its own. */
  remove(id: string): void {
    db.delete(studies).where(eq(studies.id, id)).run();
  },

  /** @throws NotFoundError, also of one that was deleted; StoredShapeError when the saved document is no longer a Study */
  load(id: string): SavedStudy {
    const row = db
      .select()
      .from(studies)
      .where(and(eq(studies.id, id), isNull(studies.deletedAt)))
      .get();
    if (!row) throw new NotFoundError({ what: "study", id });
    const study = parseStored(StoredStudy, row.document, { table: "studies", id });
    return { id, study: study.responses ? study : withResponses(db, study, row.datasetId), revision: row.revision };
  },

  insert({ id, study, revision }: SavedStudy): void {
    db.insert(studies)
      .values({ id, name: study.name, document: JSON.stringify(study), revision, datasetId: study.responses!.dataset })
      .run();
  },

  update(id: string, study: Study, revision: number): void {
    db.update(studies)
      .set({
        name: study.name,
        document: JSON.stringify(study),
        revision,
        datasetId: study.responses!.dataset,
        updatedAt: sql`(datetime('now'))`,
      })
      .where(eq(studies.id, id))
      .run();
  },

  /** The newest revision at which a respondent was erased; 0 when none was. Nothing before it can be gone back to. */
  withdrawnAt(id: string): number {
    const { newest } = db
      .select({ newest: max(revisions.revision) })
      .from(revisions)
      .where(and(eq(revisions.studyId, id), eq(revisions.how, "withdrawal")))
      .get() ?? { newest: null };
    return newest ?? 0;
  },

  /** The revision that records the edits with the page's id, when they were carried out before. */
  revisionOf(id: string, editId: string): number | null {
    const row = db
      .select({ revision: revisions.revision })
      .from(revisions)
      .where(and(eq(revisions.studyId, id), eq(revisions.editId, editId)))
      .get();
    return row?.revision ?? null;
  },

  record(id: string, mark: RevisionMark, when: string, list: readonly Change[], editId: string | null = null): void {
    const { revision, how, of } = mark;
    db.insert(revisions).values({ studyId: id, revision, at: when, how, of, version: STUDY_VERSION, editId }).run();
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

  /** How each revision came about, oldest first; one without a mark is a person's change. */
  marks(id: string): (RevisionMark & { version: number; when: string })[] {
    const { last } = db.select({ last: studies.revision }).from(studies).where(eq(studies.id, id)).get() ?? { last: 0 };
    const marked = new Map(
      db
        .select()
        .from(revisions)
        .where(eq(revisions.studyId, id))
        .all()
        .map((r) => [r.revision, r]),
    );
    return Array.from({ length: last }, (_, i) => {
      const mark = marked.get(i + 1);
      const how: RevisionKind = mark?.how ?? "edit";
      return { revision: i + 1, how, of: mark?.of ?? null, version: mark?.version ?? 1, when: mark?.at ?? "" };
    });
  },

  /** Revisions with their changes, newest first: those before `before` (or all), at most `most`. */
  revisions(id: string, { before, most }: { before: number | null; most: number }): RecordedRevision[] {
    const earlier = this.marks(id).filter((mark) => before === null || mark.revision < before);
    const marks = earlier.slice(Math.max(0, earlier.length - most));
    if (marks.length === 0) return [];
    const rows = db
      .select()
      .from(changes)
      .where(and(eq(changes.studyId, id), gte(changes.revision, marks[0]!.revision), lte(changes.revision, marks.at(-1)!.revision)))
      .orderBy(asc(changes.revision), asc(changes.position))
      .all();
    return marks
      .map(({ version, ...mark }) => {
        const own = rows.filter((row) => row.revision === mark.revision);
        const list = own.map((row) => ({
          subject: row.subject as Change["subject"],
          id: row.objectId,
          from: upgradeObject(row.subject, JSON.parse(row.from), version),
          to: upgradeObject(row.subject, JSON.parse(row.to), version),
          at: row.listPosition,
        }));
        return { ...mark, when: mark.when || (own[0]?.at ?? ""), changes: list };
      })
      .reverse();
  },
});

/** A document from before studies named their responses. */
function withResponses(db: Database, study: Study, dataset: string): Study {
  const row = db.select().from(datasets).where(eq(datasets.id, dataset)).get();
  if (!row) throw new NotFoundError({ what: "dataset", id: dataset });
  return { ...study, responses: { dataset, fileName: row.fileName, rows: row.rows } };
}

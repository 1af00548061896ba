import { applyEdits, type Edit, EditRefusedError, inverseEdit } from "@/study/model/edit";
import type { RevisionKind } from "@/study/model/history";
import type { Study } from "@/study/model/study";
import type { Database } from "./database";
import { NotFoundError, StaleRevisionError } from "./errors";
import { responsesRepository } from "./repositories/responses-repository";
import { type SavedStudy, studiesRepository } from "./repositories/studies-repository";

/** How a set of edits came about, for the trail. */
export interface Occasion {
  how: RevisionKind;
  /** The revision that is taken back, done again or gone back to. */
  of: number | null;
  /** The page's own id of the edits: sent again because the answer was lost, they are carried out once. */
  id?: string | null;
}

/**
 * The one door through which a study changes. What changed, from what to what, is recorded in the same transaction.
 * @param revision the revision the edits were made on
 * @returns the study as saved; its revision is the one that records the edits
 * @throws NotFoundError, StaleRevisionError, EditRefusedError; then nothing is changed
 */
export function editStudy(
  db: Database,
  id: string,
  revision: number,
  edits: readonly Edit[],
  occasion: Occasion = { how: "edit", of: null },
): SavedStudy {
  return db.transaction(
    (tx) => {
      const repository = studiesRepository(tx);
      const saved = repository.load(id);
      const before = occasion.id ? repository.revisionOf(id, occasion.id) : null;
      if (before !== null) return { ...saved, revision: before };
      if (saved.revision !== revision) throw new StaleRevisionError({ revision, saved: saved.revision });
      const { study, changes } = applyEdits(saved.study, edits);
      if (edits.some((edit) => edit.subject === "responses" || edit.subject === "variable")) requireResponses(tx, study);
      repository.update(id, study, revision + 1);
      const { how, of } = occasion;
      repository.record(id, { revision: revision + 1, how, of }, new Date().toISOString(), changes, occasion.id);
      return { ...saved, study, revision: revision + 1 };
    },
    { behavior: "immediate" },
  );
}

/** The responses a study would stand on must be here, as large as it says, with every column of its codebook. */
function requireResponses(db: Database, study: Study): void {
  const { dataset, rows } = study.responses!;
  const facts = responsesRepository(db).facts(dataset);
  const derived = new Set(study.derived.map((d) => d.name));
  const lacking = study.codebook.filter((v) => !derived.has(v.name) && !facts.columns.includes(v.name)).map((v) => v.name);
  if (facts.rows !== rows || lacking.length > 0)
    throw new EditRefusedError(`The responses do not fit the study: they lack ${lacking.slice(0, 5).join(", ") || "some rows"}.`);
}

/** A new study over a dataset that has just come in; its first recorded change is the import. */
export function openStudy(db: Database, id: string, study: Study): SavedStudy {
  const repository = studiesRepository(db);
  const saved = { id, study, revision: 1 };
  repository.insert(saved);
  repository.record(id, { revision: 1, how: "edit", of: null }, new Date().toISOString(), [
    { subject: "responses", id: "study", from: null, to: study.responses, at: null },
  ]);
  return saved;
}

/**
 * A study as it stood at an earlier revision: every change since, taken back, newest first.
 * @throws NotFoundError when the study never had that revision, or a respondent was erased after it
 */
export function studyAt(db: Database, id: string, revision: number): Study {
  const repository = studiesRepository(db);
  const { study, revision: now } = repository.load(id);
  if (revision < 1 || revision > now || revision < repository.withdrawnAt(id))
    throw new NotFoundError({ what: "revision", id: String(revision) });
  const since = repository.revisions(id, { before: null, most: now - revision });
  const edits = since.flatMap((r) => [...r.changes].reverse().map(inverseEdit));
  return edits.length === 0 ? study : applyEdits(study, edits).study;
}

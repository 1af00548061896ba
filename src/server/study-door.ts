import { applyEdits, type Edit } from "@/study/model/edit";
import type { Study } from "@/study/model/study";
import type { Database } from "./database";
import { StaleRevisionError } from "./errors";
import { type SavedStudy, studiesRepository } from "./repositories/studies-repository";

/**
 * The one door through which a study changes. What changed, from what to what, is recorded in the same transaction.
 * @param revision the revision the edits were made on
 * @throws NotFoundError, StaleRevisionError, EditRefusedError; then nothing is changed
 */
export function editStudy(db: Database, id: string, revision: number, edits: readonly Edit[]): SavedStudy {
  return db.transaction(
    (tx) => {
      const repository = studiesRepository(tx);
      const saved = repository.load(id);
      if (saved.revision !== revision) throw new StaleRevisionError({ revision, saved: saved.revision });
      const { study, changes } = applyEdits(saved.study, edits);
      repository.update(id, study, revision + 1);
      repository.record(id, revision + 1, new Date().toISOString(), changes);
      return { ...saved, study, revision: revision + 1 };
    },
    { behavior: "immediate" },
  );
}

/** A new study over a dataset that has just come in; its first recorded change is the import. */
export function openStudy(db: Database, id: string, study: Study, dataset: { id: string; fileName: string }): SavedStudy {
  const repository = studiesRepository(db);
  const saved = { id, study, revision: 1, datasetId: dataset.id };
  repository.insert(saved);
  repository.record(id, 1, new Date().toISOString(), [
    { subject: "responses", id: dataset.id, from: null, to: { fileName: dataset.fileName }, at: null },
  ]);
  return saved;
}

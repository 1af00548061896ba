import { randomUUID } from "node:crypto";
import type { Database } from "./database";
import { type SavedStudy, studiesRepository } from "./repositories/studies-repository";
import { editStudy, openStudy } from "./study-door";

/** Another name for a study, as a change like any other: on its trail, and to be taken back there. @throws NotFoundError, EditRefusedError */
export function renameStudy(db: Database, id: string, name: string): SavedStudy {
  const { revision } = studiesRepository(db).load(id);
  return editStudy(db, id, revision, [{ subject: "name", to: name }]);
}

/** The study once more, under a name of its own: all that was decided, on the same responses; its trail begins anew. @throws NotFoundError */
export function copyStudy(db: Database, id: string): SavedStudy {
  return db.transaction((tx) => {
    const repository = studiesRepository(tx);
    const { study } = repository.load(id);
    const taken = new Set(repository.list().map((line) => line.name));
    const stem = study.name.slice(0, 180);
    let name = `${stem} (copy)`;
    for (let k = 2; taken.has(name); k++) name = `${stem} (copy ${k})`;
    return openStudy(tx, randomUUID(), { ...study, name });
  });
}

/** A study stands apart in the list, or among the others again. @throws NotFoundError */
export function putStudyAway(db: Database, id: string, away: boolean, now = new Date()): void {
  studiesRepository(db).setPutAway(id, away ? now.toISOString() : null);
}

import { eq } from "drizzle-orm";
import { SeenResult } from "@/study/model/seen-result";
import type { Database } from "../database";
import { parseStored } from "../parse-stored";
import { seenResults } from "../schema";

/** What results were when they were last looked at: so that one that has changed since can say so. */
export const seenRepository = (db: Database) => ({
  list(studyId: string): SeenResult[] {
    return db
      .select()
      .from(seenResults)
      .where(eq(seenResults.studyId, studyId))
      .all()
      .map(({ kind, objectId, inputs, numbers, revision, at }) => ({
        kind,
        id: objectId,
        inputs,
        numbers: parseStored(SeenResult.shape.numbers, numbers, { table: "seen_results", id: studyId }),
        revision,
        at,
      }));
  },

  put(studyId: string, { kind, id, inputs, numbers, revision, at }: SeenResult): void {
    const row = { inputs, numbers: JSON.stringify(numbers), revision, at };
    db.insert(seenResults)
      .values({ studyId, kind, objectId: id, ...row })
      .onConflictDoUpdate({ target: [seenResults.studyId, seenResults.kind, seenResults.objectId], set: row })
      .run();
  },
});

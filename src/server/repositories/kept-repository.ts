import { and, desc, eq, notInArray } from "drizzle-orm";
import { KeptIntervals } from "@/study/model/replicate-intervals";
import type { Database } from "../database";
import { parseStored } from "../parse-stored";
import { keptIntervals } from "../schema";

/** So many are kept of a study: the newest. */
const MOST = 200;

/** Intervals that took replicates to work out, so that opening a study again shows them at once. They can always be worked out anew. */
export const keptRepository = (db: Database) => ({
  find(studyId: string, key: string): KeptIntervals | null {
    const row = db
      .select()
      .from(keptIntervals)
      .where(and(eq(keptIntervals.studyId, studyId), eq(keptIntervals.key, key)))
      .get();
    return row ? { key, intervals: parseStored(KeptIntervals.shape.intervals, row.intervals, { table: "kept_intervals", id: key }) } : null;
  },

  put(studyId: string, { key, intervals }: KeptIntervals): void {
    db.transaction((tx) => {
      const row = { intervals: JSON.stringify(intervals), at: new Date().toISOString() };
      tx.insert(keptIntervals)
        .values({ studyId, key, ...row })
        .onConflictDoUpdate({ target: [keptIntervals.studyId, keptIntervals.key], set: row })
        .run();
      const newest = tx
        .select({ key: keptIntervals.key })
        .from(keptIntervals)
        .where(eq(keptIntervals.studyId, studyId))
        .orderBy(desc(keptIntervals.at))
        .limit(MOST);
      tx.delete(keptIntervals)
        .where(and(eq(keptIntervals.studyId, studyId), notInArray(keptIntervals.key, newest)))
        .run();
    });
  },
});

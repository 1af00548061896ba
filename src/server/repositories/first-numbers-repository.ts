import { and, eq } from "drizzle-orm";
import type { FirstNumbers } from "@/study/model/first-numbers";
import type { Database } from "../database";
import { firstNumbers } from "../schema";

/** Results as pages have worked them out, one of each object: so that opening it again shows them at once. */
export const firstNumbersRepository = (db: Database) => ({
  /** Null: there are none, or they stand on other inputs or are another program's. */
  find(studyId: string, { kind, id, key }: Omit<FirstNumbers, "result">): string | null {
    const own = and(
      eq(firstNumbers.studyId, studyId),
      eq(firstNumbers.kind, kind),
      eq(firstNumbers.objectId, id),
      eq(firstNumbers.key, key),
    );
    return db.select({ result: firstNumbers.result }).from(firstNumbers).where(own).get()?.result ?? null;
  },

  put(studyId: string, { kind, id, key, result }: FirstNumbers): void {
    const row = { key, result };
    db.insert(firstNumbers)
      .values({ studyId, kind, objectId: id, ...row })
      .onConflictDoUpdate({ target: [firstNumbers.studyId, firstNumbers.kind, firstNumbers.objectId], set: row })
      .run();
  },
});

import type { Job } from "@/compute/protocol/jobs";
import type { Study } from "@/study/model/study";
import type { Ladder } from "@/study/model/ladder";
import { datasetOf } from "./dataset-facts";
import { fingerprint } from "./fingerprint";
import { jobOf } from "./job-of";

/** The program that works numbers out: a mark of all it is made of, written in when it is built; nothing where it was not. */
export const PROGRAM = process.env.BETA_STEP_SOURCES ?? "";

/** What a ladder's numbers are kept under for when it is next opened: by what they stand on, and by the program that works them out. */
export const firstKey = (job: Job, dataset: string, program: string): string => fingerprint(JSON.stringify([program, dataset, job]));

/** Where the numbers of a ladder of a study would be found. */
export function firstNumbersOf(study: Study, ladder: Ladder, program: string) {
  const dataset = datasetOf(study);
  return { kind: "ladder" as const, id: ladder.id, key: firstKey(jobOf("ladder", ladder, study, dataset).job, dataset.id, program) };
}

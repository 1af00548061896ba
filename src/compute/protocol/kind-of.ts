import type { Job } from "./jobs";

/** The kind whose analysis a job needs; null for none. */
export function kindOf(job: Job): string | null {
  if (job.kind === "limits") return null;
  return "of" in job ? job.of.kind : job.kind;
}

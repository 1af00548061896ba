import type { Ladder } from "@/study/model/ladder";
import type { Study } from "@/study/model/study";

/** Whether anything has been asked of a ladder yet. */
export function isAsked(study: Study, ladder: Ladder): boolean {
  const { probes, means, groups, shifts, residuals, added, importances, searches } = study;
  return [probes, means, groups, shifts, residuals, added, importances, searches].some((list) =>
    list.some((one) => one.ladder === ladder.id),
  );
}

/** The variables that can divide a ladder's respondents into groups. */
export function groupMakers(study: Study, ladder: Ladder): string[] {
  return study.codebook.filter((v) => v.kind === "category" && v.name !== ladder.outcome).map((v) => v.name);
}

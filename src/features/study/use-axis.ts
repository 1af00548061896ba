"use client";

import { axisTitle } from "@/study/report/level-title";
import { useStudy } from "./study-context";

/** The words of an axis: what it is, and what it counts. */
export function useAxis(): (name: string) => string {
  const { study, title } = useStudy();
  return (name) => axisTitle(study.codebook, title, name);
}

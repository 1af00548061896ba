"use client";

import { useStudy } from "./study-context";

/** The words of an axis: what it is, and what it counts. */
export function useAxis(): (name: string) => string {
  const { study, title } = useStudy();
  return (name) => {
    const unit = study.codebook.find((v) => v.name === name)?.unit ?? "";
    return unit === "" ? title(name) : `${title(name)} (${unit})`;
  };
}

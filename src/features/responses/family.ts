import type { Variable } from "@/study/model/variable";

/** The variables that share a variable's letters before a number and its kind: SC1 … SC6. Itself included. */
export function family(variable: Variable, codebook: readonly Variable[]): Variable[] {
  const stem = /^(.*?\D)[ _.-]?\d{1,3}$/.exec(variable.name)?.[1];
  if (stem === undefined) return [variable];
  return codebook.filter((v) => v.kind === variable.kind && /^(.*?\D)[ _.-]?\d{1,3}$/.exec(v.name)?.[1] === stem);
}

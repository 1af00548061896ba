import type { RSquaredChange } from "@/core/regression/r-squared-change";

/** A tested difference in R², under the names of docs/results.md. */
export function changeResults({ change, F, df, p }: Omit<RSquaredChange, "f2">) {
  return { dR2: change, F, df1: df[0], df2: df[1], p };
}

import type { Edit } from "@/study/model/edit";
import type { Variable } from "@/study/model/variable";

/** Declares a code as missing in the variables named. */
export function declareMissing(variables: readonly string[], codebook: readonly Variable[], code: string): Edit[] {
  return variables.flatMap((name): Edit[] => {
    const variable = codebook.find((v) => v.name === name);
    if (!variable || variable.missing.includes(code)) return [];
    return [{ subject: "variable", id: name, to: { ...variable, missing: [...variable.missing, code] } }];
  });
}

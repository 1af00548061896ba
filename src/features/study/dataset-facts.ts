import type { Study } from "@/study/model/study";

/** What the page needs to know of the responses without fetching them. */
export interface DatasetFacts {
  id: string;
  fileName: string;
  rows: number;
  /** The columns of the file, in codebook order; derived variables are none. */
  columns: string[];
}

/** The responses a study stands on. */
export function datasetOf({ responses, codebook, derived }: Study): DatasetFacts {
  if (!responses) throw new Error("a study on the page stands on responses");
  const worked = new Set(derived.map((d) => d.name));
  const columns = codebook.map((v) => v.name).filter((name) => !worked.has(name));
  return { id: responses.dataset, fileName: responses.fileName, rows: responses.rows, columns };
}

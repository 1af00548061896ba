import { type Analyses, loadAnalyses, resultsDocument } from "../analyse/results-document";
import type { WorkedOut } from "../kinds/kind";
import type { ResponseSource } from "../model/response-column";
import type { Study } from "../model/study";

let loaded: Promise<Analyses> | null = null;

/** The results document as foreign JSON, to be walked as it comes. */
export async function resultsOf(study: Study, responses: ResponseSource, worked?: ReadonlyMap<string, WorkedOut>): Promise<any> {
  return resultsDocument(study, responses, await (loaded ??= loadAnalyses()), worked);
}

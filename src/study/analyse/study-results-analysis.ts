import type { Analysis, WorkedOut } from "../kinds/kind";
import type { Study } from "../model/study";
import { loadAnalyses, type ResultsDocument, resultsDocument } from "./results-document";

/** A whole study, and what of it takes long and was worked out beforehand, by kind and id. */
export interface StudyResultsSpec {
  study: Study;
  worked: ReadonlyMap<string, WorkedOut>;
}

/** Every result of a study at full precision: what the compute command writes, worked out where the columns are. */
export async function studyResults(): Promise<Analysis<StudyResultsSpec, StudyResultsSpec, ResultsDocument>> {
  const analyses = await loadAnalyses();
  return { run: ({ study, worked }, desk) => resultsDocument(study, desk.responses, analyses, worked, (done, of) => desk.progress(done, of)) }; // prettier-ignore
}

import { z } from "zod";
import { browserPool, poolSize } from "@/compute/browser/browser-pool";
import { packed } from "@/compute/browser/pack";
import type { RunJob } from "@/compute/replicates";
import { workedOut } from "@/compute/worked-out";
import type { DatasetFacts } from "@/features/study/dataset-facts";
import type { StudyView } from "@/features/study/study-context";
import { manuscriptHtml } from "@/files/manuscript-html";
import { manuscriptMarkdown } from "@/files/manuscript-markdown";
import type { StudyFileKind } from "@/files/study-file/manifest";
import type { StudyFileParts } from "@/files/study-file/pack";
import { loadAnalyses } from "@/study/analyse/results-document";
import {
  resultsWithoutRespondents,
  shuffledCopy,
  studyWithoutRespondents,
  tellingTexts,
  wholeStudy,
} from "@/study/analyse/travelling-study";
import { RevisionKind } from "@/study/model/history";
import { cellText, type ResponseColumn } from "@/study/model/response-column";
import type { Study } from "@/study/model/study";
import { STUDY_VERSION } from "@/study/model/upgrade";
import { bareSource } from "@/study/report/document/source";
import { manuscriptOf } from "@/study/report/document/manuscript";
import { drawnFigures } from "./drawn-figures";
import type { Source } from "@/study/report/document/source";

/** What is worked at, for those who wait. */
export type Telling = (words: string, share: number | null) => void;

/**
 * A study as a file: everything, or a copy to be given away.
 * @param chosen of a shuffled copy: the columns that go along
 * @throws when the server does not answer, the signal's reason
 */
export async function studyFile(
  kind: StudyFileKind,
  house: Pick<StudyView, "study" | "dataset" | "columns" | "store" | "title">,
  source: Source,
  chosen: readonly string[],
  tell: Telling,
  signal: AbortSignal,
): Promise<{ blob: Blob; leftOut: string[] }> {
  const { study, dataset, title } = house;
  tell("Fetching the answers …", null);
  const all = await house.columns.columns(dataset.columns);
  signal.throwIfAborted();
  const copy = kind === "shuffled" ? shuffledCopy({ ...study, blocks: [] }, all, chosen, crypto.getRandomValues(new Uint32Array(1))[0]!) : null; // prettier-ignore
  const results = await allResults(copy?.study ?? study, copy?.columns ?? all, dataset, tell, signal);
  const travelling = kind === "whole" ? wholeStudy(study) : (copy?.study ?? studyWithoutRespondents(study, countsIn(all)));
  const manuscript = manuscriptOf(study.name, travelling.blocks, kind === "whole" ? source : bareSource(travelling, title));
  const parts: StudyFileParts = {
    kind,
    name: study.name,
    source: dataset.fileName,
    withdrawn: study.responses?.withdrawn ?? 0,
    made: new Date().toISOString(),
    study: travelling,
    codebook: kind === "without-respondents" ? travelling.codebook : rawCodebook(travelling),
    columns: kind === "without-respondents" ? [] : (copy?.columns ?? all),
    results: kind === "without-respondents" ? resultsWithoutRespondents(results as never, tellingTexts(study, countsIn(all))) : results,
    trail: kind === "whole" ? await wholeTrail(house.store.id) : null,
    text: manuscriptMarkdown(manuscript),
    page: manuscriptHtml(manuscript, kind === "whole" ? await drawnFigures(manuscript) : new Map()),
  };
  tell("Packing …", 0);
  const blob = await packed(parts, (done, of) => tell("Packing …", of === 0 ? null : done / of), signal);
  return { blob, leftOut: copy?.leftOut ?? [] };
}

/** Rows of the codebook that are columns of the file, in its order. */
function rawCodebook({ codebook, derived }: Study) {
  const made = new Set(derived.map((d) => d.name));
  return codebook.filter((v) => !made.has(v.name));
}

/** Every result of a study, worked out on the pool. */
async function allResults(study: Study, columns: readonly ResponseColumn[], dataset: DatasetFacts, tell: Telling, signal: AbortSignal) {
  // a copy has columns of its own under the same names
  const of = `${dataset.id} file ${crypto.randomUUID()}`;
  const rows = columns[0]?.values.length ?? 0;
  const run: RunJob = (job) => browserPool().run(job, of, columns, signal);
  try {
    tell("Working out what takes long …", null);
    const worked = await workedOut(study, { rows, file: columns.map(({ name }) => name) }, await loadAnalyses(), run, poolSize());
    const { codebook, scales, corrections, readings, derived, filters } = study;
    const context = { codebook, scales, corrections, readings, derived, filters };
    const told = (done: number, all: number) => tell("Working out every result …", all === 0 ? null : done / all);
    return await browserPool().run({ kind: "study-results", context, rows, spec: { study, worked } }, of, columns, signal, told);
  } finally {
    browserPool().forget(of);
  }
}

/** How many have each value of a column, as written. */
function countsIn(columns: readonly ResponseColumn[]) {
  return (name: string): ReadonlyMap<string, number> => {
    const counts = new Map<string, number>();
    const column = columns.find((one) => one.name === name);
    for (let row = 0; row < (column?.values.length ?? 0); row++) {
      const text = cellText(column!, row);
      if (text !== null) counts.set(text, (counts.get(text) ?? 0) + 1);
    }
    return counts;
  };
}

const Change = z.object({ subject: z.string(), id: z.string(), from: z.unknown(), to: z.unknown(), at: z.number().nullable() });
const Revision = z.object({ revision: z.int(), how: RevisionKind, of: z.int().nullable(), when: z.string(), changes: z.array(Change) });
const Page = z.object({ revisions: z.array(Revision) });
type Revision = z.infer<typeof Revision>;

/** The trail since the answers are those that travel, oldest first: what was before stood on others, or on somebody who withdrew. */
async function wholeTrail(id: string) {
  const all: Revision[] = [];
  for (let before: number | null = null; before === null || before > 1;) {
    const response = await fetch(`/api/studies/${id}/trail?most=200${before === null ? "" : `&before=${before}`}`);
    if (!response.ok) throw new Error("the trail could not be fetched");
    const { revisions } = Page.parse(await response.json());
    if (revisions.length === 0) break;
    all.push(...revisions);
    before = revisions.at(-1)!.revision;
  }
  const newest = all.findIndex(({ how, changes }) => how === "withdrawal" || changes.some(({ subject }) => subject === "responses"));
  const travelling = (newest < 0 ? all : all.slice(0, newest)).reverse();
  const places = new Map(travelling.map(({ revision }, place) => [revision, place]));
  const revisions = travelling.map(({ how, of, when, changes }) => ({
    how,
    of: of === null ? null : (places.get(of) ?? null),
    when,
    changes,
  }));
  return { version: STUDY_VERSION, revisions };
}

import type { AnyAnalysis, Desk, WorkedOut } from "../kinds/kind";
import { refKey } from "../kinds/kind";
import { ASKED, KEPT, keptKind, type StudyLists } from "../kinds/kinds";
import { objectsOf } from "../kinds/standing";
import type { ResponseSource } from "../model/response-column";
import type { Study } from "../model/study";
import { StudyColumns } from "../prepare/study-columns";
import { refusalOf } from "./refusal";
import { type Unmatched, unmatchedIn } from "./responses/unmatched";

/** Version of the names below: it goes up when one changes its meaning. They are documented in docs/results.md. */
export const RESULTS_VERSION = 1;

/** A part by the id of its object, in the list of its kind; of variables, those that are numbers. */
export type ResultsDocument = {
  format: "beta-step-results";
  version: number;
  study: string;
  /** Respondents who withdrew and were erased. */
  withdrawn: number;
  unmatched: Unmatched[];
} & {
  [Section in keyof StudyLists | "variables"]: Readonly<Record<string, unknown>>;
};

/** How everything is computed, by kind. */
export type Analyses = ReadonlyMap<string, AnyAnalysis>;

/** Loads those of everything that a study keeps. */
export async function loadAnalyses(): Promise<Analyses> {
  const kept = ASKED.filter(({ kind }) => KEPT.some((one) => one.kind === kind));
  return new Map(await Promise.all(kept.map(async (kind) => [kind.kind, (await kind.load()).analysis] as const)));
}

/**
 * Every object of a study that has results, at full precision, under stable names. Null: not available; the reason stands
 * in `notes` or `refusal`.
 * @param worked by kind and id: what takes long and was worked out beforehand
 * @param progress told how many objects of how many are done; may throw to stop it
 */
export function resultsDocument(
  study: Study,
  responses: ResponseSource,
  analyses: Analyses,
  worked: ReadonlyMap<string, WorkedOut> = new Map(),
  progress: (done: number, of: number) => void = () => {},
): ResultsDocument {
  const shelves = new Map<string, Map<string, unknown>>();
  const columns = new StudyColumns(study, responses);
  const desk: Desk = {
    study,
    responses,
    columns,
    rows: columns.rowsOfAnyColumn(), // a document that travels without its responses does not say
    objects: (kind) => objectsOf(study, keptKind(kind)),
    progress: () => {},
    shelf<T>(of: string) {
      const shelf = shelves.get(of) ?? new Map<string, unknown>();
      shelves.set(of, shelf);
      return shelf as Map<string, T>;
    },
  };
  const all = KEPT.reduce((sum, kind) => sum + (analyses.get(kind.kind)?.results ? objectsOf(study, kind).length : 0), 0);
  let done = 0;
  const sections = KEPT.flatMap((kind) => {
    const analysis = analyses.get(kind.kind);
    if (!analysis?.results) return [];
    const parts = objectsOf(study, kind).flatMap((object) => {
      progress(done++, all);
      const id = kind.idOf(object);
      const own = worked.get(refKey({ kind: kind.kind, id })) ?? {};
      const part = partOf(() => analysis.results!(object, desk, own));
      return part === undefined ? [] : [[id, part] as const];
    });
    return [[analysis.section ?? kind.list, Object.fromEntries(parts)] as const];
  });
  return {
    format: "beta-step-results",
    version: RESULTS_VERSION,
    study: study.name,
    withdrawn: study.responses?.withdrawn ?? 0,
    unmatched: unmatchedIn(study, desk.columns),
    ...Object.fromEntries(sections),
  } as ResultsDocument;
}

/** What an analysis did not refuse itself is refused here: one part, and the others are there. */
function partOf(work: () => unknown): unknown {
  try {
    return work();
  } catch (error) {
    return { status: "refused", refusal: refusalOf(error) };
  }
}

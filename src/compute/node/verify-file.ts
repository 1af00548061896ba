import { type OpenedStudyFile, openStudyFile, withdrawnOf } from "@/files/study-file/read-study-file";
import { ImportFaultError } from "@/files/reading/import-fault";
import { refitted, type RefittableResults } from "@/study/analyse/ladder-moments";
import { emptyColumn } from "@/study/model/response-column";
import { CallError, computeStudy, readData } from "./compute-file";

/** A number that is stored otherwise than it is worked out here. */
export interface Difference {
  readonly path: string;
  readonly stored: unknown;
  readonly found: unknown;
}

export interface Verified {
  readonly compared: number;
  readonly differ: readonly Difference[];
}

/** Two engines may round the last digits otherwise. */
const TOLERANCE = 1e-9;

/** Every number of two results, by where it stands; what only one of them has differs. @param tolerance relative */
export function differences(stored: unknown, found: unknown, tolerance = TOLERANCE): Verified {
  let compared = 0;
  const differ: Difference[] = [];
  const walk = (a: unknown, b: unknown, path: string): void => {
    if (typeof a === "number" && typeof b === "number") {
      compared++;
      const same = a === b || Math.abs(a - b) <= tolerance * Math.max(Math.abs(a), Math.abs(b), 1e-9);
      if (!same) differ.push({ path, stored: a, found: b });
    } else if (isTree(a) && isTree(b)) {
      for (const key of new Set([...Object.keys(a), ...Object.keys(b)])) walk(a[key], b[key], path === "" ? key : `${path}.${key}`);
    } else {
      if (typeof a === "number" || typeof b === "number" || isTree(a) || isTree(b)) compared++;
      if (a !== b && !(a == null && b == null)) differ.push({ path, stored: a, found: b });
    }
  };
  walk(stored, found, "");
  return { compared, differ };
}

const isTree = (value: unknown): value is Record<string, unknown> => value !== null && typeof value === "object";

/**
 * Works every stored number of a study file out again: from the answers, or without them from n, means, SDs and correlations.
 * @throws CallError when it is no study file, damaged, or of a newer version
 */
export async function verifyFile(file: string): Promise<Verified> {
  const opened = await open(file);
  if (opened.manifest.kind === "without-respondents") return fromMoments(opened);
  const { rows } = opened.manifest;
  const columns = rows === 0 ? withoutRows(opened) : (await readData(file, { decimal: opened.manifest.decimal })).columns;
  const study = {
    ...opened.study,
    responses: { dataset: "data", fileName: opened.manifest.source, rows, ...withdrawnOf(opened.manifest) },
  };
  // as it was written: what JSON does not hold (NaN, undefined) is null there
  const found = JSON.parse(JSON.stringify(await computeStudy(study, columns))) as unknown;
  return differences(await opened.results(), found);
}

async function open(file: string): Promise<OpenedStudyFile> {
  try {
    return await openStudyFile(file);
  } catch (error) {
    if (error instanceof ImportFaultError) throw new CallError(`${file}: ${error.message}`);
    throw error;
  }
}

/** The columns of a plan that has no answers yet. */
const withoutRows = ({ study }: OpenedStudyFile) => new Map(study.codebook.map(({ name }) => [name, emptyColumn(name, 0)]));

async function fromMoments({ results }: OpenedStudyFile): Promise<Verified> {
  const all = Object.entries(((await results())["ladders"] ?? {}) as Record<string, RefittableResults>).map(([id, ladder]) => ({
    id,
    ...refitted(ladder),
  }));
  return {
    compared: all.reduce((sum, one) => sum + one.compared, 0),
    differ: all.flatMap(({ id, differ }) => differ.map(({ of, stored, found }) => ({ path: `ladders.${id}.${of}`, stored, found }))),
  };
}

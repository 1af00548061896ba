import { randomUUID } from "node:crypto";
import { ImportFaultError } from "@/files/reading/import-fault";
import type { TableOptions } from "@/files/reading/table-options";
import { applyEdits, type Edit, EditRefusedError } from "@/study/model/edit";
import { correctionId } from "@/study/model/correction";
import { markOf, type ResponseColumn } from "@/study/model/response-column";
import type { Study } from "@/study/model/study";
import type { Variable } from "@/study/model/variable";
import { appendColumn, compareResponses, KeyNotUniqueError, matchRows, type Responses } from "@/study/prepare/compare-responses";
import type { AppendReport, StagedResponses } from "@/study/prepare/staged-responses";
import { correctionHolds } from "@/study/prepare/corrected-column";
import type { Database } from "./database";
import { describe, readResponses, type ReadResponses, type Watch } from "./import-responses";
import { responsesRepository } from "./repositories/responses-repository";
import { studiesRepository } from "./repositories/studies-repository";
import type { Upload } from "./uploads";

/**
 * Reads a file of further respondents and puts them under those of a study, in a dataset of their own. The study changes only
 * when the edits are carried out.
 * @throws ImportFaultError, NotFoundError; the signal's reason
 */
export async function stageAppend(
  db: Database,
  studyId: string,
  upload: Upload,
  options: TableOptions,
  watch: Watch = {},
): Promise<StagedResponses> {
  const { study } = studiesRepository(db).load(studyId);
  const read = await readResponses(db, upload, options, watch);
  const responses = responsesRepository(db);
  const [before, after] = [responsesOf(db, study.responses!.dataset), responsesOf(db, read.datasetId)];
  const names = [...before.names, ...after.names.filter((n) => !before.names.includes(n))];
  const dataset = randomUUID();
  // of a plan that had no answers yet, they are the first
  const fileName = before.rows === 0 ? upload.name : `${study.responses!.fileName} + ${upload.name}`.slice(0, 255);
  const rows = before.rows + after.rows;
  responses.begin(dataset, fileName);
  try {
    const columns = [];
    for (const [position, name] of names.entries()) {
      watch.signal?.throwIfAborted();
      const column = appendColumn(name, before.has(name), before.rows, after.has(name), after.rows);
      responses.addColumn(dataset, position, column);
      columns.push({ name, texts: JSON.stringify(column.texts), summary: summaryOf(column) });
      if (position % 8 === 7) await new Promise(setImmediate); // others are served in between
    }
    const edits = withNewVariables(study, read, before.names, {
      subject: "responses",
      to: { ...study.responses!, dataset, fileName, rows },
    });
    const report = appendReport(study, before, after);
    await describe(db, dataset, columns);
    const first = before.rows === 0 ? after : before;
    const decimal = markOf(first.column(first.names[0]!)); // what the study names is written as in the first file
    responses.finish(dataset, { rows, chunkRows: 65_536, options, decimal }, { bytes: upload.bytes, sha256: upload.sha256 });
    return { kind: "append", dataset, edits, report };
  } catch (error) {
    responses.abandon(dataset);
    throw error;
  } finally {
    responses.abandon(read.datasetId);
  }
}

/**
 * Reads a corrected file that would replace a study's responses and compares the two. Corrections by hand, and respondents
 * left out by hand, follow their respondents when these are matched by a code.
 * @param key a variable that tells respondents apart; null: row by row
 * @throws ImportFaultError, NotFoundError; the signal's reason
 */
export async function stageReplace(
  db: Database,
  studyId: string,
  upload: Upload,
  options: TableOptions,
  key: string | null,
  watch: Watch = {},
): Promise<StagedResponses> {
  const { study } = studiesRepository(db).load(studyId);
  const read = await readResponses(db, upload, options, watch);
  try {
    const [before, after] = [responsesOf(db, study.responses!.dataset), responsesOf(db, read.datasetId)];
    if (key !== null && !after.names.includes(key))
      throw new ImportFaultError("no-such-key", `The file has no column "${key}" to match respondents by.`);
    const matched = matchRows(before, after, key);
    const differences = compareResponses(before, after, matched, key);
    const rowNow = new Map<number, number>();
    matched.forEach((old, row) => old >= 0 && rowNow.set(old + 1, row + 1));
    const moved = key === null ? [] : [...movedCorrections(study, rowNow), ...movedFilters(study, rowNow)];
    const gone = differences.columnsMissing.map((name): Edit => ({ subject: "variable", id: name, to: null }));
    const take: Edit = {
      subject: "responses",
      to: { ...study.responses!, dataset: read.datasetId, fileName: upload.name, rows: after.rows },
    };
    const edits = [...gone, ...moved, ...withNewVariables(study, read, before.names, take)];
    const changed = applyEdits(study, edits).study; // a column that is used and lost is refused here, by name
    const correctionsIdle = changed.corrections.filter((c) => !correctionHolds(after.column(c.variable), c)).length;
    return { kind: "replace", dataset: read.datasetId, edits, differences, correctionsIdle };
  } catch (error) {
    responsesRepository(db).abandon(read.datasetId);
    if (error instanceof KeyNotUniqueError) {
      const where = error.details.which === "before" ? "the responses of the study" : "the new file";
      throw new ImportFaultError(
        "key-not-unique",
        `"${error.details.key}" does not tell respondents apart: in ${where} row ${error.details.row} has no value or one that was there before. Match row by row, or by another variable.`,
      );
    }
    if (error instanceof EditRefusedError)
      throw new ImportFaultError("columns-missing", `${error.message} The new file must have these columns.`);
    throw error;
  }
}

interface StoredResponses extends Responses {
  has: (name: string) => ResponseColumn | null;
}

function responsesOf(db: Database, dataset: string): StoredResponses {
  const repository = responsesRepository(db);
  const facts = repository.facts(dataset);
  const column = (name: string) => repository.columns(dataset, [name])[0]!;
  return { rows: facts.rows, names: facts.columns, column, has: (name) => (facts.columns.includes(name) ? column(name) : null) };
}

/** The edit that takes the responses, before it a codebook row for each column that is new, after the columns already there. */
function withNewVariables(study: Study, read: ReadResponses, known: readonly string[], take: Edit): Edit[] {
  const added = read.codebook.filter((v) => !known.includes(v.name));
  const taken = added.filter((v) => study.derived.some((d) => d.name === v.name) || study.scales.some((s) => s.id === v.name));
  if (taken.length > 0)
    throw new ImportFaultError(
      "name-taken",
      `The file has a new column "${taken[0]!.name}", but a derived variable or scale has that name already. Rename one of them.`,
    );
  return [...added.map((to, i): Edit => ({ subject: "variable", id: to.name, to, at: known.length + i })), take];
}

/** Corrections by hand on the rows their respondents now have. */
export function movedCorrections(study: Study, rowNow: ReadonlyMap<number, number>): Edit[] {
  const moving = study.corrections.filter((c) => rowNow.get(c.row) !== c.row);
  const gone = moving.map((c): Edit => ({ subject: "correction", id: correctionId(c), to: null }));
  const back = moving.flatMap((c): Edit[] => {
    const row = rowNow.get(c.row);
    return row === undefined ? [] : [{ subject: "correction", id: correctionId({ ...c, row }), to: { ...c, row } }];
  });
  return [...gone, ...back];
}

/** The same of respondents left out by hand. */
export function movedFilters(study: Study, rowNow: ReadonlyMap<number, number>): Edit[] {
  return study.filters.flatMap((filter): Edit[] => {
    if (!filter.conditions.some((c) => c.kind === "not-rows")) return [];
    const conditions = filter.conditions.map((c) =>
      c.kind === "not-rows" ? { ...c, rows: c.rows.flatMap((row) => rowNow.get(row) ?? []).sort((a, b) => a - b) } : c,
    );
    return [{ subject: "filter", id: filter.id, to: { ...filter, conditions } }];
  });
}

function appendReport(study: Study, before: StoredResponses, after: StoredResponses): AppendReport {
  const plain = (name: string) => name.toLowerCase().replace(/[\s_.-]/g, "");
  const onlyNow = after.names.filter((n) => !before.names.includes(n));
  const onlyBefore = before.names.filter((n) => !after.names.includes(n));
  const shared = before.names.filter((n) => after.names.includes(n));
  const texts = (column: ResponseColumn) => new Set(column.texts);
  const codes = study.codebook.filter((v) => v.kind === "code" && shared.includes(v.name));
  return {
    rowsBefore: before.rows,
    rowsAdded: after.rows,
    columnsOnlyBefore: onlyBefore,
    columnsOnlyNow: onlyNow,
    nearNames: onlyNow.flatMap((found) => onlyBefore.filter((known) => plain(known) === plain(found)).map((known) => ({ known, found }))),
    wordsNow: shared.filter((name) => {
      const kind: Variable["kind"] | undefined = study.codebook.find((v) => v.name === name)?.kind;
      return (kind === "item" || kind === "number") && after.column(name).states.includes(2);
    }),
    alreadyThere: codes.flatMap(({ name }) => {
      const [old, now] = [before.column(name), after.column(name)];
      const words = texts(old);
      const numbers = new Set(old.values.filter((_, row) => old.states[row] === 0));
      const count = now.values.reduce(
        (sum, value, row) =>
          sum + (now.states[row] === 2 ? (words.has(now.texts[value]!) ? 1 : 0) : now.states[row] === 0 && numbers.has(value) ? 1 : 0),
        0,
      );
      return count > 0 ? [{ variable: name, count }] : [];
    }),
  };
}

/** What a column that was put together holds, as it would have been seen while reading. */
export function summaryOf({ values, states }: ResponseColumn) {
  const counts = new Map<number, number>();
  let [numbers, empties, words, low, high, wholeNumbers] = [0, 0, 0, Infinity, -Infinity, true];
  for (let row = 0; row < values.length; row++) {
    const value = values[row]!;
    if (states[row] === 1) empties++;
    else if (states[row] === 2) words++;
    else {
      numbers++;
      low = Math.min(low, value);
      high = Math.max(high, value);
      wholeNumbers &&= Number.isInteger(value);
      if (counts.size <= 50) counts.set(value, (counts.get(value) ?? 0) + 1);
    }
  }
  const numberCounts = counts.size > 50 ? null : [...counts].map(([value, count]) => ({ value, count })).sort((a, b) => a.value - b.value);
  return {
    numbers,
    empties,
    words,
    low: numbers ? low : null,
    high: numbers ? high : null,
    wholeNumbers: numbers > 0 && wholeNumbers,
    running: false, // told of a file as it is read, for its first codebook
    numberCounts,
  };
}

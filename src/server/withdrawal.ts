import { randomUUID } from "node:crypto";
import { and, eq, inArray, sql } from "drizzle-orm";
import { applyEdits, type Edit } from "@/study/model/edit";
import { cellText, type ResponseColumn } from "@/study/model/response-column";
import { answerKey } from "@/study/model/reading";
import type { Study } from "@/study/model/study";
import { dataFolder } from "./data-folder";
import { type Database, writeAnew } from "./database";
import { NotFoundError, StaleRevisionError } from "./errors";
import { movedCorrections, movedFilters, summaryOf } from "./further-responses";
import { describe } from "./import-responses";
import { responsesRepository } from "./repositories/responses-repository";
import { type SavedStudy, studiesRepository } from "./repositories/studies-repository";
import { changes, firstNumbers, keptIntervals } from "./schema";
import { eraseBesides, eraseUploads, sumsOf } from "./study-end";

/** Kinds whose recorded changes can hold an answer, or say which row somebody has. */
const TELLING = ["responses", "correction", "filter", "reading"];

/**
 * Erases one respondent of a study for good: the answers go from the responses, the corrections and the trail, from backups, the log, free pages and uploads.
 * Study and trail say that one withdrew, not who. What was changed before can then not be taken back any more: it would bring the answers back.
 * @param revision the revision the page showed; @param row the respondent's row, from 1
 * @throws NotFoundError, StaleRevisionError, EditRefusedError (something stands on a level that only this respondent has); then nothing is changed
 */
export async function withdrawRespondent(
  db: Database,
  id: string,
  revision: number,
  row: number,
  folder = dataFolder(),
): Promise<SavedStudy> {
  const { study } = studiesRepository(db).load(id);
  const before = study.responses!;
  if (row < 1 || row > before.rows) throw new NotFoundError({ what: "respondent", id: `row ${row}` });
  const responses = responsesRepository(db);
  const sums = sumsOf(db, responses.held(id));
  const dataset = randomUUID();
  responses.begin(dataset, before.fileName);
  try {
    const { own, left } = await copyWithout(db, before.dataset, dataset, row);
    const saved = db.transaction(
      (tx) => {
        const repository = studiesRepository(tx);
        const now = repository.load(id);
        if (now.revision !== revision || now.study.responses!.dataset !== before.dataset)
          throw new StaleRevisionError({ revision, saved: now.revision });
        const rows = before.rows - 1;
        const rowNow = new Map(Array.from({ length: before.rows }, (_, k) => [k + 1, k + 1 < row ? k + 1 : k] as const));
        rowNow.delete(row);
        const take: Edit = { subject: "responses", to: { ...before, dataset, rows, withdrawn: (before.withdrawn ?? 0) + 1 } };
        const moved = [...movedCorrections(now.study, rowNow), ...movedFilters(now.study, rowNow)];
        const next = applyEdits(now.study, [
          ...withoutLevels(now.study, own),
          ...withoutReadWords(now.study, own, left),
          ...moved,
          take,
        ]).study;
        repository.update(id, next, revision + 1);
        repository.record(id, { revision: revision + 1, how: "withdrawal", of: null }, new Date().toISOString(), []);
        const stood = responsesRepository(tx).held(id);
        tx.delete(changes)
          .where(and(eq(changes.studyId, id), inArray(changes.subject, TELLING)))
          .run();
        forgetWords(tx, id, own);
        for (const worked of [keptIntervals, firstNumbers]) tx.delete(worked).where(eq(worked.studyId, id)).run();
        const still = new Set(responsesRepository(tx).held());
        for (const old of stood) if (!still.has(old)) responsesRepository(tx).abandon(old);
        return { id, study: next, revision: revision + 1 };
      },
      { behavior: "immediate" },
    );
    writeAnew(db);
    eraseBesides(id, folder);
    await eraseUploads(sums, folder);
    return saved;
  } catch (error) {
    await responses.abandonSlowly(dataset);
    throw error;
  }
}

/** The responses without one row, as a dataset of their own; texts that only this respondent gave are not among its texts. */
async function copyWithout(
  db: Database,
  from: string,
  to: string,
  row: number,
): Promise<{ own: OwnAnswer[]; left: ReadonlyMap<string, ReadonlySet<string>> }> {
  const responses = responsesRepository(db);
  const { rows, columns: names } = responses.facts(from);
  const described = [];
  const own: OwnAnswer[] = [];
  const left = new Map<string, ReadonlySet<string>>();
  for (const [position, name] of names.entries()) {
    const whole = responses.columns(from, [name])[0]!;
    const column = withoutRow(whole, row - 1);
    const answer = cellText(whole, row - 1);
    if (answer !== null && !column.values.some((_, k) => cellText(column, k) === answer)) own.push({ variable: name, answer });
    left.set(name, new Set(column.texts.map(answerKey)));
    responses.addColumn(to, position, column);
    described.push({ name, texts: JSON.stringify(column.texts), summary: summaryOf(column) });
    await new Promise(setImmediate); // others are served in between
  }
  await describe(db, to, described);
  const source = responses.sourceOf(from);
  responses.finish(to, { rows: rows - 1, chunkRows: 65_536, options: source.options }, { bytes: 0, sha256: "" });
  return { own, left };
}

/** An answer that no other respondent gave. */
interface OwnAnswer {
  variable: string;
  answer: string;
}

/** The codebook without levels that only this respondent's answers were. */
function withoutLevels(study: Study, own: readonly OwnAnswer[]): Edit[] {
  return study.codebook.flatMap((variable): Edit[] => {
    const gone = own.find((one) => one.variable === variable.name);
    const levels = variable.levels.filter((level) => level.value !== gone?.answer);
    return levels.length === variable.levels.length ? [] : [{ subject: "variable", id: variable.name, to: { ...variable, levels } }];
  });
}

/**
 * Words that only this respondent gave are in no reading, label or code for a missing answer any more: others of the same question may have given them.
 * @param left what each column still holds, by key
 */
function withoutReadWords(study: Study, own: readonly OwnAnswer[], left: ReadonlyMap<string, ReadonlySet<string>>): Edit[] {
  return study.readings.flatMap((reading): Edit[] => {
    const keys = new Set(own.filter((one) => reading.variables.includes(one.variable)).map((one) => answerKey(one.answer)));
    const gone = new Set([...keys].filter((key) => reading.variables.every((name) => !left.get(name)?.has(key))));
    if (gone.size === 0) return [];
    const variables = study.codebook.flatMap((v): Edit[] => {
      if (!reading.variables.includes(v.name)) return [];
      const to = {
        ...v,
        missing: v.missing.filter((code) => !gone.has(answerKey(code))),
        levels: v.levels.filter((level) => !gone.has(answerKey(level.label)) && !gone.has(answerKey(level.value))),
      };
      return [{ subject: "variable", id: v.name, to }];
    });
    if (reading.rule.kind !== "words") return variables;
    const values = reading.rule.values.filter((one) => !gone.has(answerKey(one.written)));
    const to = values.length === 0 ? null : { ...reading, rule: { ...reading.rule, values } };
    return [...variables, { subject: "reading", id: reading.id, to }];
  });
}

/** Takes recorded changes away that repeat what only this respondent said; numbers and single letters are everybody's. */
function forgetWords(db: Database, study: string, own: readonly OwnAnswer[]): void {
  const words = own.map((one) => JSON.stringify(one.answer).slice(1, -1)).filter((word) => word.length > 2 && Number.isNaN(Number(word)));
  for (const word of words)
    db.delete(changes)
      .where(and(eq(changes.studyId, study), sql`(instr(${changes.from}, ${word}) > 0 or instr(${changes.to}, ${word}) > 0)`))
      .run();
}

/** A column without one row, from 0. */
function withoutRow(column: ResponseColumn, row: number): ResponseColumn {
  const values = new Float64Array(column.values.length - 1);
  values.set(column.values.subarray(0, row));
  values.set(column.values.subarray(row + 1), row);
  const states = new Uint8Array(values.length);
  states.set(column.states.subarray(0, row));
  states.set(column.states.subarray(row + 1), row);
  const codes = new Map<number, number>();
  values.forEach((value, k) => {
    if (states[k] !== 2) return;
    const code = codes.get(value) ?? codes.size;
    codes.set(value, code);
    values[k] = code;
  });
  return { ...column, values, states, texts: [...codes.keys()].map((code) => column.texts[code]!) };
}

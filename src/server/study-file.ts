import { randomUUID } from "node:crypto";
import { ImportFaultError } from "@/files/reading/import-fault";
import { engineWords, openStudyFile, type OpenedStudyFile, withdrawnOf } from "@/files/study-file/read-study-file";
import { refitted, type RefittableResults } from "@/study/analyse/ladder-moments";
import { Study, type StudyResponses } from "@/study/model/study";
import { upgradeObject } from "@/study/model/upgrade";
import { counted, formatCount } from "@/study/report/format-number";
import type { Database } from "./database";
import { withoutAnswers } from "./begin-plan";
import { readResponses, type Watch } from "./import-responses";
import { understandUpload } from "./reader/reader";
import { responsesRepository } from "./repositories/responses-repository";
import { type SavedStudy, studiesRepository } from "./repositories/studies-repository";
import type { Upload } from "./uploads";

/** A study file as it is shown before it is opened. */
export interface StudyFileFacts {
  name: string;
  /** What it holds, and what was found when its numbers were held against one another. */
  said: string[];
}

/** Looks at a study file without keeping anything. @throws ImportFaultError when it is damaged, foreign or newer, or its numbers do not agree */
export async function studyFileFacts(path: string): Promise<StudyFileFacts> {
  const opened = await openStudyFile(path);
  const { manifest, study, trail } = opened;
  const what = {
    whole: `${counted(manifest.rows, "respondent")} with all answers, and the trail (${counted(trail?.revisions.length ?? 0, "change")})`,
    shuffled: `${counted(manifest.rows, "respondent")} in another order under other codes, with ${counted(study.codebook.length, "variable")} that ${study.codebook.length === 1 ? "was" : "were"} chosen`,
    "without-respondents": "no respondent: codebook, definitions, results and text",
  }[manifest.kind];
  return {
    name: manifest.name,
    said: [
      `A study file of ${manifest.made.slice(0, 10)}. It holds ${what}.`,
      `Every part is as it was packed (${formatCount(Object.keys(manifest.parts).length)} checksums).${engineWords(manifest)}`,
      ...(manifest.kind === "without-respondents" ? [await refitWords(opened)] : []),
    ],
  };
}

/** Without rows the ladders are fitted again from n, means, SDs and correlations. @throws ImportFaultError when that gives other numbers */
async function refitWords({ results }: OpenedStudyFile): Promise<string> {
  const ladders = Object.entries(((await results())["ladders"] ?? {}) as Record<string, RefittableResults>);
  const all = ladders.map(([id, ladder]) => ({ id, ...refittedOr(ladder) }));
  const bad = all.find(({ differ }) => differ.length > 0);
  if (bad)
    throw new ImportFaultError(
      "numbers-disagree",
      `The numbers in the file do not agree: fitted again from its means, SDs and correlations, ${bad.differ[0]!.of} of the ladder "${bad.id}" is another. Nothing was kept. Ask for the file again.`,
    );
  const compared = all.reduce((sum, one) => sum + one.compared, 0);
  if (compared === 0) return "It holds no ladder that could be fitted again.";
  return `${counted(compared, "number")} (b, SE, β, R², ΔR²) of ${counted(ladders.length, "ladder")} were worked out again from n, means, SDs and correlations, and agree.`;
}

/** What is no moments of a ladder at all differs. */
function refittedOr(ladder: RefittableResults): ReturnType<typeof refitted> {
  try {
    return refitted(ladder);
  } catch {
    return { compared: 0, differ: [{ of: "a fit", stored: NaN, found: NaN }] };
  }
}

/**
 * A study file becomes a study of this house: the same document, answers and trail, whole or not at all.
 * @throws ImportFaultError; the signal's reason
 */
export async function takeStudyFile(db: Database, upload: Upload, watch: Watch = {}): Promise<SavedStudy> {
  const opened = await openStudyFile(upload.path);
  const { manifest, study } = opened;
  if (manifest.kind === "without-respondents") {
    await refitWords(opened);
    return keep(db, opened, await withoutAnswers(db, study.codebook, "shared without respondents"));
  }
  const made = new Set(study.derived.map((d) => d.name));
  const raw = study.codebook.filter((v) => !made.has(v.name));
  // a plan has no answers yet: there is nothing to be read
  if (manifest.rows === 0) return keep(db, opened, await withoutAnswers(db, raw, manifest.source));
  const understood = await understandUpload(upload.path);
  if (understood.fault) throw new ImportFaultError(understood.fault.code, understood.fault.message);
  const read = await readResponses(
    db,
    { ...upload, name: `${manifest.name}.zip` },
    { ...understood.options, decimal: manifest.decimal },
    watch,
  );
  const there = new Set(responsesRepository(db).facts(read.datasetId).columns);
  const lacking = raw.filter((v) => !there.has(v.name)).map((v) => v.name);
  if (lacking.length > 0 || read.rows !== manifest.rows) {
    await responsesRepository(db).abandonSlowly(read.datasetId);
    throw new ImportFaultError(
      "damaged-file",
      `The answers in it do not fit its study: they lack ${lacking.slice(0, 5).join(", ") || "some rows"}. Nothing was kept.`,
    );
  }
  return keep(db, opened, { dataset: read.datasetId, fileName: manifest.source, rows: read.rows, ...withdrawnOf(manifest) });
}

/** The study over the answers that came with it, under an id of this house, and its trail: revision 1 is its coming in. */
function keep(db: Database, { study, trail }: OpenedStudyFile, responses: StudyResponses): SavedStudy {
  const whole = Study.parse({ ...study, responses });
  return db.transaction((tx) => {
    const repository = studiesRepository(tx);
    const revisions = trail?.revisions ?? [];
    const saved = { id: randomUUID(), study: whole, revision: 1 + revisions.length };
    repository.insert(saved);
    repository.record(saved.id, { revision: 1, how: "edit", of: null }, new Date().toISOString(), [
      { subject: "responses", id: "study", from: null, to: responses, at: null },
    ]);
    revisions.forEach(({ how, of, when, changes }, k) => {
      const list = changes.map((change) => ({
        subject: change.subject as "name",
        id: change.id,
        from: upgradeObject(change.subject, change.from, trail!.version),
        to: upgradeObject(change.subject, change.to, trail!.version),
        at: change.at,
      }));
      repository.record(saved.id, { revision: k + 2, how, of: of === null ? null : of + 2 }, when, list);
    });
    return saved;
  });
}

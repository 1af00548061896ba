import { createHash } from "node:crypto";
import { z } from "zod";
import { RevisionKind } from "@/study/model/history";
import { StoredStudy, type Study } from "@/study/model/study";
import { NewerDocumentError } from "@/study/model/upgrade";
import { ImportFaultError } from "../reading/import-fault";
import { ZipFile } from "../reading/zip-file";
import { ENGINE, Manifest, PARTS, STUDY_FILE_VERSION } from "./manifest";

/** The trail as it travels: oldest first. */
export const TravellingTrail = z.strictObject({
  version: z.int().min(1),
  revisions: z
    .array(
      z.strictObject({
        how: RevisionKind,
        /** Place in this list, from 0, of the one it takes back or does again; null: it is not here. */
        of: z.int().min(0).nullable(),
        when: z.string().max(40),
        changes: z.array(
          z.strictObject({ subject: z.string(), id: z.string(), from: z.unknown(), to: z.unknown(), at: z.number().nullable() }),
        ),
      }),
    )
    .max(1_000_000),
});
export type TravellingTrail = z.infer<typeof TravellingTrail>;

/** A study file, opened and found whole. */
export interface OpenedStudyFile {
  manifest: Manifest;
  study: Study;
  /** Read when somebody asks: those of a large study are larger than all else. @throws ImportFaultError */
  results: () => Promise<Record<string, unknown>>;
  trail: TravellingTrail | null;
}

const BAD = "Nothing was kept. Ask for the file again, or export it anew.";

/** Whether a file is a study file; false also of what cannot be unpacked. */
export async function isStudyFile(path: string): Promise<boolean> {
  const zip = await ZipFile.open(path).catch(() => null);
  const found = zip?.has(PARTS.manifest) ?? false;
  zip?.close();
  return found;
}

/**
 * Opens a study file and holds every part against its checksum.
 * @throws ImportFaultError for one that is damaged, foreign or of a newer version, with what is wrong
 */
export async function openStudyFile(path: string): Promise<OpenedStudyFile> {
  const zip = await ZipFile.open(path);
  try {
    const manifest = await manifestOf(zip);
    await checkParts(zip, manifest);
    const study = await studyOf(zip);
    return { manifest, study, results: () => resultsOf(path), trail: await trailOf(zip) };
  } finally {
    zip.close();
  }
}

async function resultsOf(path: string): Promise<Record<string, unknown>> {
  const zip = await ZipFile.open(path);
  try {
    const results = z.record(z.string(), z.unknown()).safeParse(await jsonOf(zip, PARTS.results));
    if (results.success) return results.data;
    throw new ImportFaultError("damaged-file", `The part "${PARTS.results}" holds no results. ${BAD}`);
  } finally {
    zip.close();
  }
}

async function manifestOf(zip: ZipFile): Promise<Manifest> {
  if (!zip.has(PARTS.manifest))
    throw new ImportFaultError("not-a-study-file", `This is no study file: it has no part "${PARTS.manifest}". ${BAD}`);
  const raw = await jsonOf(zip, PARTS.manifest, 1_000_000);
  const version = z.looseObject({ format: z.literal("beta-step-study-file"), version: z.int() }).safeParse(raw);
  if (!version.success)
    throw new ImportFaultError("foreign-file", `The part "${PARTS.manifest}" is not one of a study file of Beta Step. ${BAD}`);
  if (version.data.version > STUDY_FILE_VERSION)
    throw new ImportFaultError(
      "newer-study-file",
      `This study file was written by a newer version of Beta Step (file ${version.data.version}; this one reads up to ${STUDY_FILE_VERSION}). It was left as it is: open it with that version.`,
    );
  const manifest = Manifest.safeParse(raw);
  if (!manifest.success) throw new ImportFaultError("damaged-file", `The part "${PARTS.manifest}" is not as it was written. ${BAD}`);
  return manifest.data;
}

/** Every part is there, nothing is there besides, and each is as it was packed. */
async function checkParts(zip: ZipFile, { parts }: Manifest): Promise<void> {
  const extra = zip.names.filter((name) => name !== PARTS.manifest && parts[name] === undefined);
  if (extra.length > 0)
    throw new ImportFaultError("damaged-file", `The file holds a part "${extra[0]}" that its list does not name. ${BAD}`);
  for (const [name, { bytes, sha256 }] of Object.entries(parts)) {
    if (!zip.has(name)) throw new ImportFaultError("damaged-file", `The file lacks its part "${name}". ${BAD}`);
    const sum = createHash("sha256");
    let size = 0;
    for await (const piece of zip.stream(name)) {
      sum.update(piece);
      size += piece.length;
    }
    if (size !== bytes || sum.digest("hex") !== sha256)
      throw new ImportFaultError(
        "damaged-file",
        `The part "${name}" is not as it was when the file was made (its checksum differs). ${BAD}`,
      );
  }
}

/** A study and its trail are read in one go: no study of a person's is larger. */
const MOST_BYTES = 60_000_000;

async function jsonOf(zip: ZipFile, name: string, most?: number): Promise<unknown> {
  const text = await zip.text(name, most);
  try {
    return JSON.parse(text);
  } catch {
    throw new ImportFaultError("damaged-file", `The part "${name}" is not valid JSON. ${BAD}`);
  }
}

async function studyOf(zip: ZipFile): Promise<Study> {
  const raw = await jsonOf(zip, PARTS.study, MOST_BYTES);
  try {
    const study = StoredStudy.safeParse(raw);
    if (study.success) return study.data;
    const [first] = study.error.issues;
    throw new ImportFaultError("damaged-file", `The study in it is not sound: ${first!.message} (${first!.path.join(".")}). ${BAD}`);
  } catch (error) {
    if (error instanceof NewerDocumentError) throw new ImportFaultError("newer-study-file", error.message);
    throw error;
  }
}

async function trailOf(zip: ZipFile): Promise<TravellingTrail | null> {
  if (!zip.has(PARTS.trail)) return null;
  const trail = TravellingTrail.safeParse(await jsonOf(zip, PARTS.trail, MOST_BYTES));
  if (!trail.success) throw new ImportFaultError("damaged-file", `The part "${PARTS.trail}" holds no trail. ${BAD}`);
  return trail.data;
}

/** Said beside numbers of another engine than this one's. */
export const engineWords = ({ engine }: Manifest): string =>
  engine === ENGINE ? "" : ` Its results are by ${engine}; this is ${ENGINE}, so that numbers may differ where the two do.`;

/** How many withdrew, as a study says it of its responses. */
export const withdrawnOf = ({ withdrawn }: Manifest): { withdrawn?: number } => (withdrawn > 0 ? { withdrawn } : {});

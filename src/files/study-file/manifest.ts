import { z } from "zod";
import { STUDY_VERSION } from "@/study/model/upgrade";

/** The part that makes a packed file a study file, and the names of the others. */
export const PARTS = {
  manifest: "study-file.json",
  descriptor: "datapackage.json",
  responses: "responses.csv",
  codebook: "codebook.csv",
  study: "study.json",
  results: "results.json",
  trail: "trail.json",
  text: "write-up.md",
  page: "write-up.html",
} as const;

/** Goes up when a study file of today could not be read by the version before. */
export const STUDY_FILE_VERSION = 1;
/** Goes up when the same study on the same answers gives other numbers. */
export const ENGINE = "beta-step 1";

/** Whole; whole, with some variables and under shuffled codes; or without any respondent. */
export const StudyFileKind = z.enum(["whole", "shuffled", "without-respondents"]);
export type StudyFileKind = z.infer<typeof StudyFileKind>;

export const Manifest = z.strictObject({
  format: z.literal("beta-step-study-file"),
  version: z.int().min(1),
  kind: StudyFileKind,
  name: z.string().max(200),
  /** ISO time. */
  made: z.string().max(40),
  /** What worked the results out, and the version of the study document. */
  engine: z.string().max(80),
  document: z.int().min(1),
  rows: z.int().min(0),
  /** Respondents who withdrew and were erased. */
  withdrawn: z.int().min(0).default(0),
  /** The file that the answers came from. */
  source: z.string().max(255).default(""),
  /** How fractions are written in the answers, and in what the study names of them. */
  decimal: z.enum([".", ","]).default("."),
  parts: z.record(z.string().max(200), z.strictObject({ bytes: z.int().min(0), sha256: z.string().length(64) })),
});
export type Manifest = z.infer<typeof Manifest>;

export const newManifest = (
  own: Pick<Manifest, "kind" | "name" | "made" | "rows" | "source" | "withdrawn" | "decimal" | "parts">,
): Manifest => ({
  format: "beta-step-study-file",
  version: STUDY_FILE_VERSION,
  engine: ENGINE,
  document: STUDY_VERSION,
  ...own,
});

import type { z } from "zod";
import type { Figure } from "@/core/resampling/figures/figure";
import type { GroupFigure } from "@/core/resampling/group-bootstrap";
import type { ReliabilityFigure } from "@/core/resampling/reliability-bootstrap";
import type { Resampling } from "@/core/resampling/resampler";
import type { StudyContext, StudyParts } from "../model/context";
import type { ReplicateIntervals } from "../model/replicate-intervals";
import type { ResponseSource } from "../model/response-column";
import type { StudyColumns } from "../prepare/study-columns";

/** Something of a study. Variables, derived variables and scales share one set of names: as something to stand on they are all of kind "name". */
export interface Ref {
  readonly kind: string;
  readonly id: string;
}

/** One text for a thing of a study: equal ids of different kinds are told apart. */
export const refKey = ({ kind, id }: Ref): string => `${kind} ${id}`;

/** A variable or scale that something names. */
export interface NeededName {
  readonly name: string;
  /** True: a row of the codebook, never a scale. */
  readonly variable?: boolean;
  /** What it is named as: "cluster". */
  readonly as?: string;
}

/** What something stands on, directly: the rest follows from what these stand on. */
export interface Needs {
  readonly names: readonly NeededName[];
  /** Named filters; null for none. Those that hold everywhere hold besides. */
  readonly filters?: readonly (string | null)[];
  /** Other objects whose inputs are its own as well. */
  readonly objects?: readonly Ref[];
  /** Objects it takes a setting from, and nothing else. */
  readonly looksAt?: readonly Ref[];
}

/** The places of the flight where objects are worked on. */
export type Place = "theory" | "responses" | "scales" | "first-look" | "ladders" | "write-up";

/** An object of the study document: kept, undoable, on the trail. */
export interface KeptKind<Kind extends string, List extends string, T> {
  readonly kind: Kind;
  /** The list of the document that holds it. */
  readonly list: List;
  readonly schema: z.ZodType<T>;
  readonly id: z.ZodType<string>;
  /** How it is called on the trail: "Ladder". */
  readonly word: string;
  /** Several of them, where that is not the word with an s. */
  readonly many?: string;
  /** Words for its fields on the trail, where their names are not words. */
  readonly fieldWords?: Readonly<Record<string, string>>;
  readonly place: Place;
  /** How the finder leads to it; left out for what has no place of its own. */
  readonly opens?: {
    /** From the study's own address: `ladders?ladder=willingness`. */
    at(object: T): string;
    /** What else it is known by. */
    words?(object: T): string;
  };
  /** What became of an object as documents of an earlier version have it, by that version. */
  readonly upgrades?: Readonly<Record<number, (old: unknown) => unknown>>;
  idOf(object: T): string;
  nameOf(object: T): string;
  needs(object: T, study: StudyParts): Needs;
  /** What of an object stays through every change to it, whatever the change says. */
  carried?(before: T, to: T): T;
  /** What else makes it unsound. */
  faults?(object: T, study: StudyParts): string[];
}

/** A number that is told when it has changed. */
export interface HeadlineNumber {
  readonly name: string;
  readonly value: number | null;
}

/** How replicates of something are drawn and read. */
export interface Replicating {
  readonly by: "bca" | "percentile";
  readonly confidence: number;
  readonly replicates: number;
  readonly seed: number;
  /** The step whose β are compared where nobody has chosen one, from 0; null for none. */
  readonly compared: number | null;
  /** True: only where somebody asks for it, so not for the results document. */
  readonly onRequest: boolean;
}

/** Something that can be computed. The bare spec is the job, the key it is kept by and the fingerprint of its inputs, alike. */
export interface AskedKind<Kind extends string, Of, Spec, Result> {
  readonly kind: Kind;
  readonly spec: z.ZodType<Spec>;
  /** Only what the numbers depend on: no names, no ways of looking at them. */
  specOf(of: Of, study: StudyParts): Spec;
  /** @param file every column of the data file */
  needs(of: Of, study: StudyParts, file: readonly string[]): Needs;
  /** How it is computed: loaded where it is computed, and nowhere else. */
  load(): Promise<{ readonly analysis: Analysis<Of, Spec, Result> }>;
  /** The few numbers that are told when they have changed; null where there are none. */
  headline?(result: Result): HeadlineNumber[] | null;
  /** The part of the spec that its headline numbers depend on; all of it when left out. */
  headlineSpec?(spec: Spec): Spec;
  /** Null: its intervals are not from replicates. */
  replicating?(spec: Spec): Replicating | null;
  /** What the replicates themselves depend on: not how limits are read from them. All of it when left out. */
  replicated?(spec: Spec): Spec;
  /** Work that was dealt out in parts, as one, in whatever order the parts came. */
  joined?(pieces: readonly unknown[]): unknown;
}

/** Where something is computed: the columns of the study, and what is kept from job to job. */
export interface Desk {
  readonly study: StudyContext;
  readonly responses: ResponseSource;
  readonly columns: StudyColumns;
  /** Rows of the data. */
  readonly rows: number;
  /** Every object of a kind: for the results document, which has the whole study before it. */
  objects(kind: string): readonly unknown[];
  /** Tells how far a long job is. @throws StoppedError when somebody has stopped it */
  progress(done: number, of: number): void;
  /** What a kind keeps ready besides columns, from job to job. */
  shelf<T>(of: string): Map<string, T>;
}

/** What was worked out before the results document is written, on as many threads as there are. */
export interface WorkedOut {
  readonly intervals?: ReplicateIntervals | null;
  readonly dealt?: unknown;
}

/** What replicates can be of. */
export type ReplicateFigure = Figure | ReliabilityFigure | GroupFigure;

/** Something made ready to be resampled. */
export interface Ready extends Resampling {
  readonly names: readonly ReplicateFigure[];
  /** Number of cases or clusters drawn from. */
  readonly units: number;
}

/** Work that can be dealt out in ranges: the result does not depend on the dealing. Its kind says how pieces become one. */
export interface Dealt<Spec, Piece> {
  /** How many parts there are; 0 for none. */
  count(spec: Spec, desk: Desk): number;
  range(spec: Spec, desk: Desk, range: { first: number; count: number }): Piece;
}

/** How something is computed, wherever columns are: in a worker, in a thread, in a test. */
export interface Analysis<Of, Spec, Result> {
  run(spec: Spec, desk: Desk): Result;
  /** Its part of the results document, under the names of docs/results.md. Undefined: it has none. */
  results?(of: Of, desk: Desk, worked: WorkedOut): unknown;
  /** The list of the results document that holds its part; that of the study when left out. */
  readonly section?: string;
  /** Made ready to be resampled. @param everything with figures that only the results document has @throws what `run` throws */
  ready?(spec: Spec, desk: Desk, everything: boolean): Ready;
  /** Work that can be dealt out in ranges. */
  readonly dealt?: Dealt<Spec, unknown>;
}

/** One of which nothing more is known. */
export type AnyAnalysis = Analysis<unknown, unknown, unknown>;

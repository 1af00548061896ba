import type { z } from "zod";
import type { AskedKind, KeptKind } from "./kind";
import { KINDS } from "./registry";

type AnyKind = (typeof KINDS)[number];
type Kept = Extract<AnyKind, { list: string }>;
type Asked = Extract<AnyKind, { spec: unknown }>;

/** What is kept in the document, and what can be computed. */
export type KeptName = Kept["kind"];
export type AskedName = Asked["kind"];
type OneOf<K extends AskedName> = Extract<Asked, { kind: K }>;

/** The lists of a study document. */
export type StudyLists = { [K in Kept as K["list"]]: z.output<K["schema"]>[] };
/** An object of a kind. */
export type ObjectOf<K extends KeptName> = z.output<Extract<Kept, { kind: K }>["schema"]>;
/** What is asked, what is computed of it, and what comes out. */
export type AskedOf<K extends AskedName> = Parameters<OneOf<K>["specOf"]>[0];
export type SpecOf<K extends AskedName> = z.output<OneOf<K>["spec"]>;
export type ResultOf<K extends AskedName> =
  Awaited<ReturnType<OneOf<K>["load"]>> extends { analysis: { run(...of: never[]): infer Result } } ? Result : never;
/** Kept objects whose numbers can be out of date. */
export type ToldName = Extract<Kept, { headline: unknown }>["kind"];

/** Any kind that is kept, and any that is computed, for loops that do not know which. */
export type AnyKept = KeptKind<string, string, unknown>;
export type AnyAsked = AskedKind<string, unknown, unknown, unknown>;

export const KEPT: readonly AnyKept[] = KINDS.filter((kind): kind is Kept => "list" in kind) as readonly unknown[] as AnyKept[];
export const ASKED: readonly AnyAsked[] = KINDS.filter((kind): kind is Asked => "spec" in kind) as readonly unknown[] as AnyAsked[];
/** Kept and computed, with numbers that are told when they have changed. */
export const TOLD = KEPT.filter((kind): kind is AnyKept & AnyAsked => "headline" in kind);

/** @throws RangeError for a kind that is not in the list */
export function keptKind(name: string): AnyKept {
  return found(KEPT, name);
}

/** @throws RangeError for a kind that is not in the list */
export function askedKind(name: string): AnyAsked {
  return found(ASKED, name);
}

function found<T extends { kind: string }>(kinds: readonly T[], name: string): T {
  const kind = kinds.find((one) => one.kind === name);
  if (!kind) throw new RangeError(`there is no kind "${name}"`);
  return kind;
}

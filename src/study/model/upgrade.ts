import { z } from "zod";
import { KEPT, type AnyKept } from "../kinds/kinds";

/**
 * Version of the study document and of every object on the trail. It goes up when something stored before would no longer be read as it was meant; the kind
 * then says under `upgrades` what became of the objects of the version before.
 */
export const STUDY_VERSION = 1;

/** A document that a newer version of the program has written. */
export class NewerDocumentError extends Error {
  readonly code = "newer-document";
  constructor(readonly details: { version: number; known: number }) {
    super(
      `This study was written by a newer version of Beta Step (document ${details.version}; this one reads up to ${details.known}). It was left as it is: open it with that version.`,
    );
  }
}

type Upgradable = Pick<AnyKept, "kind" | "list" | "upgrades">;

/** An object as it was stored, brought to today's version, one step a version. @throws NewerDocumentError */
export function upgradeObject(
  kind: string,
  object: unknown,
  from: number,
  { kinds = KEPT as readonly Upgradable[], to = STUDY_VERSION } = {},
): unknown {
  if (from > to) throw new NewerDocumentError({ version: from, known: to });
  const upgrades = kinds.find((one) => one.kind === kind)?.upgrades ?? {};
  let current = object;
  // what is not there, or was taken away, stays so
  for (let version = from; version < to && current !== null; version++) current = (upgrades[version] ?? ((same) => same))(current);
  return current;
}

const Versioned = z.looseObject({ version: z.int().min(1) });

/** A whole document as it was stored, brought to today's version; what is no document at all is left as it is, for the parser to refuse. @throws NewerDocumentError */
export function upgradeStudy(document: unknown, { kinds = KEPT as readonly Upgradable[], to = STUDY_VERSION } = {}): unknown {
  const versioned = Versioned.safeParse(document);
  if (!versioned.success) return document;
  const { version, ...rest } = versioned.data;
  if (version > to) throw new NewerDocumentError({ version, known: to });
  const lists = kinds.flatMap(({ kind, list }) => {
    const all = rest[list];
    return Array.isArray(all) ? [[list, all.map((object) => upgradeObject(kind, object, version, { kinds, to }))] as const] : [];
  });
  return { ...rest, version: to, ...Object.fromEntries(lists) };
}

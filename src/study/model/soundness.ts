import { keptKind, KEPT } from "../kinds/kinds";
import type { NeededName } from "../kinds/kind";
import { objectsOf } from "../kinds/standing";
import type { StudyParts } from "./context";
import { chainsAmong } from "./dependencies";

/** A place in the document and what is wrong there. */
export interface SoundnessFault {
  path: (string | number)[];
  message: string;
}

/** Names of a circle that are told. */
const SHOWN = 8;
/** So many variables may stand on one another in a row. */
const MOST_DEEP = 400;

/** Kinds whose ids are names that others use. */
const NAMES = ["variable", "scale"];

/** What makes a document unsound as a whole: names used twice, names that nothing has, variables worked out in a circle. */
export function soundnessFaults(study: StudyParts): SoundnessFault[] {
  const faults: SoundnessFault[] = [];
  const ids = new Map(KEPT.map((kind) => [kind.kind, new Set<string>()]));
  const names = new Set<string>();
  for (const kind of KEPT) {
    const own = NAMES.includes(kind.kind) ? names : ids.get(kind.kind)!;
    objectsOf(study, kind).forEach((object, at) => {
      const id = kind.idOf(object);
      const message = own === names ? `The name "${id}" is used twice.` : `Two of the ${kind.list} have the id "${id}".`;
      if (own.has(id)) faults.push({ path: [kind.list, at], message });
      own.add(id);
    });
  }
  const variables = new Set(study.codebook.map((v) => v.name));
  const lacking = ({ name, variable, as }: NeededName, of: string) => {
    if ((variable ? variables : names).has(name)) return null;
    const where = variable ? "is not in the codebook" : "is neither in the codebook nor a scale";
    return `${of} uses "${name}"${as ? ` as ${as}` : ""}, which ${where}.`;
  };
  for (const kind of KEPT) {
    objectsOf(study, kind).forEach((object, at) => {
      const of = `The ${kind.word.toLowerCase()} "${kind.nameOf(object)}"`;
      const needs = kind.needs(object, study);
      const messages = [
        ...needs.names.flatMap((one) => lacking(one, of) ?? []),
        ...(needs.filters ?? []).flatMap((id) =>
          id === null || ids.get("filter")!.has(id) ? [] : [`${of} names a filter "${id}" that is not there.`],
        ),
        ...(needs.objects ?? []).flatMap((ref) =>
          ids.get(ref.kind)?.has(ref.id) ? [] : [`${of} names a ${keptKind(ref.kind).word.toLowerCase()} "${ref.id}" that is not there.`],
        ),
        ...(kind.faults?.(object, study) ?? []),
      ];
      faults.push(...messages.map((message) => ({ path: [kind.list, at], message })));
    });
  }
  const { cycle, longest } = chainsAmong(study);
  if (cycle) {
    const left = cycle.length > SHOWN ? [`… (${cycle.length - SHOWN} more)`] : [];
    const shown = [...cycle.slice(0, SHOWN).map((name) => `"${name}"`), ...left].join(" is worked out from ");
    faults.push({ path: ["derived"], message: `${shown}: that is a circle.` });
  } else if (longest > MOST_DEEP)
    faults.push({ path: ["derived"], message: `Variables are worked out from one another more than ${MOST_DEEP} deep.` });
  return faults;
}

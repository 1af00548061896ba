import { KEPT } from "@/study/kinds/kinds";
import { objectsOf } from "@/study/kinds/standing";
import type { Study } from "@/study/model/study";

/** Something the finder leads to or does. */
export interface Found {
  /** Tells it from all others. */
  key: string;
  group: string;
  name: string;
  /** What else it is known by: the wording of a question. */
  words: string;
  /** From the study's own address; null for an action. */
  at: string | null;
}

/** So many of a group are shown: more letters find the others. */
const MOST = 8;

export const PLACES: readonly (readonly [name: string, path: string])[] = [
  ["Theory", "theory"],
  ["Responses", "responses"],
  ["Scales", "scales"],
  ["First look", "first-look"],
  ["Ladders", "ladders"],
  ["Write-up", "write-up"],
];

/** What the finder shows for what was typed: places and actions first, then every object of the study that can be opened, group by group. */
export function finderItems(study: Study, actions: readonly { key: string; name: string }[], typed: string): Found[] {
  const wanted = typed.trim().toLocaleLowerCase().split(/\s+/).filter(Boolean);
  const fits = ({ name, words }: Found) => wanted.every((word) => `${name} ${words}`.toLocaleLowerCase().includes(word));
  const all: Found[] = [
    ...PLACES.map(([name, path]): Found => ({ key: `place ${path}`, group: "Places", name, words: "", at: path })),
    ...actions.map(({ key, name }): Found => ({ key: `action ${key}`, group: "Actions", name, words: "", at: null })),
    ...KEPT.flatMap((kind) => {
      const { opens } = kind;
      if (!opens) return [];
      return objectsOf(study, kind).map((object): Found => {
        const key = `${kind.kind} ${kind.idOf(object)}`;
        return {
          key,
          group: kind.many ?? `${kind.word}s`,
          name: kind.nameOf(object),
          words: opens.words?.(object) ?? "",
          at: opens.at(object),
        };
      });
    }),
  ];
  const shown = new Map<string, number>();
  return all.filter(fits).filter(({ group }) => {
    shown.set(group, (shown.get(group) ?? 0) + 1);
    return shown.get(group)! <= MOST;
  });
}

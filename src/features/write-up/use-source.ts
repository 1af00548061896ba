"use client";

import { useMemo, useState } from "react";
import { defaultLook } from "@/features/study/default-look";
import { useStudy } from "@/features/study/study-context";
import { useAsked, useResults } from "@/features/study/use-computed";
import { theoryOf } from "@/study/model/theory";
import type { ReplicateIntervals } from "@/study/model/replicate-intervals";
import { askedKind } from "@/study/kinds/kinds";
import { asked } from "@/study/kinds/standing";
import type { Source } from "@/study/report/document/source";

/** What takes its intervals from replicates, of the kinds that a write-up tells of. */
export const DRAWN_KINDS = ["ladder", "probe", "means", "groups"] as const;
export type DrawnKind = (typeof DRAWN_KINDS)[number];

/** Everything that a write-up is composed from, as it comes in. */
export function useSource(replicates: Source["replicates"]) {
  const { study, title, dataset } = useStudy();
  const look = useMemo(() => study.looks[0] ?? defaultLook(study), [study]);
  const scales = useResults("scale", study.scales, null);
  const ladders = useResults("ladder", study.ladders, null);
  const probes = useResults("probe", study.probes, null);
  const means = useResults("means", study.means, null);
  const groups = useResults("groups", study.groups, null);
  const structures = useResults("structure", study.structures, null);
  const searches = useResults("search", study.searches, null);
  const importance = useResults("importance", study.importances, null);
  const told = useAsked("theory", theoryOf(study.theories), { enabled: study.hypotheses.length > 0 });
  const looked = useAsked("first-look", look, { enabled: look.variables.length > 1 });
  const objects = { ladder: study.ladders, probe: study.probes, means: study.means, groups: study.groups };
  const found = { ladder: ladders, probe: probes, means, groups };
  const drawing = DRAWN_KINDS.flatMap((kind) =>
    objects[kind].flatMap((object) => {
      const { spec } = asked(kind, object as never, study, dataset.columns);
      const fitted = ["fitted", "probed", "told", "compared"].includes(found[kind].get(object.id)?.status ?? "");
      return fitted && askedKind(kind).replicating?.(spec as never) ? [{ kind, object, key: `${kind} ${object.id}` }] : [];
    }),
  );
  const source: Source = {
    study,
    title,
    scales,
    look: looked.result?.status === "looked" ? { look, found: looked.result } : null,
    ladders,
    probes,
    means,
    groups,
    structures,
    searches,
    importance,
    replicates,
    stands: new Map((told.result?.stands ?? []).map((stand) => [stand.id, stand])),
  };
  const lacking = (all: readonly unknown[], there: ReadonlyMap<string, unknown>) => all.length - there.size;
  const waiting =
    lacking(study.scales, scales) +
    lacking(study.ladders, ladders) +
    lacking(study.probes, probes) +
    lacking(study.means, means) +
    lacking(study.groups, groups) +
    lacking(study.structures, structures) +
    lacking(study.searches, searches) +
    lacking(study.importances, importance) +
    (told.computing ? 1 : 0) +
    (looked.computing ? 1 : 0) +
    drawing.filter(({ key }) => !replicates.has(key)).length;
  return { source: useSteady(source), waiting, drawing };
}

/** The same source while nothing in it has changed: what is composed from it is composed once. */
function useSteady(source: Source): Source {
  const [steady, setSteady] = useState(source);
  if (steady === source || same(steady, source)) return steady;
  setSteady(source);
  return source;
}

function same(a: Source, b: Source): boolean {
  return (Object.keys(a) as (keyof Source)[]).every((key) => {
    const [one, other] = [a[key], b[key]];
    if (one instanceof Map && other instanceof Map)
      return one.size === other.size && [...one].every(([id, value]) => other.get(id) === value);
    if (key === "look") return a.look?.found === b.look?.found && a.look?.look === b.look?.look;
    return one === other;
  });
}

/** The map with what one thing's replicates give; undefined: they are still being drawn. */
export function withDrawn(now: Source["replicates"], key: string, found: ReplicateIntervals | null | undefined): Source["replicates"] {
  const next = new Map(now);
  if (found === undefined) next.delete(key);
  else next.set(key, found);
  return next;
}

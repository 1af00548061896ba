import { filterInputs, filtersBehind, namesBehind } from "./dependencies";
import type { Change } from "./edit";
import { ladderPredictors, ladderSettingsVariables } from "./ladder";
import { structureParts } from "./structure";
import type { Study } from "./study";

/** The scales, structures and ladders of a study whose numbers a change could move. */
export function touchedBy(study: Study, changes: readonly Change[]): { scales: string[]; structures: string[]; ladders: string[] } {
  const all = changes.some((c) => c.subject === "responses");
  const changed = new Set(
    changes.flatMap((c) => {
      if (c.subject === "correction") return [c.id.slice(c.id.indexOf(":") + 1)];
      return ["variable", "derived", "scale", "structure", "ladder", "filter"].includes(c.subject) ? [c.id] : [];
    }),
  );
  const everywhere = study.filters.filter((f) => f.everywhere);
  const stands = (id: string, names: readonly string[], filter: string | null) => {
    const filters = study.filters.filter((f) => f.id === filter);
    const behind = namesBehind(study, [...names, ...[...everywhere, ...filters].flatMap((f) => filterInputs(f))]);
    const ids = [id, ...behind, ...filtersBehind(study, behind), ...[...everywhere, ...filters].map((f) => f.id)];
    return all || ids.some((name) => changed.has(name));
  };
  // a filter that was taken away held for all while it was there
  const gone = changes.some((c) => c.subject === "filter" && (c.from as { everywhere?: boolean } | null)?.everywhere === true);
  const scales = study.scales
    .filter(
      (s) =>
        gone ||
        stands(
          s.id,
          s.items.map((i) => i.variable),
          s.respondents,
        ),
    )
    .map((s) => s.name);
  const ladders = study.ladders
    .filter((l) => {
      const names = [
        ...ladderPredictors(l),
        ...(l.outcome === null ? [] : [l.outcome]),
        ...l.alsoComplete,
        ...ladderSettingsVariables(l).map((v) => v.name),
      ];
      return gone || stands(l.id, names, l.respondents);
    })
    .map((l) => l.name);
  const structures = study.structures
    .filter(
      (s) =>
        gone ||
        stands(
          s.id,
          [...s.items, ...(s.keying === "scales" ? structureParts(study.scales, s).flatMap((part) => part.scales) : [])],
          s.respondents,
        ),
    )
    .map((s) => s.name);
  return { scales, structures, ladders };
}

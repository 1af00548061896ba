import { newId } from "@/study/model/new-id";
import type { StructureAnalysis } from "@/study/analyse/analyse-structure";
import { itemPlaces } from "@/study/analyse/factor-places";
import type { Edit } from "@/study/model/edit";
import { Scale } from "@/study/model/scale";
import type { Structure } from "@/study/model/structure";
import type { Study } from "@/study/model/study";
import { EXTRACTION_WORDS, ROTATION_WORDS } from "@/study/report/factoring-words";

/** How scales made from factors are scored. */
export type FactorScoring = "mean" | "weighted" | "regression" | "bartlett";

/**
 * A scale a factor. Mean and weighted: the items whose largest loading reaches the threshold on it, turned round where they load against it; weights are the
 * sizes of their loadings and count z-scores. Factor scores: of all items, by the solution itself.
 */
export function scalesFromFactors(study: Study, structure: Structure, analysis: StructureAnalysis, scoring: FactorScoring): Edit[] {
  const { solution, items, factors } = analysis;
  if (!solution) return [];
  const places = itemPlaces(items, solution.rotated.pattern, factors, structure.dimBelow);
  const taken = [...study.scales.map((s) => s.id), ...study.codebook.map((v) => v.name)];
  const reversed = new Set(analysis.reversed);
  return Array.from({ length: factors }, (_, f): Edit[] => {
    const own = places.filter((place) => place.factor === f);
    if (own.length === 0) return [];
    const name = factorName(study, structure, own.map((place) => place.item), f); // prettier-ignore
    const id = newId(name, taken);
    taken.push(id);
    const whole = scoring === "regression" || scoring === "bartlett";
    const members = whole ? items.map((item) => ({ item, loading: 1 })) : own;
    const to = Scale.parse({
      id,
      name,
      rule: scoring,
      items: members.map(({ item, loading }) => ({
        variable: item,
        reversed: reversed.has(item) !== loading < 0,
        weight: scoring === "weighted" ? Number(Math.abs(loading).toPrecision(12)) : 1,
      })),
      weigh: scoring === "weighted" ? "z" : "answers",
      weightsFrom: scoring === "weighted" ? sourceWords(structure, analysis, f) : "",
      factor: whole
        ? { extraction: structure.extraction, rotation: factors === 1 ? "none" : structure.rotation, factors, factor: f + 1 }
        : undefined,
    });
    return [{ subject: "scale", id, to }];
  }).flat();
}

/** The name of the scale that all its items come from, else its number in the structure. */
function factorName(study: Study, structure: Structure, items: readonly string[], f: number): string {
  const from = study.scales.filter((s) => items.every((item) => s.items.some((i) => i.variable === item)));
  return `${from[0]?.name ?? structure.name}, factor ${f + 1}`;
}

function sourceWords(structure: Structure, { n, factors }: StructureAnalysis, f: number): string {
  const turned = factors === 1 || structure.rotation === "none" ? "" : `, ${ROTATION_WORDS[structure.rotation]}`;
  return `factor ${f + 1} of ${factors} of “${structure.name}” (${EXTRACTION_WORDS[structure.extraction]}${turned}, ${n} respondents)`;
}

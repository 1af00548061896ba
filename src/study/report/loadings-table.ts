import type { FactorSolution } from "@/core/factors/factor-solution";
import type { StructureAnalysis } from "../analyse/analyse-structure";
import { itemPlaces, sortedPlaces } from "../analyse/factor-places";
import type { Structure } from "../model/structure";
import { EXTRACTION_WORDS, ROTATION_WORDS } from "./factoring-words";
import { formatShare } from "./format-number";
import type { PrintTable } from "./print-table";
import { SYMBOL, words } from "./words";
import { loadingsName } from "./structure-words";

/** The loadings that are to be read, as a journal prints them, with communalities, variances and factor correlations. */
export function loadingsTable(
  structure: Structure,
  analysis: StructureAnalysis,
  solution: FactorSolution,
  title: (name: string) => string,
): PrintTable {
  const { factors: m, rotated } = solution;
  const k = analysis.items.length;
  const places = itemPlaces(analysis.items, rotated.pattern, m, structure.dimBelow);
  const rows = (structure.sorted ? sortedPlaces(places) : places).map(({ item }) => {
    const i = analysis.items.indexOf(item);
    const own = Array.from({ length: m }, (_, f) => formatShare(rotated.pattern[i * m + f]!));
    return [title(item), ...own, formatShare(solution.communalityExtracted[i]!)];
  });
  const numbers = Array.from({ length: m }, (_, f) => f);
  const percent = (f: number) => formatShare((100 * rotated.variance[f]!) / k, 1);
  const { correlations } = rotated;
  return {
    title: words`${structure.name}: ${loadingsName(solution).toLowerCase()} (${SYMBOL.N} = ${analysis.n})`,
    head: ["Item", ...numbers.map((f) => `Factor ${f + 1}`), [{ text: "h", as: "italic" }, "²"]],
    sections: [
      { heading: loadingsName(solution), rows },
      { heading: "Explained", rows: [["% of variance", ...numbers.map(percent), ""]] },
      ...(correlations
        ? [
            {
              heading: "Factor correlations",
              rows: numbers.map((a) => [
                `Factor ${a + 1}`,
                ...numbers.map((b) => (b > a ? "" : b === a ? "–" : formatShare(correlations[a * m + b]!))),
                "",
              ]),
            },
          ]
        : []),
    ],
    note: words`Extraction by ${EXTRACTION_WORDS[structure.extraction]}${m === 1 || structure.rotation === "none" ? "" : `, rotation by ${ROTATION_WORDS[structure.rotation]}`}. ${[{ text: "h", as: "italic" } as const, "²"]} = communality.${
      correlations ? " Variances of correlated factors overlap in what they share." : ""
    }`,
  };
}

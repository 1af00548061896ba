import { joinedRows, rowsAsLetters } from "@/study/model/exploratory";
import { activeTerms, type Ladder } from "@/study/model/ladder";
import type { Search } from "@/study/model/search";
import type { Study } from "@/study/model/study";
import { METHOD_WORDS } from "@/study/report/ladder/search-words";

/** What could be a candidate: scales, numbers and categories that are neither the outcome nor among the controls, nor items of a scale that is offered. */
export function searchCandidates({ codebook, scales }: Pick<Study, "codebook" | "scales">, ladder: Ladder, controls: number): string[] {
  const held = new Set(ladder.steps.slice(0, controls).flatMap(activeTerms).flatMap((term) => term.components)); // prettier-ignore
  const outcome = scales.find((s) => s.id === ladder.outcome);
  const parts = new Set(outcome?.items.map((item) => item.variable));
  const kinds = codebook.filter((v) => v.kind === "number" || v.kind === "category").map((v) => v.name);
  return [...scales.map((s) => s.id), ...kinds].filter((name) => name !== ladder.outcome && !held.has(name) && !parts.has(name));
}

/**
 * The ladder that a search leads to: its controls, then what was chosen, marked for good.
 * @param rows of the respondents that were searched
 */
export function searchedLadder(ladder: Ladder, search: Search, terms: readonly string[], id: string, rows: ArrayLike<number>): Ladder {
  const kept = ladder.steps.slice(0, search.controls);
  const ids = new Set(kept.map((step) => step.id));
  const free = (wanted: string): string => (ids.has(wanted) ? free(`${wanted}-2`) : wanted);
  const found = `chosen by a search among ${search.candidates.length} candidates (${METHOD_WORDS[search.method]})`;
  return {
    ...ladder,
    id,
    name: `${ladder.name}, searched`.slice(0, 200),
    // a search on what a search has chosen says both
    exploratory: (ladder.exploratory === "" ? found : `${ladder.exploratory}; ${found}`).slice(0, 400),
    searchedOn: joinedRows(ladder.exploratory === "" ? "" : ladder.searchedOn, rowsAsLetters(rows)),
    // the same respondents as the search had
    alsoComplete: [...new Set([...ladder.alsoComplete, ...search.candidates])],
    steps: [
      ...kept,
      { id: free("searched"), name: "Searched", terms: terms.map((name) => ({ components: [name], off: false })), off: false },
    ],
  };
}

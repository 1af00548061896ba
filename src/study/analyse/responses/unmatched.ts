import { group } from "d3-array";
import { CoreError } from "@/core/errors";
import { cellsMeant } from "../../model/cell-number";
import type { StudyContext } from "../../model/context";
import type { Correction } from "../../model/correction";
import { CellState, markOf, type ResponseColumn } from "../../model/response-column";
import { correctionHolds } from "../../prepare/corrected-column";
import type { StudyColumns } from "../../prepare/study-columns";

/** Values that a study names and no cell has, by what names them: written as the file does not write them, they change nothing, and in silence. */
export interface Unmatched {
  of: "missing-codes" | "levels" | "recipe" | "filter" | "corrections";
  /** Name of the variable, or id of the filter. */
  id: string;
  values: string[];
}

/** All of a study. What cannot be worked out is refused where it is used, and left out here. */
export function unmatchedIn(study: StudyContext, columns: StudyColumns): Unmatched[] {
  const variables = study.codebook.flatMap((v) => told(() => levelsOf(v.name, columns)) ?? []);
  const recipes = (study.derived ?? []).flatMap(
    ({ name }) => told((): Unmatched[] => some("recipe", name, columns.facts(name).unmet)) ?? [],
  );
  const filters = (study.filters ?? []).flatMap((f) => told((): Unmatched[] => some("filter", f.id, columns.unmet(f.conditions))) ?? []);
  const corrections = [...group(idleCorrections(study, columns), (c) => c.variable)].map(([id, idle]): Unmatched => {
    return { of: "corrections", id, values: idle.map((c) => c.from ?? "") };
  });
  return [...unmatchedCodes(study, columns), ...variables, ...recipes, ...filters, ...corrections];
}

/** Codes for a missing answer that no cell of any variable has for which they are declared: a battery shares its codes, and not every item has each. */
export function unmatchedCodes(study: StudyContext, columns: StudyColumns): Unmatched[] {
  const met = new Set<string>();
  const unmet = study.codebook.flatMap(({ name, missing }) => {
    const codes = missing.filter((code) => code !== "");
    const column = codes.length === 0 ? null : told(() => columns.column(name));
    if (!column) return [];
    const meant = new Map(codes.map((code) => [code, cellsMeant(code, markOf(column))]));
    const found = cellsFound(column, new Set([...meant.values()].flat()));
    const own = codes.filter((code) => !meant.get(code)!.some((cell) => found.has(cell)));
    for (const code of codes) if (!own.includes(code)) met.add(code);
    return [{ name, own }];
  });
  return unmet.flatMap(({ name, own }) =>
    some(
      "missing-codes",
      name,
      own.filter((code) => !met.has(code)),
    ),
  );
}

/** Corrections whose cell reads otherwise than what they were written against. */
export function idleCorrections(study: StudyContext, columns: StudyColumns): Correction[] {
  return (study.corrections ?? []).filter((c) => {
    const column = told(() => columns.imported(c.variable));
    return column !== null && !correctionHolds(column, c);
  });
}

function levelsOf(name: string, columns: StudyColumns): Unmatched[] {
  const declared = columns.codebookRow(name).levels.map((level) => level.value);
  if (declared.length === 0 || !columns.isCategory(name)) return [];
  const { levels, codes, missing } = columns.categories(name);
  const met = new Set<number>();
  codes.forEach((code, row) => missing[row] || met.add(code));
  return some(
    "levels",
    name,
    declared.filter((value) => !met.has(levels.indexOf(value))),
  );
}

const some = (of: Unmatched["of"], id: string, values: string[]): Unmatched[] => (values.length === 0 ? [] : [{ of, id, values }]);

/** Those of some cells that a column has. */
function cellsFound(column: ResponseColumn, wanted: ReadonlySet<string | number>): ReadonlySet<string | number> {
  const found = new Set<string | number>();
  for (let row = 0; row < column.values.length && found.size < wanted.size; row++) {
    const state = column.states[row];
    if (state === CellState.empty) continue;
    const cell = state === CellState.number ? column.values[row]! : column.texts[column.values[row]!]!;
    if (wanted.has(cell)) found.add(cell);
  }
  return found;
}

function told<T>(work: () => T): T | null {
  try {
    return work();
  } catch (error) {
    if (error instanceof CoreError) return null;
    throw error;
  }
}

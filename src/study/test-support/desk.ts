import type { Desk } from "../kinds/kind";
import { Ladder } from "../model/ladder";
import { Study } from "../model/study";
import { StudyColumns } from "../prepare/study-columns";
import { sourceOf } from "./columns";

/** A study of the columns given, with nothing else in it: words make a category, numbers a number. */
export function deskOf(data: Record<string, readonly string[]>): Desk {
  const study = Study.parse({
    format: "beta-step-study",
    version: 1,
    name: "s",
    codebook: Object.entries(data).map(([name, cells]) => ({ name, kind: Number.isNaN(Number(cells[0])) ? "category" : "number" })),
  });
  const responses = sourceOf(data);
  return {
    study,
    responses,
    columns: new StudyColumns(study, responses),
    rows: Object.values(data)[0]!.length,
    objects: () => [],
    progress: () => {},
    shelf: () => new Map(),
  };
}

/** A ladder of y from steps written as `x`, `x*m`. */
export const ladderOf = (...steps: string[][]) => Ladder.parse({ id: "l", name: "L", outcome: "y", steps: steps.map((terms, k) => ({ id: `s${k}`, terms: terms.map((term) => ({ components: term.split("*") })) })) }); // prettier-ignore

/** n cells as a file has them. */
export const cells = (n: number, of: (i: number) => number | string) => Array.from({ length: n }, (_, i) => String(of(i)));

import type { MeansResult } from "../../analyse/analyse-means";
import type { Means } from "../../model/means";
import { formatCount, formatPercent } from "../format-number";
import type { Titles } from "../level-title";
import { moderatorPlaceName, moderatorPlaceWords } from "./probe-words";

/** Predicted outcomes with their intervals: a row a level, a mark a level of what they are told apart by. */
export interface MeansPicture {
  title: string;
  note: string;
  series: string[];
  rows: { name: string; marks: { series: string; value: number; lower: number | null; upper: number | null; told: boolean }[] }[];
}

const AGAINST = { mean: "the mean of all", one: "the one it is held against", pairs: "any other" } as const;

/** @returns null where nothing is predicted */
export function meansPicture(
  means: Means,
  { reading, ground }: Extract<MeansResult, { status: "told" }>,
  title: Titles,
): MeansPicture | null {
  const series = means.by === null ? [""] : [...new Set(reading.cells.map((cell) => moderatorPlaceName(cell.at[0]!, title)))];
  const sure = new Set(
    reading.contrasts
      .filter((c) => c.pHolm !== null && c.pHolm < 1 - ground.confidence)
      .flatMap((c) => (means.compare === "pairs" ? [c.first, c.second!] : [c.first])),
  );
  const rows = [...new Map(reading.cells.map((cell) => [cell.at.at(-1)!.label, cell.at.at(-1)!])).values()].map((at) => ({
    name: moderatorPlaceWords(at, title),
    marks: reading.cells.flatMap((cell, i) => {
      if (cell.at.at(-1)!.label !== at.label || !cell.predicted) return [];
      const { estimate: value, lower, upper } = cell.predicted;
      return [{ series: means.by === null ? "" : moderatorPlaceName(cell.at[0]!, title), value, lower, upper, told: sure.has(i) }];
    }),
  }));
  if (rows.every((row) => row.marks.length === 0)) return null;
  return {
    title: `${title(ground.outcome)} predicted for each ${title(means.variable)}`,
    note: `n = ${formatCount(ground.n)}, ${formatPercent(ground.confidence)} intervals; filled where told from ${AGAINST[means.compare]}`,
    series,
    rows,
  };
}

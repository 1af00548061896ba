import type { MeansResult } from "../../analyse/analyse-means";
import type { MeansCell, MeansReading } from "../../analyse/read-means";
import type { Means } from "../../model/means";
import { counted, formatNumber, formatP, listed } from "../format-number";
import type { Titles } from "../level-title";
import { SYMBOL, type Words, words } from "../words";
import { moderatorPlaceName } from "./probe-words";

type Told = Extract<MeansResult, { status: "told" }>;

/** Cells with fewer respondents than this are pointed out. */
const FEW = 10;

/** A cell as it is named: `online`; `online, returning`. */
export function cellName(cell: MeansCell, title: Titles): string {
  return [...cell.at]
    .reverse()
    .map((at) => moderatorPlaceName(at, title))
    .join(", ");
}

/** What predicted outcomes say: the ends, and which of them can be told from what they are held against. */
export function whatTheMeansSay(means: Means, reading: MeansReading, { ground, cases }: Told, title: Titles): Words[] {
  const outcome = title(ground.outcome);
  const there = reading.cells.filter((cell) => cell.predicted !== null).sort((a, b) => a.predicted!.estimate - b.predicted!.estimate);
  const said: Words[] = [];
  const [low, high] = [there[0], there.at(-1)];
  if (low && high && low !== high)
    said.push(
      `${outcome} is predicted lowest for ${cellName(low, title)} (${formatNumber(low.predicted!.estimate)}) and highest for ${cellName(high, title)} (${formatNumber(high.predicted!.estimate)}).`,
    );
  const level = 1 - ground.confidence;
  const held = reading.contrasts.filter((c) => c.pHolm !== null && c.pHolm < level).sort((a, b) => a.pHolm! - b.pHolm!);
  const name = (c: (typeof held)[number]): Words => {
    const other = c.second === null ? "the mean of all" : cellName(reading.cells[c.second]!, title);
    const p = formatP(c.pHolm);
    return words`${cellName(reading.cells[c.first]!, title)} from ${other} (${formatNumber(c.found!.estimate)}, ${SYMBOL.p} ${p.startsWith("<") ? p : `= ${p}`})`;
  };
  const adjusted = reading.contrasts.length > 1 ? `, by Holm over ${reading.contrasts.length}` : "";
  if (held.length === 0) said.push(`None can be told from ${against(means)}${adjusted}.`);
  else {
    const first = held.slice(0, 3).map(name);
    const more = held.length > 3 ? ` and ${held.length - 3} more` : "";
    said.push(words`${first.reduce<Words>((all, one, i) => words`${all}${i === 0 ? "" : "; "}${one}`, "Told apart: ")}.`, `${counted(held.length, "difference")} of ${reading.contrasts.length}${adjusted}${more === "" ? "" : "; the table has the rest"}.`); // prettier-ignore
  }
  const lost = reading.cells.filter((cell) => cell.predicted === null).map((cell) => cellName(cell, title));
  if (lost.length > 0) said.push(`Nobody is in ${listed(lost)}: nothing is predicted for it.`);
  const few = (cases.get(means.variable) ?? []).filter((c) => c.cases < FEW);
  if (few.length > 0)
    said.push(
      `Few respondents: ${listed(few.map((c) => `${moderatorPlaceName({ variable: means.variable, label: c.level, value: null }, title)} (${c.cases})`))}.`,
    );
  return said;
}

function against({ compare }: Means): string {
  return { mean: "the mean of all", one: "the one they are held against", pairs: "any other" }[compare];
}

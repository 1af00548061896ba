import { type CorrelationTest, correlationTest } from "@/core/describe/correlation-tests";
import { type FittedLine, fitLine } from "@/core/describe/fit-line";
import { LARGE_SMOOTH, lowess } from "@/core/describe/lowess";
import { pairCorrelations } from "@/core/describe/pair-correlations";
import { quantile } from "@/core/describe/quantile";
import type { Desk } from "../kinds/kind";
import type { PairSpec, Panelling } from "../model/look";
import type { StudyColumns } from "../prepare/study-columns";
import { type PairFacts, pairFacts } from "./pair-facts";
import { type Refusal, refusalOf, TooManyGroupsError } from "./refusal";

/** A line and a smooth through some respondents. */
export interface PairFit {
  readonly n: number;
  /** Null: there are too few, or x does not vary. */
  readonly line: FittedLine | null;
  readonly smooth: { readonly x: Float64Array; readonly y: Float64Array } | null;
  readonly test: CorrelationTest | null;
}

/** What respondents are parted by. */
export interface Parting {
  readonly variable: string;
  /** Levels as written, or ranges of a number; from lowest to highest. */
  readonly parts: readonly ({ readonly level: string } | { readonly from: number | null; readonly to: number | null })[];
  /** Part of each respondent; −1: in none. */
  readonly codes: Int32Array;
}

/** A scatter, or why there is none. */
export type PairLook =
  | {
      status: "paired";
      /** Rows of the data, from 1, of those who have both. */
      rows: Int32Array;
      x: Float64Array;
      y: Float64Array;
      by: Parting | null;
      panels: Parting[];
      /** Everybody. */
      whole: PairFit;
      /** Per panel (the first parting varies slowest) and level of `by`; with neither, none. */
      fits: { panel: readonly number[]; group: number | null; fit: PairFit }[];
      confidence: number;
      facts: PairFacts;
      /** True: the smooth is of bins of neighbours. */
      coarse: boolean;
    }
  | { status: "refused"; refusal: Refusal };

const CONFIDENCE = 0.95;
const MOST_GROUPS = 30;
const MOST_PANELS = 6;
/** Places of a smooth that is sent to the page. */
const PLACES = 200;

/** Two numbers against each other (docs/methods.md, “First look”). */
export function analysePair(spec: PairSpec, desk: Desk): PairLook {
  try {
    return paired(spec, desk);
  } catch (error) {
    return { status: "refused", refusal: refusalOf(error) };
  }
}

function paired(spec: PairSpec, { columns, rows }: Desk): PairLook {
  const kept = columns.kept(rows, spec.respondents);
  const [a, b] = [columns.numbers(spec.x), columns.numbers(spec.y)];
  const used = Int32Array.from([...kept.keys()].filter((row) => kept[row] === 1 && !a.missing[row] && !b.missing[row]));
  const take = (values: Float64Array) => Float64Array.from(used, (row) => values[row]!);
  const [x, y] = [take(a.values), take(b.values)];
  const by = spec.by === null ? null : partingOf({ variable: spec.by, edges: null }, columns, used, MOST_GROUPS);
  const panels = spec.panels.map((panel) => partingOf(panel, columns, used, MOST_PANELS));
  const groups = by ? [...by.parts.keys()] : [null];
  const places = panels.reduce<number[][]>((all, { parts }) => all.flatMap((head) => [...parts.keys()].map((p) => [...head, p])), [[]]);
  const fits = by || panels.length > 0
    ? places.flatMap((panel) => groups.map((group) => ({
        panel, group,
        fit: fitOf(x, y, (i) => panels.every(({ codes }, k) => codes[i] === panel[k]) && (group === null || by!.codes[i] === group)),
      })))
    : []; // prettier-ignore
  const whole = fitOf(x, y, () => true);
  return {
    status: "paired",
    rows: used.map((row) => row + 1),
    x,
    y,
    by,
    panels,
    whole,
    fits,
    confidence: CONFIDENCE,
    facts: pairFacts(x, y, whole.line, whole.smooth),
    coarse: x.length > LARGE_SMOOTH,
  };
}

function fitOf(x: Float64Array, y: Float64Array, in_: (i: number) => boolean): PairFit {
  const places = [...x.keys()].filter(in_);
  const [own, other] = [x, y].map((values) => Float64Array.from(places, (i) => values[i]!));
  const n = places.length;
  const line = fitLine(own!, other!, CONFIDENCE);
  const none = new Uint8Array(n);
  const r = n < 2 ? NaN : pairCorrelations([{ values: own!, missing: none }, { values: other!, missing: none }], "pearson").r[1]!; // prettier-ignore
  return { n, line, smooth: n > 3 && line ? smoothOf(own!, other!) : null, test: correlationTest(r, n, CONFIDENCE) };
}

/** The smooth at the distinct x, or at so many of them that a picture shows no difference. */
function smoothOf(x: Float64Array, y: Float64Array): { x: Float64Array; y: Float64Array } {
  const smooth = lowess(x, y);
  const order = Int32Array.from(x.keys()).sort((i, j) => x[i]! - x[j]!);
  const distinct = order.filter((i, at) => at === 0 || x[i] !== x[order[at - 1]!]);
  const every = Math.max(1, Math.ceil(distinct.length / PLACES));
  const places = distinct.filter((_, at) => at % every === 0 || at === distinct.length - 1);
  return { x: Float64Array.from(places, (i) => x[i]!), y: Float64Array.from(places, (i) => smooth[i]!) };
}

/** The levels of a category, or ranges of a number: thirds unless edges are given. */
function partingOf({ variable, edges }: Panelling, columns: StudyColumns, rows: Int32Array, most: number): Parting {
  if (columns.isCategory(variable)) {
    const { levels, codes, missing } = columns.categories(variable);
    const present = [...new Set(Array.from(rows).flatMap((row) => (missing[row] ? [] : [codes[row]!])))].sort((a, b) => a - b);
    if (present.length > most) throw new TooManyGroupsError({ variable, groups: present.length, most });
    const place = new Map(present.map((code, i) => [code, i]));
    return {
      variable,
      parts: present.map((code) => ({ level: levels[code]! })),
      codes: rows.map((row) => (missing[row] ? -1 : place.get(codes[row]!)!)),
    };
  }
  const { values, missing } = columns.numbers(variable);
  const own = Float64Array.from(Array.from(rows).filter((row) => !missing[row]), (row) => values[row]!).sort(); // prettier-ignore
  const cuts = own.length === 0 ? [] : [...new Set(edges ?? [quantile(own, 1 / 3), quantile(own, 2 / 3)])];
  return {
    variable,
    parts: [...cuts, null].map((to, i) => ({ from: cuts[i - 1] ?? null, to })),
    codes: rows.map((row) => (missing[row] ? -1 : cuts.filter((cut) => values[row]! > cut).length)),
  };
}

import { type CorrelationTest, correlationTest } from "@/core/describe/correlation-tests";
import { type Density, density, heaps } from "@/core/describe/density";
import { describe, type Description } from "@/core/describe/description";
import { binsOf, gridOf, type Histogram } from "@/core/describe/histogram";
import { type Correlating, pairCorrelations, type PairTable } from "@/core/describe/pair-correlations";
import { partialCorrelations } from "@/core/describe/partial-correlations";
import { tCritical } from "@/core/distributions/t-distribution";
import type { LookSpec } from "../model/look";
import type { Desk } from "../kinds/kind";
import type { AnswerRange } from "../model/variable";
import { reliabilityOf } from "./analyse-scale";
import { type LookInput, lookInputs } from "./look-columns";
import { type Refusal, refusalOf, TooManyGroupsError } from "./refusal";

/** One column of a look, over everybody or one group. */
export interface LookColumn {
  readonly key: string;
  readonly variable: string;
  readonly level: string | null;
  /** True: a level, or a number that is 0 or 1. */
  readonly zeroOne: boolean;
  readonly missing: number;
  readonly description: Description;
  /** Of the mean, t(n − 1); null with fewer than two. */
  readonly interval: { readonly df: number; readonly lower: number; readonly upper: number } | null;
  /** Lowest and highest possible value; null: not known. */
  readonly possible: AnswerRange | null;
  /** Values beyond the possible ones. */
  readonly impossible: number;
  /** Share at the lowest and at the highest value, possible where that is known. */
  readonly floor: number;
  readonly ceiling: number;
  readonly shape: Shape | null;
  readonly alpha: number | null;
  readonly omega: number | null;
}

/** How values lie: each distinct one counted, or in bins with an outline. Groups share the axis of everybody. */
export type Shape =
  | { readonly kind: "values"; readonly values: readonly { value: number; count: number }[] }
  | { readonly kind: "bins"; readonly histogram: Histogram; readonly outline: Density | null; readonly heaps: number };

/** Correlations with their tests, k × k, row-major; not a number where there is none. */
export interface LookTable extends PairTable {
  readonly p: Float64Array;
  readonly lower: Float64Array;
  readonly upper: Float64Array;
}

/** Everybody, or one group. */
export interface LookPart {
  /** Respondents it is about. */
  readonly rows: number;
  readonly columns: LookColumn[];
  readonly table: LookTable;
  /** Of every category of the look: its levels in order, with how many have each. */
  readonly categories: { readonly variable: string; readonly levels: readonly { readonly level: string; readonly count: number }[] }[];
}

/** Variables and scales looked at, or why they cannot be. */
export type FirstLook =
  | ({
      status: "looked";
      /** Rows of the data, and those that the filters kept. */
      all: number;
      kept: number;
      confidence: number;
      correlation: Correlating;
      groups: ({ level: string } & LookPart)[];
      /** Respondents in no group. */
      without: number;
      groupsRefused: Refusal | null;
      /** The rest after the controls; null: none are chosen. */
      partial: LookTable | null;
      /** How many columns the controls are. */
      controls: number;
      refused: { variable: string; refusal: Refusal }[];
    } & LookPart)
  | { status: "refused"; refusal: Refusal };

const CONFIDENCE = 0.95;
const MOST_GROUPS = 30;
const MOST_VALUES = 12;
const BINS = 24;

/** Looks at variables before any model (docs/methods.md, “First look”). @param correlation other than the look's own, for the results document */
export function analyseLook(spec: LookSpec, desk: Desk, correlation: Correlating = spec.correlation): FirstLook {
  try {
    return looked(spec, desk, correlation);
  } catch (error) {
    return { status: "refused", refusal: refusalOf(error) };
  }
}

function looked(spec: LookSpec, desk: Desk, correlation: Correlating): FirstLook {
  const { columns, rows } = desk;
  const kept = columns.kept(rows, spec.respondents);
  const { inputs, refused } = lookInputs(spec.variables, columns, kept);
  const used = kept.slice();
  if (spec.cases === "complete") for (const { missing } of inputs) for (let row = 0; row < rows; row++) if (missing[row]) used[row] = 0;
  const shapes = inputs.map((input) => axisOf(valuesOn(input, used)));
  const places = placesOf(used);
  const everybody = inputs.map((input) => onRows(input, places));
  const part = (mask: Uint8Array): LookPart => {
    const at = mask === used ? places : placesOf(mask);
    const own = mask === used ? everybody : inputs.map((input) => onRows(input, at));
    return {
      rows: at.length,
      columns: inputs.map((input, i) => lookColumn(input, own[i]!, shapes[i]!, mask, desk, spec.diagonal)),
      table: tested(pairCorrelations(own, correlation), correlation === "pearson" ? CONFIDENCE : null, 0),
      categories: [...new Set(inputs.flatMap((i) => (i.level === null ? [] : [i.variable])))].map((variable) =>
        levelsOn(variable, columns, mask),
      ),
    };
  };
  const told = toldBy(spec.by, columns, used);
  const controls = spec.controls.length === 0 ? null : lookInputs(spec.controls, columns, kept);
  return {
    status: "looked",
    all: rows,
    kept: kept.reduce((sum, in_) => sum + in_, 0),
    confidence: CONFIDENCE,
    correlation,
    ...part(used),
    groups: told.groups.map(({ level, mask }) => ({ level, ...part(mask) })),
    without: told.without,
    groupsRefused: told.refusal,
    partial:
      controls && controls.inputs.length > 0
        ? tested(partialCorrelations(everybody, controls.inputs.map((input) => onRows(input, places))), CONFIDENCE, controls.inputs.length) // prettier-ignore
        : null,
    controls: controls?.inputs.length ?? 0,
    refused: [...refused, ...(controls?.refused ?? [])],
  };
}

function levelsOn(variable: string, columns: Desk["columns"], mask: Uint8Array): LookPart["categories"][number] {
  const { levels, codes, missing } = columns.categories(variable);
  const counts = new Uint32Array(levels.length);
  for (let row = 0; row < mask.length; row++) if (mask[row] && !missing[row]) counts[codes[row]!]!++;
  return { variable, levels: levels.map((level, i) => ({ level, count: counts[i]! })).filter(({ count }) => count > 0) };
}

/** Who belongs to which level. */
function toldBy(by: string | null, columns: Desk["columns"], used: Uint8Array) {
  const none = { groups: [] as { level: string; mask: Uint8Array }[], without: 0, refusal: null as Refusal | null };
  if (by === null) return none;
  try {
    const { levels, codes, missing } = columns.categories(by);
    const masks = new Map<number, Uint8Array>();
    let without = 0;
    for (let row = 0; row < used.length; row++) {
      if (!used[row]) continue;
      if (missing[row]) without++;
      else {
        const mask = masks.get(codes[row]!) ?? new Uint8Array(used.length);
        masks.set(codes[row]!, mask);
        mask[row] = 1;
        if (masks.size > MOST_GROUPS) throw new TooManyGroupsError({ variable: by, groups: levels.length, most: MOST_GROUPS });
      }
    }
    const present = [...masks.keys()].sort((a, b) => a - b);
    return { groups: present.map((code) => ({ level: levels[code]!, mask: masks.get(code)! })), without, refusal: null };
  } catch (error) {
    return { ...none, refusal: refusalOf(error) };
  }
}

/** The rows of a mask, from 0. */
function placesOf(mask: Uint8Array): Int32Array {
  const places = new Int32Array(mask.reduce((sum, in_) => sum + in_, 0));
  let at = 0;
  for (let row = 0; row < mask.length; row++) if (mask[row]) places[at++] = row;
  return places;
}

/** Only the rows that are asked about, without those that are not. */
function onRows({ values, missing }: LookInput, rows: Int32Array): { values: Float64Array; missing: Uint8Array } {
  const own = { values: new Float64Array(rows.length), missing: new Uint8Array(rows.length) };
  for (let i = 0; i < rows.length; i++) {
    own.values[i] = values[rows[i]!]!;
    own.missing[i] = missing[rows[i]!]!;
  }
  return own;
}

function valuesOn(input: LookInput, mask: Uint8Array): Float64Array {
  return input.values.filter((_, row) => mask[row] === 1 && input.missing[row] === 0);
}

/** What a picture's axis is made of, from everybody: the distinct values, or the edges of bins. */
type Axis = { values: number[] } | { edges: number[] } | null;

function axisOf(values: Float64Array): Axis {
  if (values.length === 0) return null;
  const found = new Set<number>();
  for (const value of values) if (found.add(value).size > MOST_VALUES) break;
  const distinct = [...found].sort((a, b) => a - b);
  if (distinct.length <= MOST_VALUES && (gridOf(values) !== null || distinct.length === 1)) return { values: distinct };
  return { edges: binsOf(values, BINS).edges };
}

function shapeOn(axis: Axis, sorted: Float64Array): Shape | null {
  if (axis === null) return null;
  if ("values" in axis) {
    const counts = new Map(axis.values.map((value) => [value, 0]));
    for (const value of sorted) counts.set(value, counts.get(value)! + 1);
    return { kind: "values", values: axis.values.map((value) => ({ value, count: counts.get(value)! })) };
  }
  const { edges } = axis;
  const counts = new Array<number>(edges.length - 1).fill(0);
  let bin = 0;
  for (const value of sorted) {
    while (bin < counts.length - 1 && value >= edges[bin + 1]!) bin++;
    counts[bin]!++;
  }
  const outline = density(sorted);
  return { kind: "bins", histogram: { edges, counts }, outline, heaps: outline ? heaps(outline) : 1 };
}

function lookColumn(
  input: LookInput,
  { values, missing }: { values: Float64Array; missing: Uint8Array },
  axis: Axis,
  mask: Uint8Array,
  { columns, study }: Desk,
  diagonal: LookSpec["diagonal"],
): LookColumn {
  const sorted = values.filter((_, i) => missing[i] === 0).sort();
  const description = describe(sorted);
  const { n, mean, se } = description;
  const half = n > 1 && se !== null ? tCritical(CONFIDENCE, n - 1) * se : null;
  const range = input.level === null ? columns.possible(input.variable) : null;
  // ends of a mean of items are sums of shares
  const possible = range && { low: Number(range.low.toPrecision(12)), high: Number(range.high.toPrecision(12)) };
  const [low, high] = [possible?.low ?? sorted[0], possible?.high ?? sorted.at(-1)];
  const share = (value: number | undefined) => (n === 0 ? 0 : sorted.filter((v) => v === value).length / n);
  const scale = study.scales.find((s) => s.id === input.variable);
  const reliability =
    scale && n > 1 && diagonal !== "nothing" ? reliabilityOf(columns.scale(scale).keyed, mask, diagonal === "omega") : null;
  return {
    key: input.key,
    variable: input.variable,
    level: input.level,
    zeroOne: input.level !== null || (sorted.every((v) => v === 0 || v === 1) && sorted[0] === 0 && sorted.at(-1) === 1),
    missing: missing.reduce((sum, gone) => sum + gone, 0),
    description,
    interval: half === null ? null : { df: n - 1, lower: mean! - half, upper: mean! + half },
    possible,
    impossible: possible ? sorted.filter((v) => v < possible.low - 1e-9 || v > possible.high + 1e-9).length : 0,
    floor: share(low),
    ceiling: share(high),
    shape: shapeOn(axis, sorted),
    alpha: reliability?.alpha?.alpha ?? null,
    omega: reliability?.factor?.omega ?? null,
  };
}

/** Tests of a whole table. @param confidence null: no intervals */
function tested({ n, r }: PairTable, confidence: number | null, controls: number): LookTable {
  const k = Math.sqrt(r.length);
  const none = () => new Float64Array(r.length).fill(NaN);
  const [p, lower, upper] = [none(), none(), none()];
  for (let i = 0; i < k; i++) {
    for (let j = 0; j < i; j++) {
      const test = correlationTest(r[i * k + j]!, n[i * k + j]!, confidence, controls);
      for (const at of [i * k + j, j * k + i]) {
        p[at] = test?.p ?? NaN;
        lower[at] = test?.lower ?? NaN;
        upper[at] = test?.upper ?? NaN;
      }
    }
  }
  return { n, r, p, lower, upper };
}

/** A correlation of a table, by the places of its columns from 0; null: there is none. */
export function correlationAt(table: LookTable, i: number, j: number, controls = 0): CorrelationTest | null {
  const at = i * Math.sqrt(table.r.length) + j;
  const test = correlationTest(table.r[at]!, table.n[at]!, null, controls);
  const or = (v: number) => (Number.isNaN(v) ? null : v);
  return test && { ...test, lower: or(table.lower[at]!), upper: or(table.upper[at]!) };
}

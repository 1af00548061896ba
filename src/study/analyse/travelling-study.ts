import { randomStream } from "@/core/random/random-stream";
import { type AnyKept, KEPT } from "../kinds/kinds";
import { refKey } from "../kinds/kind";
import { objectsOf } from "../kinds/standing";
import { columnsBehind, filterInputs } from "../model/dependencies";
import { CellState, type ResponseColumn } from "../model/response-column";
import type { Study } from "../model/study";
import type { PrintedCells } from "../model/printed";
import { correctedColumn } from "../prepare/corrected-column";

/** A study as it travels with all it has: its responses are named by what lies beside it. */
export const wholeStudy = (study: Study): Study => ({ ...study, responses: null });

/** What a copy with chosen variables must hold besides: what the filters that hold for all look at. */
export function neededForAll(study: Study): string[] {
  const everywhere = study.filters.filter((f) => f.everywhere);
  return columnsBehind(study, everywhere.flatMap((f) => filterInputs(f)), everywhere.map((f) => f.id)); // prettier-ignore
}

export interface ShuffledCopy {
  study: Study;
  columns: ResponseColumn[];
  /** Names of objects that need what was not chosen, and so are not in the copy. */
  leftOut: string[];
}

/**
 * A copy with some variables only, its respondents in another order, under other codes. Corrections are in the answers.
 * @param chosen columns of the file; those that filters for all look at come along
 * @param seed drawn anew each time, and kept nowhere: the order cannot be found again
 */
export function shuffledCopy(study: Study, columns: readonly ResponseColumn[], chosen: readonly string[], seed: number): ShuffledCopy {
  const wanted = new Set([...chosen, ...neededForAll(study)]);
  const rows = columns[0]?.values.length ?? 0;
  const stream = randomStream(seed);
  const order = shuffled(rows, stream);
  const places = new Map(order.map((row, place) => [row + 1, place + 1]));
  const codes = new Set(study.codebook.filter((v) => v.kind === "code").map((v) => v.name));
  const taken = columns
    .filter(({ name }) => wanted.has(name))
    .map((column) => {
      const corrected = correctedColumn(column, study.corrections);
      const ordered = reordered(corrected, order);
      return codes.has(column.name) ? recoded(ordered, stream) : ordered;
    });
  const { study: pruned, leftOut } = prunedTo(study, new Set(taken.map(({ name }) => name)));
  const filters = pruned.filters.map((f) => ({ ...f, conditions: f.conditions.map((c) => (c.kind === "not-rows" ? { ...c, rows: c.rows.flatMap((row) => places.get(row) ?? []).sort((a, b) => a - b) } : c)) })); // prettier-ignore
  // of whom a search was made is told by rows, which are others now: that it was, stays
  const ladders = pruned.ladders.map((l) => ({ ...l, searchedOn: "" }));
  return { study: { ...pruned, filters, ladders, corrections: [], plans: [], responses: null }, columns: taken, leftOut };
}

function shuffled(count: number, stream: ReturnType<typeof randomStream>): number[] {
  const order = Array.from({ length: count }, (_, i) => i);
  for (let i = count - 1; i > 0; i--) {
    const j = stream.below(i + 1);
    [order[i], order[j]] = [order[j]!, order[i]!];
  }
  return order;
}

/** The same cells in another order; texts in the order in which they now appear first. */
function reordered(column: ResponseColumn, order: readonly number[]): ResponseColumn {
  const states = Uint8Array.from(order, (row) => column.states[row]!);
  const texts = new Map<string, number>();
  const values = Float64Array.from(order, (row) => {
    const value = column.values[row]!;
    if (column.states[row] !== CellState.text) return value;
    const text = column.texts[value]!;
    if (!texts.has(text)) texts.set(text, texts.size);
    return texts.get(text)!;
  });
  return { ...column, values, states, texts: [...texts.keys()] };
}

/** Codes replaced by others, drawn: equal ones stay equal. */
function recoded(column: ResponseColumn, stream: ReturnType<typeof randomStream>): ResponseColumn {
  const key = (row: number) => `${column.states[row]!} ${column.values[row]!}`;
  const there = [...column.states.keys()].filter((row) => column.states[row] !== CellState.empty);
  const distinct = [...new Set(there.map(key))];
  const places = shuffled(distinct.length, stream);
  const codes = new Map(distinct.map((one, i) => [one, places[i]!]));
  const width = String(distinct.length).length;
  const texts: string[] = [];
  const at = new Map<number, number>();
  const values = Float64Array.from(column.values, (_, row) => {
    if (column.states[row] === CellState.empty) return 0;
    const code = codes.get(key(row))!;
    if (!at.has(code)) at.set(code, texts.push(`R${String(code + 1).padStart(width, "0")}`) - 1);
    return at.get(code)!;
  });
  const states = column.states.map((state) => (state === CellState.empty ? state : CellState.text));
  return { ...column, values, states, texts };
}

/** A study without what needs columns that are not there, and without what needs that. */
function prunedTo(study: Study, columns: ReadonlySet<string>): { study: Study; leftOut: string[] } {
  const derived = new Set(study.derived.map((d) => d.name));
  const left = new Map<string, string>();
  // how answers are read goes along for the columns that are there
  const readings = study.readings.flatMap((r) => {
    const variables = r.variables.filter((name) => columns.has(name));
    return variables.length === 0 ? [] : [{ ...r, variables }];
  });
  let current: Study = { ...study, readings, codebook: study.codebook.filter((v) => columns.has(v.name) || derived.has(v.name)) };
  for (let again = true; again;) {
    again = false;
    const names = new Set([...current.codebook.map((v) => v.name), ...current.scales.map((s) => s.id)]);
    const ids = new Set(KEPT.flatMap((kind) => objectsOf(current, kind).map((o) => refKey({ kind: kind.kind, id: kind.idOf(o) }))));
    const stands = (kind: AnyKept, object: unknown): boolean => {
      const needs = kind.needs(object, current);
      const there = needs.names.every(({ name }) => names.has(name)) && (needs.filters ?? []).every((id) => id === null || ids.has(refKey({ kind: "filter", id }))); // prettier-ignore
      return there && [...(needs.objects ?? []), ...(needs.looksAt ?? [])].every((ref) => ids.has(refKey(ref)));
    };
    for (const kind of KEPT) {
      const all = objectsOf(current, kind);
      const kept = all.filter((object) => stands(kind, object));
      if (kept.length === all.length) continue;
      again = true;
      for (const object of all) if (!kept.includes(object)) left.set(refKey({ kind: kind.kind, id: kind.idOf(object) }), `${kind.word} ${kind.nameOf(object)}`); // prettier-ignore
      current = { ...current, [kind.list]: kept };
    }
    // a derived variable that is gone has no row of the codebook either
    const there = new Set(current.derived.map((d) => d.name));
    const codebook = current.codebook.filter((v) => columns.has(v.name) || there.has(v.name));
    if (codebook.length < current.codebook.length) {
      again = true;
      current = { ...current, codebook };
    }
  }
  return { study: current, leftOut: [...left.values()] };
}

/** A level that fewer respondents have than this is not named in a copy without them. */
const FEW = 5;

/** Texts that tell of single respondents: what a code or a free text says, and levels that only few have, with their words. */
export interface Telling {
  readonly whole: ReadonlySet<string>;
  /** Also where they stand within another text. */
  readonly within: readonly string[];
}

/** @param counts how many have each value of a column, as written */
export function tellingTexts(study: Study, counts: (variable: string) => ReadonlyMap<string, number>): Telling {
  const whole = new Set<string>();
  const within = new Set<string>();
  for (const v of study.codebook) {
    if (v.kind === "code" || v.kind === "text") for (const value of counts(v.name).keys()) whole.add(value);
    if (v.kind !== "category") continue;
    const rare = [...counts(v.name)].filter(([value, count]) => count < FEW && !v.missing.includes(value)).map(([value]) => value);
    const labels = v.levels.filter(({ value }) => rare.includes(value)).map(({ label }) => label);
    for (const text of [...rare, ...labels]) if (text.length > 1) within.add(text);
  }
  return { whole, within: [...within] };
}

/** Whether anything in it, key or value, tells of a single respondent. */
function tells(of: unknown, telling: Telling): boolean {
  if (typeof of === "string") return telling.whole.has(of) || telling.within.some((text) => of.includes(text));
  if (of === null || typeof of !== "object") return false;
  return Object.entries(of).some(([key, value]) => (!Array.isArray(of) && tells(key, telling)) || tells(value, telling));
}

/**
 * A study as it travels without respondents: codebook, definitions and text, and nothing that was read off single answers. What names a level that only few have is
 * not in it, nor what stands on that.
 * @param counts how many have each value of a column, as written
 */
export function studyWithoutRespondents(study: Study, counts: (variable: string) => ReadonlyMap<string, number>): Study {
  const telling = tellingTexts(study, counts);
  const codebook = study.codebook.map((v) => {
    const many = v.levels.length === 0 || v.kind !== "category" ? null : counts(v.name);
    return many ? { ...v, levels: v.levels.filter(({ value }) => (many.get(value) ?? 0) >= FEW) } : v;
  });
  const bare: Study = {
    ...study,
    responses: null,
    // how answers are read, corrected and worked on names answers
    corrections: [],
    readings: [],
    derived: [],
    plans: [],
    filters: study.filters.map((f) => ({ ...f, everywhere: false, conditions: [{ kind: "not-rows" as const, rows: [] }] })),
    ladders: study.ladders.map((l) => ({ ...l, searchedOn: "", filter: null })),
    blocks: study.blocks.map((block) => (block.what.kind === "table" && block.what.shown ? { ...block, what: { ...block.what, shown: withoutExtremes(block.what.shown) } } : block)), // prettier-ignore
  };
  const lists = KEPT.filter((kind) => kind.kind !== "variable").map((kind) => [kind.list, objectsOf(bare, kind).filter((object) => !tells(object, telling))]); // prettier-ignore
  const { study: sound } = prunedTo({ ...bare, ...Object.fromEntries(lists) } as Study, new Set(study.codebook.map((v) => v.name)));
  // a place at a percentile is somebody's answer
  const percentiles = new Set(
    [...study.probes.filter((p) => p.moderators.some((m) => m.values.by === "percentiles")), ...study.means.filter((m) => m.values.by === "percentiles")].map(({ id }) => id), // prettier-ignore
  );
  const blocks = sound.blocks.filter(({ what }) => !("of" in what) || !what.of.ids.some((id) => percentiles.has(id)));
  return { ...sound, codebook, blocks };
}

/** Smallest, largest and middle answers are answers of somebody. */
const EXTREMES = new Set(["Observed", "Median"]);

function withoutExtremes(table: PrintedCells): PrintedCells {
  const stays = table.head.map((head) => !(typeof head === "string" && EXTREMES.has(head)));
  const kept = <T>(cells: readonly T[]) => cells.filter((_, i) => stays[i] ?? true);
  return { ...table, head: kept(table.head), sections: table.sections.map((s) => ({ ...s, rows: s.rows.map(kept) })) };
}

type Json = Readonly<Record<string, unknown>>;
const pick = (of: unknown, ...keys: string[]): Json => Object.fromEntries(keys.flatMap((key) => ((of as Json | null)?.[key] === undefined ? [] : [[key, (of as Json)[key]]]))); // prettier-ignore

const DESCRIBED = ["n", "missing", "mean", "sd", "se", "skewness", "kurtosis"];
const FITTED = ["name", "settings", "status", "exploratory", "steps", "standardized", "standardized_indicators_too", "robust_hc3", "cluster_robust", "codings", "coding_table", "categories", "marginality", "suppression", "suppression_signs", "marginal_means", "bootstrap", "moments"]; // prettier-ignore

/** The results that travel without respondents: only what is named here, so that nothing that is added later goes along unseen. */
export function resultsWithoutRespondents(results: Json, telling: Telling): Json {
  const each = (section: unknown, make: (one: Json) => Json): Json => Object.fromEntries(Object.entries((section as Json | undefined) ?? {}).flatMap(([id, one]) => {
    const made = make(one as Json);
    return tells(made, telling) ? [] : [[id, made]];
  })); // prettier-ignore
  return {
    ...pick(results, "format", "version", "study", "withdrawn"),
    scales: each(results["scales"], (scale) => ({ ...pick(scale, "status", "counts", "reliability"), description: pick(scale["description"], ...DESCRIBED) })), // prettier-ignore
    structures: each(results["structures"], (one) => one),
    ladders: each(results["ladders"], (ladder) => ({ ...pick(ladder, ...FITTED), settings: { ...(ladder["settings"] as Json), filter: null }, sample: pick(ladder["sample"], "rows", "left_out", "kept_by_filter", "complete", "used") })), // prettier-ignore
    theories: each(results["theories"], (one) => one),
  };
}

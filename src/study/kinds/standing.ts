import { columnsBehind, filterInputs, filtersBehind, namesBehind } from "../model/dependencies";
import type { Variable } from "../model/variable";
import type { StudyContext, StudyParts } from "../model/context";
import { type AnyKept, askedKind, KEPT, keptKind, TOLD } from "./kinds";
import { type Needs, type Ref, refKey } from "./kind";

/** What stands on what: drawn from the definitions alone. */

type Lists = StudyParts & Readonly<Record<string, unknown>>;

/** A study's objects of a kind. */
export function objectsOf(study: object, kind: Pick<AnyKept, "list">): readonly unknown[] {
  return ((study as Record<string, unknown>)[kind.list] as readonly unknown[] | undefined) ?? [];
}

/** An object of a study, kept under a kind and an id. */
export function objectAt(study: object, { kind, id }: Ref): unknown {
  const of = keptKind(kind);
  return objectsOf(study, of).find((object) => of.idOf(object) === id);
}

/** The needs with those of the objects that are needed: these count like its own. */
function withObjects(study: StudyParts, needs: Needs): { names: string[]; filters: string[]; refs: Ref[] } {
  const all = { names: needs.names.map(({ name }) => name), filters: (needs.filters ?? []).filter((id) => id !== null), refs: [] as Ref[] };
  all.refs.push(...(needs.objects ?? []), ...(needs.looksAt ?? []));
  for (const ref of needs.objects ?? []) {
    const object = objectAt(study, ref);
    if (object === undefined) continue;
    const inner = withObjects(study, keptKind(ref.kind).needs(object, study));
    all.names.push(...inner.names);
    all.filters.push(...inner.filters);
    all.refs.push(...inner.refs);
  }
  return all;
}

/**
 * Only what a computation depends on, so that other changes leave its result alone, and the columns of the file it needs.
 * @param file every column of the data file
 */
export function contextFor(
  study: StudyParts,
  needs: Needs,
  file: readonly string[],
): { context: Required<StudyContext>; columns: string[] } {
  const { names, filters: chosen } = withObjects(study, needs);
  const named = [...chosen, ...filtersBehind(study, namesBehind(study, names))];
  const filters = study.filters.filter((f) => f.everywhere || named.includes(f.id));
  const behind = namesBehind(study, [...names, ...filters.flatMap((f) => filterInputs(f))]);
  const all = new Set(file);
  const needed = columnsBehind(study, names, named).filter((name) => all.has(name));
  // a formula of numbers alone stands on no column, but is as long as one
  const columns = needed.length > 0 ? needed : file.slice(0, 1);
  const wanted = new Set([...behind, ...columns]);
  const context = {
    codebook: rowsOf(study, wanted).map((v) => ({ ...v, label: "", question: "", short: "", unit: "", note: "", asIs: false })),
    // only what makes their scores: how else they are looked at moves nothing that stands on them
    scales: study.scales
      .filter((s) => behind.has(s.id))
      .map((s) => ({ ...s, name: "-", weightsFrom: "", respondents: null, byGroup: null })),
    corrections: study.corrections.filter((c) => wanted.has(c.variable)),
    // only how the answers are read that are wanted: what else shares the words moves nothing
    readings: study.readings.flatMap((r) => {
      const variables = r.variables.filter((name) => wanted.has(name));
      return variables.length === 0 ? [] : [{ ...r, name: "-", variables }];
    }),
    derived: study.derived.filter((d) => behind.has(d.name)),
    filters: filters.map((f) => ({ ...f })),
  };
  return { context, columns };
}

const places = new WeakMap<readonly Variable[], ReadonlyMap<string, number>>();

/** Rows of the codebook by name, in its order. */
function rowsOf({ codebook }: StudyParts, wanted: ReadonlySet<string>): Variable[] {
  const known = places.get(codebook) ?? new Map(codebook.map((v, at) => [v.name, at]));
  places.set(codebook, known);
  const at = [...wanted].flatMap((name) => known.get(name) ?? []).sort((a, b) => a - b);
  return at.map((place) => codebook[place]!);
}

/** Everything something stands on, directly and through others. */
function standsOn(study: StudyParts, needs: Needs): Set<string> {
  const { names, filters, refs } = withObjects(study, needs);
  const held = study.filters.filter((f) => f.everywhere || filters.includes(f.id));
  const behind = namesBehind(study, [...names, ...held.flatMap((f) => filterInputs(f))]);
  return new Set([
    ...[...behind].map((id) => refKey({ kind: "name", id })),
    ...[...filtersBehind(study, behind), ...held.map((f) => f.id)].map((id) => refKey({ kind: "filter", id })),
    ...refs.map(refKey),
  ]);
}

/** What a change on the trail was made to. */
export interface Touch {
  subject: string;
  id: string;
  from: unknown;
}

/** How others stand on something: on variables, derived variables and scales by their names; a correction changes its variable. */
function keyOf(kind: string, id: string): string {
  if (kind === "correction") return refKey({ kind: "name", id: id.slice(id.indexOf(":") + 1) });
  return refKey({ kind: ["variable", "derived", "scale"].includes(kind) ? "name" : kind, id });
}

/** What a change was made to, as others stand on it: a reading changes every variable it reads or has read. */
function keysOf(study: Lists, { subject, id, from }: Touch): string[] {
  if (subject !== "reading") return [keyOf(subject, id)];
  const readings = [from, objectAt(study, { kind: subject, id })] as ({ variables: string[] } | null | undefined)[];
  return readings.flatMap((r) => r?.variables ?? []).map((name) => refKey({ kind: "name", id: name }));
}

/** An object of a study, by what it is called. */
export interface Called extends Ref {
  readonly name: string;
}

const called = (kind: AnyKept, object: unknown): Called => ({ kind: kind.kind, id: kind.idOf(object), name: kind.nameOf(object) });

/** The objects of a study whose numbers a change could move. */
export function touchedBy(study: Lists, changes: readonly Touch[]): Called[] {
  // a filter that was taken away held for all while it was there
  const all = changes.some(
    (c) => c.subject === "responses" || (c.subject === "filter" && (c.from as { everywhere?: boolean } | null)?.everywhere === true),
  );
  const changed = changes.flatMap((change) => keysOf(study, change));
  return TOLD.flatMap((kind) =>
    objectsOf(study, kind)
      .filter((object) => {
        if (all || changes.some((c) => c.subject === kind.kind && c.id === kind.idOf(object))) return true;
        const behind = standsOn(study, kind.needs(object, study, []));
        return changed.some((key) => behind.has(key));
      })
      .map((object) => called(kind, object)),
  );
}

/** The objects that name something directly, or take a setting from it. */
export function usedBy(study: Lists, { kind, id }: Ref): Called[] {
  return KEPT.flatMap((of) =>
    objectsOf(study, of)
      .filter((object) => {
        const needs = of.needs(object, study);
        if (keyOf(of.kind, of.idOf(object)) === refKey({ kind, id })) return false;
        if (kind === "name" && needs.names.some((one) => one.name === id)) return true;
        if (kind === "filter") return needs.filters?.includes(id) ?? false;
        return [...(needs.objects ?? []), ...(needs.looksAt ?? [])].some((ref) => ref.kind === kind && ref.id === id);
      })
      .map((object) => called(of, object)),
  );
}

/** Something asked of a study: the bare spec, what it stands on, and the columns it needs. */
export function asked(name: string, of: unknown, study: StudyParts, file: readonly string[]) {
  const kind = askedKind(name);
  const { context, columns } = contextFor(study, kind.needs(of, study, file), file);
  return { kind: name, spec: kind.specOf(of, study), context, columns };
}

import type { FactorSolution } from "@/core/factors/factor-solution";
import type { LadderFit } from "@/core/regression/ladder";
import type { ImportanceResult } from "../../analyse/analyse-importance";
import type { LadderResult } from "../../analyse/analyse-ladder";
import type { MeansResult } from "../../analyse/analyse-means";
import type { ProbeResult } from "../../analyse/analyse-probe";
import type { ScaleResult } from "../../analyse/analyse-scale";
import type { SearchResult } from "../../analyse/analyse-search";
import type { StructureAnalysis, StructureResult } from "../../analyse/analyse-structure";
import type { Stand } from "../../analyse/analyse-theory";
import type { GroupsResult } from "../../analyse/analyse-groups";
import { drawnMeans, drawnReading } from "../../analyse/probe-figures";
import { type ProbeReading, readProbe } from "../../analyse/read-probe";
import type { Groups } from "../../model/groups";
import type { Importance } from "../../model/importance";
import type { Ladder } from "../../model/ladder";
import type { Look } from "../../model/look";
import type { Means } from "../../model/means";
import type { Probe } from "../../model/probe";
import type { ReplicateIntervals } from "../../model/replicate-intervals";
import type { Search } from "../../model/search";
import type { Structure } from "../../model/structure";
import type { Study } from "../../model/study";
import type { AnalysisSample } from "../../prepare/analysis-sample";
import { withReplicateIntervals } from "../ladder/with-intervals";
import type { Titles } from "../level-title";
import type { Looked } from "../look-words";

/** What a manuscript is composed from: the study, and those of its results that are there. */
export interface Source {
  study: Study;
  title: Titles;
  scales: ReadonlyMap<string, ScaleResult>;
  look: { look: Look; found: Looked } | null;
  ladders: ReadonlyMap<string, LadderResult>;
  probes: ReadonlyMap<string, ProbeResult>;
  means: ReadonlyMap<string, MeansResult>;
  groups: ReadonlyMap<string, GroupsResult>;
  structures: ReadonlyMap<string, StructureResult>;
  searches: ReadonlyMap<string, SearchResult>;
  importance: ReadonlyMap<string, ImportanceResult>;
  /** By kind and id, as refKey has it: intervals of what takes them from replicates; null: there are none, and none will come. */
  replicates: ReadonlyMap<string, ReplicateIntervals | null>;
  stands: ReadonlyMap<string, Stand>;
}

/** A source of which nothing is there yet. */
export const bareSource = (study: Study, title: Titles): Source => ({
  study,
  title,
  scales: new Map(),
  look: null,
  ladders: new Map(),
  probes: new Map(),
  means: new Map(),
  groups: new Map(),
  structures: new Map(),
  searches: new Map(),
  importance: new Map(),
  replicates: new Map(),
  stands: new Map(),
});

/** A ladder with its numbers; intervals are those it asks for, and none stand in place of another kind. */
export interface FittedSource {
  ladder: Ladder;
  fit: LadderFit;
  sample: AnalysisSample;
  drawn: ReplicateIntervals | null;
}

/** Null: it is not there, cannot be fitted, or its numbers belong to another shape of it. */
export function fittedLadder({ study, ladders, replicates }: Source, id: string | undefined): FittedSource | null {
  const ladder = study.ladders.find((l) => l.id === id);
  const found = ladder && ladders.get(ladder.id);
  if (found?.status !== "fitted" || found.stepIds.join() !== ladder!.steps.map((s) => s.id).join()) return null;
  const drawn = replicates.get(`ladder ${ladder!.id}`) ?? null;
  const fit = ladder!.intervals.by === "normal" ? found.fit : withReplicateIntervals(found.fit, drawn);
  return { ladder: ladder!, fit, sample: found.sample, drawn };
}

export interface ProbedSource {
  probe: Probe;
  ladder: Ladder;
  result: Extract<ProbeResult, { status: "probed" }>;
  reading: ProbeReading;
}

export function probedStep({ study, probes, replicates }: Source, id: string | undefined): ProbedSource | null {
  const probe = study.probes.find((p) => p.id === id);
  const ladder = study.ladders.find((l) => l.id === probe?.ladder);
  const result = probe && probes.get(probe.id);
  if (!ladder || result?.status !== "probed") return null;
  const known = [probe!.focal, ...probe!.moderators.map((m) => m.variable)];
  if (!known.every((name) => result.numbers.has(name) || result.cases.has(name))) return null;
  const read = readProbe(probe!, result.ground, probe!.metric);
  const drawn = replicates.get(`probe ${probe!.id}`);
  return {
    probe: probe!,
    ladder,
    result,
    reading: drawn ? drawnReading(read, result.ground, result.step - 1, probe!.metric, drawn) : read,
  };
}

export interface MeansSource {
  means: Means;
  ladder: Ladder;
  told: Extract<MeansResult, { status: "told" }>;
}

export function toldMeans({ study, means, replicates }: Source, id: string | undefined): MeansSource | null {
  const own = study.means.find((m) => m.id === id);
  const ladder = study.ladders.find((l) => l.id === own?.ladder);
  const result = own && means.get(own.id);
  if (!ladder || result?.status !== "told") return null;
  const drawn = replicates.get(`means ${own!.id}`);
  const told = drawn ? { ...result, reading: drawnMeans(result.reading, result.ground, result.step - 1, drawn) } : result;
  return { means: own!, ladder, told };
}

export interface GroupsSource {
  groups: Groups;
  ladder: Ladder;
  result: Extract<GroupsResult, { status: "compared" }>;
  beside: { boot: ReplicateIntervals | null; shuffled: null };
}

export function comparedGroups({ study, groups, replicates }: Source, id: string | undefined): GroupsSource | null {
  const own = study.groups.find((g) => g.id === id);
  const ladder = study.ladders.find((l) => l.id === own?.ladder);
  const result = own && groups.get(own.id);
  if (!ladder || result?.status !== "compared") return null;
  return { groups: own!, ladder, result, beside: { boot: replicates.get(`groups ${own!.id}`) ?? null, shuffled: null } };
}

export interface StructureSource {
  structure: Structure;
  analysis: StructureAnalysis;
  solution: FactorSolution;
}

export function exploredStructure({ study, structures }: Source, id: string | undefined): StructureSource | null {
  const structure = study.structures.find((s) => s.id === id);
  const result = structure && structures.get(structure.id);
  if (result?.status !== "explored" || !result.analysis.solution) return null;
  return { structure: structure!, analysis: result.analysis, solution: result.analysis.solution };
}

export interface SearchSource {
  search: Search;
  ladder: Ladder;
  told: Extract<SearchResult, { status: "told" }>;
}

export function toldSearch({ study, searches }: Source, id: string | undefined): SearchSource | null {
  const search = study.searches.find((s) => s.id === id);
  const ladder = study.ladders.find((l) => l.id === search?.ladder);
  const told = search && searches.get(search.id);
  return ladder && told?.status === "told" ? { search: search!, ladder, told } : null;
}

export interface ImportanceSource {
  importance: Importance;
  ladder: Ladder;
  told: Extract<ImportanceResult, { status: "told" }>;
}

export function toldImportance({ study, importance }: Source, id: string | undefined): ImportanceSource | null {
  const own = study.importances.find((i) => i.id === id);
  const ladder = study.ladders.find((l) => l.id === own?.ladder);
  const told = own && importance.get(own.id);
  return ladder && told?.status === "told" ? { importance: own!, ladder, told } : null;
}

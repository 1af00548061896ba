import { correlationEvidence, everyOne } from "@/core/planning/evidence";
import { effectOf, respondentsFor } from "@/core/planning/power";
import { type Evidence, normalTheory } from "@/core/planning/verdict";
import { pairCorrelations } from "@/core/describe/pair-correlations";
import { betaDifference } from "@/core/regression/beta-difference";
import type { Estimate } from "@/core/regression/coefficients";
import { covariance } from "@/core/regression/covariance";
import { heldAtLevel } from "@/core/regression/design-point";
import { type LadderFit, type LadderModels, ladderTables } from "@/core/regression/ladder";
import { type ProbeGround, probeGround } from "@/core/regression/probe-ground";
import { effectAlong, type FocalEffect, predictionContrast, simpleEffect } from "@/core/regression/simple-effects";
import { columnKey } from "@/core/regression/terms";
import type { Combined, Figure } from "@/core/resampling/figures/figure";
import type { Desk } from "../kinds/kind";
import { Groups } from "../model/groups";
import type { HeldPlace, Hypothesis, RestsOn } from "../model/hypothesis";
import { activeTerms, type Ladder } from "../model/ladder";
import type { AnalysisSample } from "../prepare/analysis-sample";
import { analyseGroups, type GroupsResult } from "./analyse-groups";
import { modifies } from "./analyse-probe";
import { fitLadderOf } from "./analyse-ladder";
import { ownShare } from "./analyse-power";
import { effectFigure } from "./probe-figures";
import type { ProbePlace } from "./read-probe";
import type { Refusal } from "./refusal";
import { type Draws, groupEvidence, stepDraws } from "./theory-replicates";

/** Why a hypothesis waits. */
export type Waits =
  | { for: "ladder" }
  | { for: "open" }
  | { for: "path" }
  | { for: "step"; step: number }
  /** The step has no such coefficient, and why. */
  | { for: "coefficient"; why: "off" | "later" | "removed" | "level" | "dropped" }
  | { for: "product"; focal: string; moderator: string }
  | { for: "level"; variable: string; level: string }
  | { for: "name"; name: string }
  | { for: "filter" }
  | { for: "smallest-effect" }
  | { for: "test" }
  | { for: "refused"; refusal: Refusal };

/** How an estimate was tested. */
export type Test =
  | { by: "t"; t: number | null; df: number | null }
  | { by: "F"; F: number; df: readonly [number, number] }
  | { by: "chi2"; chi2: number; df: number }
  | { by: "replicates"; replicates: number };

/** What a hypothesis rests on, as it came out. */
export interface Found {
  estimate: number;
  test: Test;
  n: number;
  /** From 1; null: of no step. */
  step: number | null;
  exploratoryOf: Ladder | null;
  rowsUsed: AnalysisSample["rowsUsed"] | null;
  /** Evidence that can lie on one side; null: a test of something that cannot. */
  evidence: Evidence | null;
  /** Of what cannot: its p against nothing, and its limits at 1 − α. */
  fixed: { p: number; interval: { lower: number; upper: number } | null } | null;
  /** Respondents who would show an effect of a size with a power of .80; null: not even ten million. Not told of what is not a β. */
  would?: (delta: number) => number | null;
}

/** A ladder that hypotheses rest on, fitted once; or why not. */
export type Ground =
  | { status: "fitted"; ladder: Ladder; models: LadderModels; fit: LadderFit; sample: AnalysisSample; grounds: Map<number, ProbeGround | null>; groups: Map<string, GroupsResult>; would: Map<string, number | null>; pieces: Map<Hypothesis, Piece[] | Waits>; drawn: Map<number, { figures: Figure[]; draws: Draws | { refusal: Refusal } | null }> } // prettier-ignore
  | { status: "refused"; refusal: Refusal };
type Fitted = Extract<Ground, { status: "fitted" }>;

/** @param alpha all its intervals are at 1 − α */
export function groundOf(ladder: Ladder, alpha: number, { study, responses, columns }: Desk): Ground {
  const at = { ...ladder, confidence: 1 - alpha };
  const found = fitLadderOf(study, at, responses, columns);
  if (found.status === "refused") return { status: "refused", refusal: found.refusal };
  return { status: "fitted", ladder: at, models: found.models, fit: ladderTables(found.models), sample: found.sample, grounds: new Map(), groups: new Map(), would: new Map(), pieces: new Map(), drawn: new Map() }; // prettier-ignore
}

/** Tells a ladder that takes its intervals from replicates of which figures it will be asked: all of a step are drawn at once. */
export function announce(h: Hypothesis, of: Fitted): void {
  const at = h.step ?? of.fit.steps.length;
  if (of.ladder.intervals.by === "normal" || at > of.fit.steps.length) return;
  const figures = figuresOf(h, of, at);
  if (figures.length === 0) return;
  const known = of.drawn.get(at) ?? { figures: [], draws: null };
  const told = new Set(known.figures.map((figure) => JSON.stringify(figure)));
  known.figures.push(...figures.filter((figure) => !told.has(JSON.stringify(figure))));
  of.drawn.set(at, known);
}

function figuresOf(h: Hypothesis, of: Fitted, at: number): Figure[] {
  if (h.rests.on === "change") return [{ kind: "dR2", step: at - 1 }];
  if (["open", "correlation", "indirect", "groups"].includes(h.rests.on)) return [];
  const pieces = piecesOnce(h, of, at);
  return Array.isArray(pieces) ? pieces.map(({ figure }) => figure) : [];
}

/** Evidence of some of the figures that were announced; null: the ladder goes by normal theory. */
function drawnEvidence(of: Fitted, at: number, figures: readonly Figure[], desk: Desk) {
  const asked = of.drawn.get(at);
  if (!asked) return null;
  asked.draws ??= stepDraws(of.ladder, at, asked.figures, desk);
  const { draws } = asked;
  if ("refusal" in draws) return draws;
  const places = asked.figures.map((figure) => JSON.stringify(figure));
  return { replicates: draws.replicates, evidence: figures.map((figure) => draws.evidence(places.indexOf(JSON.stringify(figure)))) };
}

function piecesOnce(h: Hypothesis, of: Fitted, at: number): Piece[] | Waits {
  const known = of.pieces.get(h) ?? piecesOf(h, of, at);
  of.pieces.set(h, known);
  return known;
}

/** What a hypothesis about a ladder rests on, once all of them have been announced. @param desk of the study */
export function restsFound(h: Hypothesis, of: Fitted, desk: Desk): Found | Waits {
  const at = h.step ?? of.fit.steps.length;
  if (at > of.fit.steps.length) return { for: "step", step: at };
  const { rests } = h;
  const base = { n: of.sample.used, step: at, exploratoryOf: of.ladder, rowsUsed: of.sample.rowsUsed };
  switch (rests.on) {
    case "open":
    case "correlation":
      return { for: "open" };
    case "indirect":
      return { for: "path" };
    case "change": {
      const { change, changeInterval } = of.fit.steps[at - 1]!;
      if (change.F === null || change.p === null) return { for: "test" };
      // F tests a share of variance against nothing; replicates of what cannot be below 0 could not, but give its limits
      const drawn = drawnEvidence(of, at, [{ kind: "dR2", step: at - 1 }], desk);
      const limits = drawn === null ? changeInterval : "refusal" in drawn ? null : drawn.evidence[0]!.interval(of.ladder.confidence);
      const interval = limits && { lower: limits.lower, upper: limits.upper };
      return { ...base, estimate: change.change, test: { by: "F", F: change.F, df: change.df }, evidence: null, fixed: { p: change.p, interval } }; // prettier-ignore
    }
    case "groups":
      return groupsFound(rests, of, at, desk);
    default: {
      const pieces = piecesOnce(h, of, at);
      if (!Array.isArray(pieces)) return pieces;
      const drawn = drawnEvidence(of, at, pieces.map(({ figure }) => figure), desk); // prettier-ignore
      if (drawn && "refusal" in drawn) return { for: "refused", refusal: drawn.refusal };
      const each = pieces.map(({ estimate, df }, i) => (drawn ? drawn.evidence[i]! : normalTheory(estimate.estimate, estimate.se, df)));
      const [first, ...more] = each.filter((one) => one !== null);
      if (!first || more.length + 1 < pieces.length || pieces.some(({ estimate }) => estimate.t === null)) return { for: "test" };
      const evidence = more.length === 0 ? first : everyOne([first, ...more]);
      const nearest = pieces.find(({ estimate }) => estimate.estimate === evidence.estimate) ?? pieces[0]!;
      const test: Test = drawn ? { by: "replicates", replicates: drawn.replicates } : { by: "t", t: nearest.estimate.t, df: nearest.df };
      const would = rests.on === "coefficient" && rests.metric === "beta" ? wouldShow(h, of, at, columnKey(rests.column)) : undefined;
      return { ...base, estimate: evidence.estimate, test, evidence, fixed: null, ...(would && { would }) };
    }
  }
}

/** Power is reckoned by classical errors, whatever the ladder's; hypotheses on the same number ask once. */
function wouldShow(h: Hypothesis, of: Fitted, at: number, column: string): NonNullable<Found["would"]> {
  const { models, fit, ladder, would } = of;
  const step = fit.steps[at - 1]!;
  const oneSided = h.direction !== "none" && h.before;
  return (delta) => {
    const key = `${at} ${column} ${delta} ${oneSided}`;
    const known = would.get(key);
    if (known !== undefined) return known;
    const classical = models.spec.errors === undefined || models.spec.errors.kind === "classical";
    const own = ownShare(classical ? fit : ladderTables(models, { kind: "classical" }), at, column);
    const test = { tested: 1, columns: step.coefficients.length, alpha: 1 - ladder.confidence, oneSided };
    const found = own === null ? null : respondentsFor(0.8, effectOf(delta * delta * own, step.model.R2), test);
    would.set(key, found);
    return found;
  };
}

/** What is told of one number of a step: its estimate by the ladder's errors, and what its replicates are made of. */
interface Piece {
  estimate: Estimate;
  df: number | null;
  figure: Figure;
}

function piecesOf(h: Hypothesis, of: Fitted, at: number): Piece[] | Waits {
  const { rests } = h;
  const step = of.fit.steps[at - 1]!;
  // by the ladder's own errors: t with the residual's degrees of freedom, or those of its clusters
  const df = step.clusters === null ? step.model.df[1] : step.clusters - 1;
  const errors = of.models.spec.errors ?? { kind: "classical" as const };
  const column = (parts: Extract<RestsOn, { on: "coefficient" }>["column"]) => step.coefficients.find((c) => c.column === columnKey(parts));
  if (rests.on === "coefficient") {
    const c = column(rests.column);
    const told = c && (rests.metric === "beta" ? c.beta : c.b);
    if (!told) return { for: "coefficient", why: lacking(rests.column, of, at) };
    return [{ estimate: told, df, figure: { kind: rests.metric, step: at - 1, column: c.column } }];
  }
  if (rests.on === "difference") {
    const missing = [rests.first, rests.second].find((parts) => !column(parts)?.beta);
    if (missing) return { for: "coefficient", why: lacking(missing, of, at) };
    const [first, second] = [columnKey(rests.first), columnKey(rests.second)];
    if (first === second) return { for: "test" };
    const estimate = betaDifference(of.models, at - 1, first, second, errors);
    return estimate ? [{ estimate, df, figure: { kind: "difference", step: at - 1, first, second } }] : { for: "test" };
  }
  const ground = placed(of, at);
  if (!ground) return { for: "test" };
  if (rests.on === "means") {
    const table = ground.design.tables.find((t) => t.variable === rests.variable);
    if (!table) return { for: "name", name: rests.variable };
    const gone = [rests.first, rests.second].find((level) => !table.levels.some((l) => l.level === level));
    if (gone !== undefined) return { for: "level", variable: rests.variable, level: gone };
    const parts = ([[rests.first, 1], [rests.second, -1]] as const).map(([level, weight]) => ({ level, weight })); // prettier-ignore
    const estimate = predictionContrast(ground, parts.map(({ level, weight }) => ({ held: [{ variable: rests.variable, level }], weight }))); // prettier-ignore
    const figure: Combined = { kind: "combined", step: at - 1, parts: parts.map(({ level, weight }) => ({ weight, slope: null, at: heldAtLevel(ground.design, rests.variable, level) })), per: null }; // prettier-ignore
    return estimate ? [{ estimate, df: ground.of.df, figure }] : { for: "test" };
  }
  return slopesOf(rests as Extract<RestsOn, { on: "slope" | "region" }>, of, at, ground);
}

/** A slope at a place, or at both ends of a region: what is a line between them has its smallest and its largest there. */
function slopesOf(rests: Extract<RestsOn, { on: "slope" | "region" }>, of: Fitted, at: number, ground: ProbeGround): Piece[] | Waits {
  const { focal, moderator } = rests;
  const terms = of.ladder.steps.slice(0, at).flatMap(activeTerms);
  if (!modifies(terms, focal.variable, moderator)) return { for: "product", focal: focal.variable, moderator };
  const table = ground.design.tables.find((t) => t.variable === focal.variable);
  if (table && !table.levels.some(({ level }) => level === focal.level && level !== table.reference)) return { for: "coefficient", why: "level" }; // prettier-ignore
  const effect: FocalEffect = table ? { variable: focal.variable, level: focal.level!, minus: table.reference! } : { variable: focal.variable }; // prettier-ignore
  const metric = rests.metric === "beta" ? "z" : "raw";
  const spread = ground.spreads.get(moderator);
  let places: ProbePlace[];
  if (rests.on === "slope") {
    const place = placeOf(rests.at, moderator, ground);
    if (!place) return { for: "level", variable: moderator, level: "level" in rests.at ? rests.at.level : "" };
    places = [place];
  } else {
    if (!spread) return { for: "test" };
    const along = effectAlong(ground, effect, moderator, []);
    if ("reason" in along && along.reason === "not-a-line") return { for: "test" };
    places = [rests.from ?? spread.min, rests.to ?? spread.max].map((value) => placeOf({ value }, moderator, ground)!);
  }
  const pieces = places.map((place): Piece | null => {
    const estimate = simpleEffect(ground, effect, place.held, metric);
    return estimate && { estimate, df: ground.of.df, figure: effectFigure(ground, at - 1, effect, place, metric) };
  });
  return pieces.every((piece) => piece !== null) ? pieces : { for: "test" };
}

function placeOf(at: HeldPlace, variable: string, ground: ProbeGround): ProbePlace | null {
  const told = (label: string, value: number | null): ProbePlace => ({ key: label, at: [{ variable, label, value }], held: [value === null ? { variable, level: label } : { variable, value }] }); // prettier-ignore
  const table = ground.design.tables.find((t) => t.variable === variable);
  if ("level" in at) return table?.levels.some(({ level }) => level === at.level) ? told(at.level, null) : null;
  const spread = ground.spreads.get(variable);
  if (!spread) return null;
  if ("value" in at) return told(String(at.value), at.value);
  return told(at.place, spread.centre + { low: -1, mean: 0, high: 1 }[at.place] * spread.sd);
}

function placed(of: Fitted, at: number): ProbeGround | null {
  const known = of.grounds.get(at);
  if (known !== undefined) return known;
  const errors = covariance(of.models.fits[at - 1]!, of.models.spec.errors ?? { kind: "classical" });
  const made = "reason" in errors ? null : probeGround(of.models, at - 1, errors);
  of.grounds.set(at, made);
  return made;
}

/** Why a step has no such coefficient. */
function lacking(parts: Extract<RestsOn, { on: "coefficient" }>["column"], { ladder, models }: Fitted, at: number) {
  const own = parts.map(({ variable }) => variable).sort().join("\n"); // prettier-ignore
  const holds = (terms: readonly { components: readonly string[] }[]) => terms.some(({ components }) => [...components].sort().join("\n") === own); // prettier-ignore
  if (holds(ladder.steps.slice(0, at).flatMap(activeTerms))) {
    const dropped = models.fits[at - 1]!.dropped.some(({ column }) => column === columnKey(parts));
    return dropped ? ("dropped" as const) : ("level" as const);
  }
  if (holds(ladder.steps.slice(at).flatMap(activeTerms))) return "later" as const;
  return holds(ladder.steps.flatMap(({ terms }) => terms)) ? ("off" as const) : ("removed" as const);
}

function groupsFound(rests: Extract<RestsOn, { on: "groups" }>, of: Fitted, at: number, desk: Desk): Found | Waits {
  const { variable } = rests;
  const key = `${at} ${variable}`;
  const asked = Groups.parse({ id: "-", ladder: of.ladder.id, step: at, variable });
  const result = of.groups.get(key) ?? analyseGroups({ groups: asked, ladder: of.ladder }, desk);
  of.groups.set(key, result);
  if (result.status === "refused") return { for: "refused", refusal: result.refusal };
  const base = { n: result.sample.used, step: at, exploratoryOf: of.ladder, rowsUsed: result.sample.rowsUsed };
  const column = columnKey(rests.column);
  if (!result.columns.some((c) => c.column === column)) return { for: "coefficient", why: lacking(rests.column, of, at) };
  if (rests.first === null || rests.second === null) {
    const { alike } = result.terms.find(({ term }) => term === result.columns.find((c) => c.column === column)!.term)!;
    if (alike.chi2 === null || alike.p === null) return { for: "test" };
    return { ...base, estimate: alike.chi2, test: { by: "chi2", chi2: alike.chi2, df: alike.df }, evidence: null, fixed: { p: alike.p, interval: null } }; // prettier-ignore
  }
  const [first, second] = [rests.first, rests.second].map((level) => result.groups.findIndex(({ levels }) => levels.includes(level)));
  for (const [place, level] of [[first, rests.first], [second, rests.second]] as const) if (place === -1) return { for: "level", variable, level }; // prettier-ignore
  const metric = rests.metric === "beta" ? "all" : "raw";
  const told = result.differences[metric].find((d) => d.column === column && ((d.first === first && d.second === second) || (d.first === second && d.second === first))); // prettier-ignore
  if (!told || told.estimate === null || told.se === null || told.z === null) return { for: "test" };
  const sign = told.first === first ? 1 : -1;
  const estimate = sign * told.estimate;
  if (of.ladder.intervals.by === "normal") {
    const evidence = normalTheory(estimate, told.se, null);
    return evidence ? { ...base, estimate, test: { by: "t", t: sign * told.z, df: null }, evidence, fixed: null } : { for: "test" };
  }
  const drawn = groupEvidence(of.ladder, asked, { of: metric === "all" ? "beta" : "b", column, first: first!, second: second! }, desk);
  if ("refusal" in drawn) return { for: "refused", refusal: drawn.refusal };
  const { evidence } = drawn;
  return { ...base, estimate: evidence.estimate, test: { by: "replicates", replicates: drawn.replicates }, evidence, fixed: null };
}

/** A correlation among the respondents who have both. */
export function correlationFound(
  { x, y, respondents }: Extract<RestsOn, { on: "correlation" }>,
  { study, columns, rows }: Desk,
): Found | Waits {
  if (respondents !== null && !study.filters?.some((f) => f.id === respondents)) return { for: "filter" };
  const kept = columns.kept(rows, respondents);
  const [a, b] = [columns.numbers(x), columns.numbers(y)];
  const used = [...kept.keys()].filter((row) => kept[row] === 1 && !a.missing[row] && !b.missing[row]);
  const take = (values: Float64Array) => ({ values: Float64Array.from(used, (row) => values[row]!), missing: new Uint8Array(used.length) });
  const r = used.length < 2 ? NaN : pairCorrelations([take(a.values), take(b.values)], "pearson").r[1]!;
  const evidence = correlationEvidence(r, used.length);
  if (!evidence) return { for: "test" };
  const df = used.length - 2;
  const t = r * Math.sqrt(df / ((1 - r) * (1 + r)));
  return { estimate: r, test: { by: "t", t, df }, n: used.length, step: null, exploratoryOf: null, rowsUsed: null, evidence, fixed: null };
}

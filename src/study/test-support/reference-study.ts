import type { ReferenceBlock, ReferenceSet } from "@/core/test-support/reference-set";
import { Study } from "../model/study";
import { ownProbes, probesOf } from "./reference-probes";

type Setting = Record<string, unknown>;

/** The study a set describes: its codebook, its scales, and a ladder for the set and for each block with steps of its own. */
export function studyOf(set: ReferenceSet): Study {
  const { json } = set;
  const codebook = Object.entries<any>(json.data.columns).map(([name, column]) => ({
    name,
    kind: column.kind === "category" ? "category" : "number",
    missing: column.missing,
    levels: (column.levels ?? []).map((value: string) => ({ value })),
    range: column.min === undefined ? null : { low: column.min, high: column.max },
  }));
  const spec = json.spec;
  const scales = Object.entries<any>(spec.scales ?? {}).flatMap(([id, scale]) =>
    [
      ["mean", { rule: "mean" }],
      ["sum", { rule: "sum" }],
      ["half", { rule: "mean", answeredShare: 0.5 }],
      ["weighted_x", { rule: "weighted" }],
      ["weighted_z", { rule: "weighted", weigh: "z" }],
    ].map(([name, rule]) => ({
      id: `${id}_${String(name)}`,
      name: id,
      ...(rule as Setting),
      items: scale.items.map((variable: string, i: number) => ({
        variable,
        reversed: scale.reversed.includes(variable),
        weight: (set.expected[`scores_${id}`] as any).weights[i],
      })),
    })),
  );
  const twoItems = (set.expected.two_items as any)?.items as string[] | undefined;
  if (twoItems) scales.push({ id: "two_items", name: "two_items", items: twoItems.map((variable) => ({ variable })) as any });
  const factored = spec.scales ? factoring(spec) : { structures: [], scores: [] };
  const filterOf = (filter: any) => filter && { variable: filter.column, equals: filter.equals };
  const categories = (coding?: string) =>
    Object.entries<any>(spec.categorical ?? {}).map(([variable, c]) => ({ variable, coding: coding ?? c.coding, reference: c.reference }));
  const everyVariable = [...new Set((spec.steps ?? []).flat().flatMap((term: string) => term.split("*")))];
  const ladder = (id: string, own: Setting = {}) => ({
    id,
    name: id,
    outcome: spec.outcome,
    centring: spec.centring ?? "mean",
    cluster: spec.cluster ?? null,
    filter: filterOf((own.filter as any) ?? spec.filter) ?? null,
    order: spec.order ? { by: "variable", variable: spec.order } : null,
    categories: categories(),
    ...own.over!,
    steps: ((own.steps as string[][]) ?? spec.steps).map((terms, k) => ({
      id: `s${k + 1}`,
      terms: terms.map((term) => ({ components: term.split("*") })),
    })),
  });
  const ladders = spec.steps ? [ladder("main")] : [];
  const comparisons: Setting[] = [];
  for (const [name, block] of Object.entries<any>(set.expected)) {
    if (ladders.length === 0 || spec.group) break;
    // a block with steps of its own is fitted on the sample of the set, unless it filters anew
    if (block.spec) ladders.push(ladder(name, { ...block.spec, over: block.spec.filter ? {} : { alsoComplete: everyVariable } }));
    if (name === "deviation_coding") ladders.push(ladder(name, { over: { categories: categories("deviation") } }));
    if (name === "other_centring")
      for (const centring of Object.keys(block.values)) ladders.push(ladder(`${name}_${centring}`, { over: { centring } }));
    if (block.models) {
      for (const [model, terms] of Object.entries<string[]>(block.models))
        ladders.push(ladder(`${name}_${model}`, { steps: [terms], over: { alsoComplete: everyVariable } }));
      comparisons.push({
        id: name,
        name,
        folds: spec.folds ?? null,
        models: Object.keys(block.models).map((model) => ({ name: model, ladder: `${name}_${model}` })),
      });
    }
  }
  const asked = ladders.length === 0 ? [] : probesOf(set);
  if (asked.some(({ hc3 }) => hc3)) ladders.push(ladder("main_hc3", { over: { errors: "hc3" } }));
  return Study.parse({
    format: "beta-step-study",
    version: 1,
    name: "reference",
    codebook,
    scales: [...scales, ...factored.scores],
    structures: factored.structures,
    ladders,
    comparisons,
    probes: asked.map(({ probe }) => probe),
    residuals: set.expected.envelope ? [{ id: "envelope", ladder: "main" }] : [],
    importances: set.expected.importance
      ? [
          { id: "no_controls", ladder: "main" },
          { id: "first_step_as_controls", ladder: "main", controls: 1 },
        ]
      : [],
    searches: spec.candidates
      ? [
          { id: "search", ladder: "main", candidates: spec.candidates, folds: spec.folds },
          { id: "other_limits", ladder: "main", candidates: spec.candidates, enter: spec.other_limits[0], leave: spec.other_limits[1] },
          { id: "coarse", ladder: "main", candidates: spec.candidates, epsilon: 0.05 },
          { id: "short", ladder: "main", candidates: spec.candidates, steps: 20 },
        ]
      : [],
    looks: spec.variables ? looksOf(spec) : [],
    groups: spec.group && spec.steps ? [{ id: "groups", ladder: "main", variable: spec.group, shuffles: 4000 }] : [],
  });
}

/** Every combination of controls that a block of partial correlations may hold. */
function looksOf({ variables, group }: { variables: string[]; group: string }): Setting[] {
  const subsets = variables.reduce<string[][]>((all, name) => [...all, ...all.map((some) => [...some, name])], [[]]);
  const look = (id: string, own: Setting) => ({ id, name: id, variables, by: group, ...own });
  return [
    look("pairwise", { scatters: [{ id: "lines", x: variables[0], y: variables[2], by: group }] }),
    look("complete", { cases: "complete" }),
    look("with_group", { variables: [group, ...variables], by: null }),
    ...subsets.filter((some) => some.length > 0 && some.length < variables.length - 1).map((controls) =>
      look(`given_${controls.join("_")}`, { variables: variables.toSorted((a, b) => Number(a === "species") - Number(b === "species")), by: null, controls }),
    ),
  ]; // prettier-ignore
}

/** Ours for a block about variables. */
function lookOf(name: string, block: ReferenceBlock, looks: any): unknown {
  const { pairwise, complete } = looks;
  const intervals = (of: any) => Object.fromEntries(Object.entries<any>(of.variables).map(([key, v]) => [key, v.interval]));
  const each = (make: (group: any) => unknown) => Object.fromEntries(Object.entries<any>(pairwise.groups).map(([level, of]) => [level, make(of)])); // prettier-ignore
  switch (name) {
    case "description_by_group":
      return each((of) => of.variables);
    case "mean_intervals":
      return { all: intervals(pairwise), ...each(intervals) };
    case "correlations_pairwise":
      return pairwise.correlations;
    case "correlations_listwise":
      return complete.correlations;
    case "spearman_tests":
      return pairwise.spearman;
    case "correlation_differences":
      return pairwise.differences;
    case "point_biserial":
      return looks.with_group.correlations;
    case "fit_lines_by_group":
      return pairwise.scatters.lines.lines;
    case "partial_correlations":
      return Object.fromEntries(
        Object.keys(block.values).map((key) => {
          const [pair, controls] = key.split(" | ");
          return [key, looks[`given_${controls!.replaceAll(", ", "_")}`]?.partial[pair!]];
        }),
      );
    default:
      return undefined;
  }
}

const EXTRACTIONS = ["principal-components", "principal-axis", "maximum-likelihood", "minimum-residual"];
const ROTATIONS = ["none", "varimax", "promax", "oblimin"];

/** Structures for every extraction and rotation of both factor analyses of a set, and a scale for every factor score of it. */
function factoring(spec: any): { structures: Setting[]; scores: Setting[] } {
  const all = Object.values<any>(spec.scales).flatMap((s) => s.items as string[]);
  const reversed = new Set(Object.values<any>(spec.scales).flatMap((s) => s.reversed as string[]));
  const analyses = [
    { id: "efa", items: all, keying: "scales", factors: spec.factor_analysis.factors },
    { id: "efa2", items: spec.second_factor_analysis.items as string[], keying: "asked", factors: spec.second_factor_analysis.factors },
  ];
  const structures = analyses.flatMap(({ id, ...analysis }) =>
    EXTRACTIONS.flatMap((extraction) =>
      ROTATIONS.map((rotation) => ({ id: `${id}_${extraction}_${rotation}`, name: id, ...analysis, extraction, rotation })),
    ),
  );
  const scores = analyses.flatMap(({ id, items, keying, factors }) =>
    ["varimax", "oblimin"].flatMap((rotation) =>
      ["regression", "bartlett"].flatMap((rule) =>
        Array.from({ length: factors }, (_, f) => ({
          id: `${id}_${rotation}_${rule}_${f + 1}`,
          name: id,
          rule,
          factor: { extraction: "maximum-likelihood", rotation, factors, factor: f + 1 },
          items: items.map((variable) => ({ variable, reversed: keying === "scales" && reversed.has(variable) })),
        })),
      ),
    ),
  );
  return { structures, scores };
}

/** Ours for a block about factors. */
function factorsOf(name: string, document: any): unknown {
  const [, id, what] = /^(efa2?)_(.+)$/.exec(name)!;
  if (what === "factor_scores") {
    const first = (scores: (number | null)[]) => scores.filter((score) => score !== null).slice(0, 15);
    const of = (rotation: string, rule: string) => {
      const columns: number[][] = [];
      for (let f = 1; document.scales[`${id}_${rotation}_${rule}_${f}`]; f++)
        columns.push(first(document.scales[`${id}_${rotation}_${rule}_${f}`].scores) as number[]);
      return columns[0]!.map((_, row) => columns.map((column) => column[row]));
    };
    const both = (rotation: string) => ({ regression: of(rotation, "regression"), bartlett: of(rotation, "bartlett") });
    return { varimax: both("varimax"), oblimin: both("oblimin") };
  }
  if (what === "adequacy" || what === "parallel_analysis") return document.structures[`${id}_principal-axis_none`][what];
  const extraction = EXTRACTIONS.find((method) => what!.startsWith(method.replace("-", "_")))!;
  const rotation = what!.slice(extraction.length + 1) || "none";
  const structure = document.structures[`${id}_${extraction}_${rotation}`];
  return structure && (rotation === "none" ? structure.solution.extraction : structure.solution.rotation);
}

/** Ours for a block about groups. */
function groupsOf(name: string, groups: any): unknown {
  return name === "permutation" ? groups.permutation.values : groups[name];
}

/** Ours under the names of a block. Undefined: nothing of ours corresponds to the block. */
export function oursOf(name: string, block: ReferenceBlock, document: any, json: any): unknown {
  const look = document.looks?.pairwise && lookOf(name, block, document.looks);
  if (look) return look;
  const main = document.ladders.main;
  const own = document.ladders[name] ?? main;
  const last = (ladder: any) => ladder.steps[String(Object.keys(ladder.steps).length)];
  if (name.startsWith("efa")) return factorsOf(name, document);
  if (json.spec.group && json.spec.steps) return groupsOf(name, document.groups.groups);
  const probed = document.probes && ownProbes(name, block.values, document);
  if (probed) return document.ladders[name] ? { ...document.ladders[name], ...(probed as object) } : probed;
  const scale = /^(scores|reliability|omega)_(\w+)$/.exec(name);
  if (scale && document.scales[`${scale[2]}_mean`]) {
    const mean = document.scales[`${scale[2]}_mean`];
    if (scale[1] === "reliability") return mean.reliability;
    if (scale[1] === "omega") return mean.reliability.one_factor;
    const scores = (rule: string) => document.scales[`${scale[2]}_${rule}`].scores;
    return {
      mean: scores("mean"),
      sum: scores("sum"),
      mean_half_answered: scores("half"),
      weighted_x: scores("weighted_x"),
      weighted_z: scores("weighted_z"),
      answered: mean.answered,
      description: mean.description,
      scored: mean.description.n,
    };
  }
  switch (name) {
    case "description":
      return document.variables;
    case "columns":
    case "forward_aic":
    case "stepwise_aic":
    case "forward_p":
    case "stepwise_p":
    case "stagewise":
    case "least_angle":
    case "lasso":
    case "lasso_cross_validation":
    case "lasso_chosen":
    case "by_size":
      return document.searches.search?.[name];
    case "stepwise_p_other_limits":
      return document.searches.other_limits.stepwise_p;
    case "stagewise_coarse":
      return document.searches.coarse.stagewise;
    case "stagewise_20_steps":
      return document.searches.short.stagewise;
    case "envelope": {
      const { ranks } = document.residuals.envelope.envelope;
      const of = (rank: number) => ranks[String(rank)];
      return Object.fromEntries(Object.entries<any>(block.values).map(([key, { rank }]) => [key, { rank, ...of(rank) }]));
    }
    case "importance":
      return document.importances;
    case "two_items":
      return document.scales.two_items?.reliability;
    case "standardized":
    case "standardized_indicators_too":
    case "robust_hc3":
    case "cluster_robust":
    case "suppression":
    case "tests":
    case "shapiro_wilk":
    case "durbin_watson":
    case "steps":
    case "sample":
    case "influence":
    case "comparison":
      return main?.[name];
    case "comparison_nested":
      return main.comparison;
    case "comparison_not_nested":
      return document.comparisons[name];
    case "cross_validation_given_folds":
      return document.comparisons.comparison_not_nested.cross_validation;
    case "deviation_coding":
      return { ...own, coding_table: ownTable(own, block) };
    case "other_centring":
      return Object.fromEntries(
        Object.keys(block.values).map((centring) => {
          const step = last(document.ladders[`${name}_${centring}`]);
          return [centring, { ...step, R2: step.model.R2 }];
        }),
      );
    case "marginality":
      return { faults: own.marginality };
    case "marginal_means":
      return ownMeans(main.marginal_means, String(json.spec.steps.length), block);
    case "marginal_means_step2":
      return main.marginal_means["2"];
    case "single_case_level_influence":
      return document.ladders[name].influence;
    case "single_case_level_hc3":
      return document.ladders[name].robust_hc3["1"];
    case "coefficients":
      return last(main).coef;
    case "t_values":
    case "errors":
    case "perfect_fit":
    case "R2": {
      const { coef, model } = last(main);
      const each = (what: string) => Object.fromEntries(Object.entries<any>(coef).map(([column, c]) => [column, c[what]]));
      return { ...model, se: each("se"), t: each("t") };
    }
    default:
      // a block that fits steps of its own: whole ladders, or the last step alone
      return document.ladders[name] && { ...last(own), ...own };
  }
}

/** A coding table of one variable stands bare in its block. */
function ownTable(ladder: any, block: ReferenceBlock): unknown {
  const [first] = Object.keys(ladder.coding_table);
  return first! in block.values.coding_table ? ladder.coding_table : ladder.coding_table[first!];
}

/** Means of one variable stand bare in their block: the variable whose contrasts or places they are. */
function ownMeans(byStep: any, step: string, block: ReferenceBlock): unknown {
  if (!("means" in block.values)) return byStep[step];
  const levels = Object.keys(block.values.means);
  const at = block.values.means.mean?.at;
  return Object.values<any>(byStep[step]).find(
    ({ means }) => levels.every((level) => level in means) && (at === undefined || Math.abs(means.mean.at - at) < 1e-9 * at),
  );
}

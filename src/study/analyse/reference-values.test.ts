import { readdirSync } from "node:fs";
import path from "node:path";
import { lowess } from "@/core/describe/lowess";
import { shapiroWilk } from "@/core/describe/shapiro-wilk";
import { completeColumns, type ReferenceBlock, type ReferenceSet, referenceSet } from "@/core/test-support/reference-set";
import { Study } from "../model/study";
import { analysisSample } from "../prepare/analysis-sample";
import { StudyColumns } from "../prepare/study-columns";
import { sourceOf } from "../test-support/columns";
import { allowance, errorOf, leaves } from "../test-support/reference-blocks";
import { resultsDocument } from "./results-document";

/**
 * Every set and every block of the reference folder against the results document, which the compute command writes: path by
 * path, with the tolerance of the block. What belongs to later capabilities is listed, not skipped.
 */
const SETS = readdirSync(path.join(process.cwd(), "reference"))
  .filter((file) => file.endsWith(".json"))
  .map((file) => file.replace(".json", ""));

/** By section of the contract; a block may hold parts that are compared all the same. */
const LATER: Record<string, string> = {
  "5": "bootstrap intervals",
  "6": "probing products",
  "7": "group comparison",
  "10": "factor exploration",
  "11": "description",
};
/** Paths inside compared blocks that belong to later capabilities. */
const LATER_PARTS: [string, RegExp][] = [
  ["factor-based reliability", /^omega_/],
  ["two-item reliability", /^two_items/],
  ["weighted scores, and a shorter answered share beside the first", /^scores_\w+\/(weighted|mean_half|scored|answered|description)/],
  ["centring products only", /^intercept_if_only_products/],
  ["slopes along a square", /^square\/(slope_of_|predicted)/],
  ["factor exploration and factor scores", /^efa/],
];

type Setting = Record<string, unknown>;

/** The study a set describes: its codebook, its scales, and a ladder for the set and for each block with steps of its own. */
function studyOf(set: ReferenceSet, json: any): Study {
  const codebook = Object.entries<any>(json.data.columns).map(([name, column]) => ({
    name,
    kind: column.kind === "category" ? "category" : "number",
    missing: column.missing.filter((code: string) => code !== ""),
    levels: (column.levels ?? []).map((value: string) => ({ value })),
    range: column.min === undefined ? null : { low: column.min, high: column.max },
  }));
  const spec = json.spec;
  const scales = Object.entries<any>(spec.scales ?? {}).flatMap(([id, scale]) =>
    ["mean", "sum"].map((rule) => ({
      id: `${id}_${rule}`,
      name: id,
      rule,
      items: scale.items.map((variable: string) => ({ variable, reversed: scale.reversed.includes(variable) })),
    })),
  );
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
  const ladders = !spec.steps || spec.group ? [] : [ladder("main")];
  const comparisons: Setting[] = [];
  for (const [name, block] of Object.entries<any>(set.expected)) {
    if (ladders.length === 0) break;
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
  return Study.parse({ format: "beta-step-study", version: 1, name: "reference", codebook, scales, ladders, comparisons });
}

/** Ours under the names of a block. Undefined: nothing of ours corresponds to the block. */
function oursOf(name: string, block: ReferenceBlock, document: any, json: any): unknown {
  const main = document.ladders.main;
  const own = document.ladders[name] ?? main;
  const last = (ladder: any) => ladder.steps[String(Object.keys(ladder.steps).length)];
  const scale = /^(scores|reliability)_(\w+)$/.exec(name);
  if (scale && document.scales[`${scale[2]}_mean`]) {
    const mean = document.scales[`${scale[2]}_mean`];
    return scale[1] === "reliability" ? mean.reliability : { mean: mean.scores, sum: document.scales[`${scale[2]}_sum`].scores };
  }
  switch (name) {
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

/** Blocks that are functions of columns, without a model. */
function ofColumns(set: ReferenceSet, name: string): unknown {
  const values = (column: string, keep = [column]) => completeColumns(set, keep).get(column)!;
  if (name === "shapiro_wilk") {
    const all = Object.fromEntries(["depth", "zone", "species", "chill"].map((c) => [c, shapiroWilk(values(c))]));
    const first = Object.fromEntries([7, 4, 3].map((k) => [`first_${k}`, shapiroWilk(values("species").slice(0, k))]));
    return { ...all, ...first };
  }
  if (name === "lowess") {
    const four = ["depth", "zone", "species", "chill"];
    return {
      smooth: Array.from(lowess(values("depth"), values("species"))),
      with_ties: Array.from(lowess(values("chill", four), values("species", four))),
    };
  }
  return undefined;
}

const lines: string[] = [];
const pending: string[] = [];
afterAll(() => {
  process.stdout.write(`\nLargest error per block\n${lines.join("\n")}\n\nPending, for later capabilities\n${pending.join("\n")}\n\n`);
});

describe.each(SETS)("%s", (name) => {
  const set = referenceSet(name);
  const json = set.json;
  const source = sourceOf(Object.fromEntries(set.cells));
  const study = json.data.csv_jackknife ? null : studyOf(set, json);
  const document: any = study && resultsDocument(study, source);

  test.each(Object.entries(set.expected).map(([block, values]) => ({ block, values })))("$block", ({ block, values }) => {
    const section = String((values as any).section);
    let ours = name === "tide_description" ? ofColumns(set, block) : document ? oursOf(block, values, document, json) : undefined;
    if (block === "sample" && !ours) ours = sampleOf(study!, source, json);
    const label = `  ${name} / ${block}`;
    if (ours === undefined) {
      const optional = (values as any).optional ? "for information only" : undefined;
      const later = optional ?? LATER_PARTS.find(([, path]) => path.test(block))?.[0] ?? LATER[section];
      pending.push(`${label}: ${later}`);
      expect(later).toBeDefined(); // a block nobody computes and nobody plans is a gap
      return;
    }
    const compared = leaves(values.values, ours);
    const isLater = (path: string) => LATER_PARTS.find(([, part]) => part.test(`${block}/${path}`))?.[0] ?? LATER[section];
    const here = compared.filter(({ got, path }) => got !== undefined || isLater(path) === undefined);
    const left = [...new Set(compared.filter((c) => !here.includes(c)).map(({ path }) => path.split("/")[0]))];
    if (left.length > 0) pending.push(`${label}: ${left.join(", ")} (${isLater(left[0]!)})`);
    const worst = here
      .map((c) => ({ path: c.path, error: errorOf(c, values) }))
      .reduce((a, b) => (b.error > a.error ? b : a), {
        path: "",
        error: 0,
      });
    lines.push(
      `${label}: ${worst.error.toExponential(1)} of ${allowance(values).toExponential(1)} allowed, ${here.length} values${worst.path && ` (${worst.path})`}`,
    );
    expect(here.length).toBeGreaterThan(0);
    expect(worst.error <= allowance(values) ? "within" : worst).toBe("within");
  });
});

/** A set whose ladder is a comparison of groups: its sample alone, complete on the group as well. */
function sampleOf(study: Study, source: ReturnType<typeof sourceOf>, { spec }: any): unknown {
  const columns = new StudyColumns(study, source);
  const names: string[] = [...new Set([spec.outcome, ...spec.steps.flat().flatMap((t: string) => t.split("*"))])];
  const read = new Map<string, { missing: Uint8Array }>(names.map((name) => [name, columns.numbers(name)]));
  read.set(spec.group, columns.categories(spec.group));
  const sample = analysisSample(columns.numbers(spec.outcome).values.length, read, null);
  const { rows, used, complete } = sample;
  return {
    rows,
    used,
    complete,
    kept_by_filter: sample.keptByFilter,
    missing_by_variable_among_kept: sample.missingByVariable,
    rows_used: sample.rowsUsed,
  };
}

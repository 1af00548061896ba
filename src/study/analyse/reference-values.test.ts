import { readdirSync } from "node:fs";
import path from "node:path";
import { shapiroWilk } from "@/core/describe/shapiro-wilk";
import { completeColumns, type ReferenceSet, referenceSet } from "@/core/test-support/reference-set";
import { Study } from "../model/study";
import { sourceOf } from "../test-support/columns";
import { allowance, errorOf, leaves } from "../test-support/reference-blocks";
import { oursOf, studyOf } from "../test-support/reference-study";
import { resultsOf } from "../test-support/results";

/**
 * Every set and every block of the reference folder against the results document, which the compute command writes: path by
 * path, with the tolerance of the block. What belongs to later capabilities is listed, not skipped.
 */
const SETS = readdirSync(path.join(process.cwd(), "reference"))
  .filter((file) => file.endsWith(".json"))
  .map((file) => file.replace(".json", ""));

/** Blocks that another test holds: replicates are drawn there, or a λ is chosen freely. */
const ELSEWHERE: Record<string, string> = {
  "garden_ladder/bootstrap": "src/compute/replicates.test.ts",
  "ferry_clusters/bootstrap_clusters": "src/compute/replicates.test.ts",
  "harvest_search/lasso_at_lambda": "src/core/search/search.test.ts",
  "fixed_replicates/limits": "src/core/resampling/resampling.test.ts",
  "water_groups/bootstrap_differences": "src/core/resampling/groups-and-scales.test.ts",
};
/** Paths inside compared blocks that belong to later capabilities. */
const LATER_PARTS: [string, RegExp][] = [["centring products only", /^intercept_if_only_products/]];

/** Blocks of variables, without a ladder of their own: smooths of ladders made for them, and tests of the first values only. */
async function ofVariables(set: ReferenceSet, block: string, document: any, source: ReturnType<typeof sourceOf>): Promise<unknown> {
  if (block === "shapiro_wilk") {
    const species = completeColumns(set, ["species"]).get("species")!;
    const first = Object.fromEntries([7, 4, 3].map((k) => [`first_${k}`, shapiroWilk(species.slice(0, k))]));
    return { ...Object.fromEntries(Object.entries<any>(document.variables).map(([name, v]) => [name, v.shapiro_wilk])), ...first };
  }
  if (block === "lowess") {
    const smooth = async (x: string, alsoComplete: string[]) => {
      const steps = [{ id: "s", terms: [{ components: [x] }] }];
      const ladders = [{ id: "l", name: "l", outcome: "species", alsoComplete, steps }];
      const study = Study.parse({ ...studyOf(set), ladders });
      return (await resultsOf(study, source)).ladders.l.outcome_smooths[x];
    };
    return { smooth: await smooth("depth", []), with_ties: await smooth("chill", ["depth", "zone"]) };
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
  const study = json.data.csv_jackknife ? null : studyOf(set);
  let document: any = null;
  beforeAll(async () => (document = study && (await resultsOf(study, source))));

  test.each(Object.entries(set.expected).map(([block, values]) => ({ block, values })))("$block", async ({ block, values }) => {
    let ours = document ? oursOf(block, values, document, json) : undefined;
    if (name === "tide_description") ours ??= await ofVariables(set, block, document, source);
    const label = `  ${name} / ${block}`;
    if (ours === undefined) {
      const optional = (values as any).optional ? "for information only" : undefined;
      const later = optional ?? LATER_PARTS.find(([, path]) => path.test(block))?.[0] ?? ELSEWHERE[`${name}/${block}`];
      pending.push(`${label}: ${later}`);
      expect(later).toBeDefined(); // a block nobody computes and nobody plans is a gap
      return;
    }
    const compared = leaves(values.values, ours);
    const isLater = (path: string) => LATER_PARTS.find(([, part]) => part.test(`${block}/${path}`))?.[0];
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

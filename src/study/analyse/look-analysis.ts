import { correlationDifference } from "@/core/describe/correlation-tests";
import type { Analysis, Desk } from "../kinds/kind";
import type { Look, LookSpec } from "../model/look";
import { analyseLook, correlationAt, type FirstLook, type LookColumn, type LookPart } from "./analyse-look";
import { analysePair, type PairFit, type Parting } from "./analyse-pair";

/** A look under the names of docs/results.md: both kinds of correlation, whichever the page shows. */
function lookResults(look: Look, desk: Desk) {
  const { variables, respondents, by, cases, correlation, controls } = look;
  const settings = { variables, respondents, by, cases, correlation, controls };
  const found = analyseLook({ ...look, diagonal: "omega" }, desk, "pearson");
  const ranked = analyseLook({ ...look, diagonal: "nothing" }, desk, "spearman");
  if (found.status === "refused" || ranked.status === "refused")
    return { settings, status: "refused" as const, refusal: found.status === "refused" ? found.refusal : null };
  const keys = found.columns.map((c) => c.key);
  const pairs = keys.flatMap((a, i) => keys.slice(i + 1).map((b, k) => ({ name: `${a} ~ ${b}`, i, j: i + 1 + k })));
  const isLevel = (i: number) => found.columns[i]!.zeroOne;
  const byPair = <T>(make: (i: number, j: number) => T) => Object.fromEntries(pairs.map(({ name, i, j }) => [name, make(i, j)]));
  const part = (of: LookPart, ranks: LookPart) => ({
    rows: of.rows,
    variables: Object.fromEntries(of.columns.map((c) => [c.key, columnResults(c)])),
    categories: Object.fromEntries(
      of.categories.map(({ variable, levels }) => [variable, Object.fromEntries(levels.map((l) => [l.level, l.count]))]),
    ),
    correlations: byPair((i, j) => {
      const test = correlationAt(of.table, i, j);
      return test && { ...test, rho: or(ranks.table.r[i * keys.length + j]!), point_biserial: isLevel(i) !== isLevel(j) };
    }),
    spearman: byPair((i, j) => {
      const test = correlationAt(ranks.table, i, j);
      return test && { n: test.n, rho: test.r, t: test.t, df: test.df, p: test.p };
    }),
  });
  return {
    settings,
    status: "looked" as const,
    rows_in_data: found.all,
    kept: found.kept,
    ...part(found, ranked),
    groups: Object.fromEntries(found.groups.map((group, g) => [group.level, part(group, ranked.groups[g]!)])),
    without_group: found.without,
    groups_refused: found.groupsRefused,
    partial: found.partial && byPair((i, j) => correlationAt(found.partial!, i, j, found.controls)),
    differences: byPair((i, j) =>
      Object.fromEntries(
        found.groups.flatMap((first, a) =>
          found.groups.slice(a + 1).map((second) => {
            const at = i * keys.length + j;
            const d = correlationDifference({ n: first.table.n[at]!, r: first.table.r[at]! }, { n: second.table.n[at]!, r: second.table.r[at]! }); // prettier-ignore
            return [`${first.level} - ${second.level}`, d && { n1: d.first.n, n2: d.second.n, r1: d.first.r, r2: d.second.r, difference_of_z: d.difference, se: d.se, z: d.z, p: d.p }]; // prettier-ignore
          }),
        ),
      ),
    ),
    scatters: Object.fromEntries(look.scatters.map((scatter) => [scatter.id, scatterResults(scatter, respondents, desk)])),
    refused: Object.fromEntries(found.refused.map(({ variable, refusal }) => [variable, refusal])),
  };
}

const or = (v: number) => (Number.isNaN(v) ? null : v);

function columnResults({ missing, description, interval, possible, impossible, floor, ceiling, alpha, omega }: LookColumn) {
  return {
    ...description,
    missing,
    interval: interval && { n: description.n, mean: description.mean, se: description.se, ...interval },
    possible,
    impossible,
    floor,
    ceiling,
    alpha,
    omega,
  };
}

function scatterResults({ x, y, by, panels }: Look["scatters"][number], respondents: string | null, desk: Desk) {
  const found = analysePair({ x, y, by, panels, respondents }, desk);
  if (found.status === "refused") return { x, y, by, panels, status: "refused" as const, refusal: found.refusal };
  const name = (of: Parting, part: number) => {
    const one = of.parts[part]!;
    return "level" in one ? one.level : `${of.variable} ${one.from ?? "-inf"} to ${one.to ?? "inf"}`;
  };
  return {
    x,
    y,
    by,
    panels,
    status: "paired" as const,
    all: fitResults(found.whole),
    facts: {
      ...found.facts,
      carrying: found.facts.carrying && { ...found.facts.carrying, at: undefined, row: found.rows[found.facts.carrying.at]! },
    },
    lines: Object.fromEntries(
      found.fits.map(({ panel, group, fit }) => [
        [...panel.map((p, k) => name(found.panels[k]!, p)), ...(group === null ? [] : [name(found.by!, group)])].join(", "),
        fitResults(fit),
      ]),
    ),
  };
}

function fitResults({ n, line, test }: PairFit) {
  return { n, intercept: line?.intercept ?? null, slope: line?.slope ?? null, R2: line?.R2 ?? null, s: line?.s ?? null, r: test?.r ?? null, p: test?.p ?? null }; // prettier-ignore
}

export const analysis: Analysis<Look, LookSpec, FirstLook> = { run: (spec, desk) => analyseLook(spec, desk), results: lookResults };

import type { BlockOf, TableKind, TableOptions } from "../../model/block";
import type { Look } from "../../model/look";
import type { Study } from "../../model/study";
import { theoryOf } from "../../model/theory";
import { exploratoryMark } from "../../model/exploratory";
import { formatCount, formatNumber, formatMean, formatShare, formatValue } from "../format-number";
import { markedTable } from "../ladder/exploratory-words";
import { groupsTable } from "../ladder/groups-table";
import { importanceTable } from "../ladder/importance-table";
import { meansTable } from "../ladder/means-table";
import { probeTable } from "../ladder/probe-table";
import { searchTable } from "../ladder/search-words";
import { lookTable } from "../look-table";
import { columnName } from "../look-words";
import { loadingsTable } from "../loadings-table";
import type { PrintTable } from "../print-table";
import { theoryTable } from "../theory/theory-table";
import { SYMBOL, type Words, words } from "../words";
import { coefficientTable, outcomesTable, stepsTable } from "./coefficient-tables";
import { comparedGroups, exploredStructure, fittedLadder, probedStep, type Source, toldImportance, toldMeans, toldSearch } from "./source";

/** A kind of table: how it is called in a sentence, which of the options move it, and what it prints. Null: what it is of is not there. */
interface TableDefinition {
  readonly words: string;
  readonly options: readonly (keyof TableOptions)[];
  print(of: BlockOf<"table">["of"], options: TableOptions, source: Source): PrintTable | null;
}

const MARKED = new Map<string, Look["told"]>([["stars", "stars"], ["p", "exact"]]); // prettier-ignore

export const TABLES: Readonly<Record<TableKind, TableDefinition>> = {
  look: {
    words: "means, standard deviations, reliabilities and correlations",
    options: ["tests"],
    print(_, { tests }, { look, title }) {
      if (!look || look.found.columns.length < 2) return null;
      const by = look.found.groups.length > 0 && look.look.by !== null ? `, by ${title(look.look.by)}` : "";
      const told = { ...look.look, told: MARKED.get(tests) ?? ("interval" as const) };
      return { ...lookTable(told, look.found, title), title: `Means, standard deviations, reliabilities and correlations${by}` };
    },
  },
  descriptives: {
    words: "descriptives",
    options: ["decimals", "order"],
    print(_, options, { look, title }) {
      if (!look || look.found.columns.length === 0) return null;
      const rows = look.found.columns.map((c) => ({ name: columnName(c, title), c }));
      const sorted = options.order === "by name" ? rows.toSorted((a, b) => a.name.localeCompare(b.name)) : options.order === "by size" ? rows.toSorted((a, b) => (b.c.description.mean ?? 0) - (a.c.description.mean ?? 0)) : rows; // prettier-ignore
      const print = (v: number | null) => formatNumber(v, options.decimals);
      return {
        title: "Descriptives",
        head: ["Variable", [SYMBOL.N], [SYMBOL.M], [SYMBOL.SD], "Median", "Skewness", "Kurtosis", "Observed", "Possible", "α", "ω"],
        sections: [
          {
            heading: "",
            rows: sorted.map(({ name, c: { description: d, possible, alpha, omega } }): Words[] => [
              name,
              formatCount(d.n),
              options.decimals === 2 ? formatMean(d.mean, d.sd) : print(d.mean),
              print(d.sd),
              print(d.median),
              print(d.skewness),
              print(d.kurtosis),
              d.min === null ? "" : `${formatValue(d.min)}–${formatValue(d.max)}`,
              possible ? `${formatValue(possible.low)}–${formatValue(possible.high)}` : "",
              alpha === null ? "" : formatShare(alpha, options.decimals),
              omega === null ? "" : formatShare(omega, options.decimals),
            ]),
          },
        ],
        note: words`${formatCount(look.found.rows)} respondents; each variable over those who have it. Skewness and kurtosis (excess) are corrected for the size of the sample. α and ω of scales.`,
      };
    },
  },
  steps: {
    words: "what each step adds",
    options: ["without", "spread", "tests", "decimals"],
    print(of, options, source) {
      const fitted = fittedLadder(source, of.ids[0]);
      return fitted && stepsTable(fitted, options, source.title);
    },
  },
  coefficients: {
    words: "coefficients",
    options: ["metric", "spread", "tests", "without", "step", "form", "decimals", "order"],
    print(of, options, source) {
      const fitted = of.ids.map((id) => fittedLadder(source, id));
      const there = fitted.filter((one) => one !== null);
      if (there.length === 0 || there.length < fitted.length) return null;
      return there.length === 1 ? coefficientTable(there[0]!, options, source.title) : outcomesTable(there, options, source.title);
    },
  },
  slopes: {
    words: "simple slopes",
    options: ["spread", "tests"],
    print(of, options, source) {
      const probed = probedStep(source, of.ids[0]);
      if (!probed) return null;
      const { probe, reading, result, ladder } = probed;
      const mark = exploratoryMark(ladder, result.sample.rowsUsed);
      return markedTable(probeTable(probe, reading, result, ladder.name, source.title, { ...options, said: false }), mark);
    },
  },
  groups: {
    words: "groups and how they differ",
    options: [],
    print(of, _, source) {
      const compared = comparedGroups(source, of.ids[0]);
      if (!compared) return null;
      const { groups, result, beside, ladder } = compared;
      return markedTable(
        groupsTable(groups, result, beside, ladder.name, source.title, false),
        exploratoryMark(ladder, result.sample.rowsUsed),
      );
    },
  },
  means: {
    words: "predicted means",
    options: ["spread", "tests"],
    print(of, options, source) {
      const found = toldMeans(source, of.ids[0]);
      if (!found) return null;
      const { means, told, ladder } = found;
      return markedTable(
        meansTable(means, told, ladder.name, source.title, { ...options, said: false }),
        exploratoryMark(ladder, told.sample.rowsUsed),
      );
    },
  },
  loadings: {
    words: "loadings and communalities",
    options: [],
    print(of, _, source) {
      const found = exploredStructure(source, of.ids[0]);
      return found && loadingsTable(found.structure, found.analysis, found.solution, source.title);
    },
  },
  search: {
    words: "the search for predictors",
    options: [],
    print(of, _, source) {
      const found = toldSearch(source, of.ids[0]);
      return found && searchTable(found.search, found.told, found.ladder.name, source.title);
    },
  },
  importance: {
    words: "each term’s share of R²",
    options: [],
    print(of, _, source) {
      const found = toldImportance(source, of.ids[0]);
      return found && importanceTable(found.told, found.ladder.name, source.title);
    },
  },
  theory: {
    words: "hypotheses",
    options: [],
    print(_, __, { study, stands, title }) {
      if (study.hypotheses.length === 0 || stands.size === 0) return null;
      return theoryTable(study, stands, theoryOf(study.theories), title);
    },
  },
};

/** Options that move a block's table: of several ladders, or of one with a single step, fewer do. */
export function movingOptions({ of }: BlockOf<"table">, { study }: Source): (keyof TableOptions)[] {
  const single = stepsInCommon(of.ids, study) < 2;
  const several = of.ids.length > 1;
  return TABLES[of.kind].options.filter((option) => {
    if (option === "step") return several && !single;
    return (option !== "without" && option !== "form") || (!several && !single);
  });
}

/** So many steps do all of these ladders have. */
export const stepsInCommon = (ladders: readonly string[], study: Study): number => Math.min(...ladders.map((id) => study.ladders.find((l) => l.id === id)?.steps.length ?? 0)); // prettier-ignore

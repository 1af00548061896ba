import type { SearchResult, SizePoint } from "../../analyse/analyse-search";
import type { SearchStability } from "../../analyse/joined-stability";
import { type Search, SearchMethod } from "../../model/search";
import { counted, formatCount, formatNumber, formatShare, listed } from "../format-number";
import type { Titles } from "../level-title";
import type { PrintTable } from "../print-table";
import { columnTitle } from "./coefficient-words";
import { NO_FOLDS } from "./comparison-words";
import { plain, R2, type Words, words } from "../words";

type Told = Extract<SearchResult, { status: "told" }>;

export const METHOD_WORDS: Record<SearchMethod, string> = {
  "forward-aic": "forward by AIC",
  "stepwise-aic": "stepwise by AIC",
  "forward-p": "forward by p",
  "stepwise-p": "stepwise by p",
  stagewise: "forward stagewise",
  "least-angle": "least angle",
  lasso: "lasso",
};

/** What a method has chosen, what that is worth, and what it is not. */
export function whatTheSearchSays(search: Search, told: Told, title: Titles): Words[] {
  const { chosen, searched } = told;
  const { ground, folds, noFolds } = searched;
  const beyond = told.controls === 0 ? "" : words` (controls alone ${formatShare(ground.controlsR2, 3)})`;
  const said: Words[] = [
    chosen.terms.length === 0
      ? `By ${METHOD_WORDS[search.method]} none of the candidates is chosen.`
      : words`By ${METHOD_WORDS[search.method]} ${chosen.terms.length === 1 ? "one candidate is" : `${chosen.terms.length} candidates are`} chosen: ${listed(chosen.terms.map((name) => title(name)))}; with them ${R2} = ${formatShare(chosen.refitR2, 3)}${beyond}, adjusted ${formatShare(chosen.refitAdjR2, 3)}${chosen.heldOutR2 === null ? "" : words`, of respondents held out ${formatShare(chosen.heldOutR2, 3)}`}.`,
  ];
  if (search.method === "lasso" && (search.size === null || !folds))
    said.push(
      folds
        ? `Held-out cases are predicted with an error of ${formatNumber(Math.sqrt(folds.mse[folds.minimum]!))} at best, ${formatNumber(Math.sqrt(folds.mse[folds.oneSe]!))} at the sparest path within one SE of it.`
        : `There is no error of held-out cases: ${noFolds?.fold ? `without the fold ${noFolds.fold} the controls cannot be fitted` : (NO_FOLDS[noFolds?.reason ?? ""] ?? "the folds cannot be made")}. The point with the largest adjusted R² is shown.`,
    );
  if (search.size !== null)
    said.push(`The size is set by hand: of the points with at most ${counted(search.size, "column")} the one that explains most is shown.`);
  else if (search.method === "stagewise" || search.method === "least-angle")
    said.push(words`Where a path has no end of its own, the point with the largest adjusted ${R2} is shown.`);
  if (["stagewise", "least-angle", "lasso"].includes(search.method) && ground.terms.some((term) => term.columns.length > 1))
    said.push(
      "These methods go column by column: a category may come in with some of its levels only, and what does depends on its reference.",
    );
  if (ground.leftOut.length > 0)
    said.push(`Left out, because the controls determine it: ${listed(ground.leftOut.map((name) => columnTitle(name, told, title)))}.`);
  said.push(words`Exploratory: the data chose, so p and intervals of what was chosen are too good. Confirm it with other respondents.`);
  return said;
}

/** The columns of a point as they are called. */
export const columnTitles = ({ columns }: SizePoint, told: Told, title: Titles) =>
  columns.map((name) => columnTitle(name, told, title)).join(", ");

const without = (all: ReadonlySet<string>, others: ReadonlySet<string>) => new Set([...all].filter((one) => !others.has(one)));

/** What came in and what went from size to size, method by method: a category that comes or goes whole by its own name. */
export function searchRows({ searched, parts }: Told, title: Titles) {
  const { ground, bySize } = searched;
  const told = (columns: ReadonlySet<string>) =>
    ground.terms.flatMap((term) => {
      const own = term.columns.map((j) => ground.names[j]!);
      const those = own.filter((name) => columns.has(name));
      return those.length > 0 && those.length === own.length
        ? [title(term.name)]
        : those.map((name) => columnTitle(name, { parts }, title));
    });
  return SearchMethod.options.map((method) => {
    let before = new Set<string>();
    const cells = bySize[method].map(({ size, columns }) => {
      const now = new Set(columns);
      const cell = { size, came: told(without(now, before)), went: told(without(before, now)) };
      before = now;
      return cell;
    });
    return { key: method, name: METHOD_WORDS[method], cells };
  });
}

/** How often each candidate came out, those most often first. */
export function whatStabilitySays({ terms, chosen, drawn }: SearchStability, title: Titles): Words[] {
  const drew = drawn.resamples - drawn.failed;
  const rare = chosen.filter((name) => drawn.times[terms.indexOf(name)]! < 0.8 * drew);
  const others = terms.filter((name, k) => !chosen.includes(name) && drawn.times[k]! >= 0.5 * drew);
  return [
    `On respondents drawn again just these candidates come out in ${drawn.same} of ${drew} samples.`,
    ...(rare.length > 0 ? [`${listed(rare.map((name) => `${title(name)} (${drawn.times[terms.indexOf(name)]!})`))} would often not have come out.`] : []), // prettier-ignore
    ...(others.length > 0 ? [`${listed(others.map((name) => `${title(name)} (${drawn.times[terms.indexOf(name)]!})`))} would often have come out instead.`] : []), // prettier-ignore
    ...(drawn.failed > 0 ? [`In ${drawn.failed} samples the controls could not be fitted; these are left out.`] : []),
  ];
}

/** Candidates with the samples they came out in, those most often first. */
export function stabilityTable({ terms, chosen, drawn }: SearchStability, ladder: string, title: Titles): PrintTable {
  const drew = drawn.resamples - drawn.failed;
  const order = terms.map((_, k) => k).sort((a, b) => drawn.times[b]! - drawn.times[a]! || a - b);
  return {
    title: `How often each candidate is chosen (${ladder}), exploratory`,
    head: ["Candidate", "Samples", "Share", "Chosen here"],
    sections: [
      {
        heading: "",
        rows: order.map((k) => [title(terms[k]!), String(drawn.times[k]!), formatShare(drew === 0 ? null : drawn.times[k]! / drew), chosen.includes(terms[k]!) ? "yes" : ""]), // prettier-ignore
      },
    ],
    note: `${drawn.resamples} samples of as many respondents, drawn with replacement; a respondent drawn twice stays in one fold.`,
  };
}

/** Every method at every size: R² of the best point and of least squares on its columns. */
export function searchTable(search: Search, told: Told, ladder: string, title: Titles): PrintTable {
  return {
    title: `Search for predictors (${ladder}), exploratory`,
    head: ["Columns", R2, words`Refit ${R2}`, words`Adjusted ${R2}`, words`Held-out ${R2}`, "Which"],
    sections: Object.entries(told.searched.bySize).map(([method, points]) => ({
      heading: METHOD_WORDS[method as SearchMethod],
      rows: points.map((one) => [
        formatCount(one.size),
        formatShare(one.R2, 3),
        formatShare(one.refitR2, 3),
        formatShare(one.refitAdjR2, 3),
        formatShare(one.heldOutR2, 3),
        columnTitles(one, told, title),
      ]),
    })),
    note: whatTheSearchSays(search, told, title).map(plain).join(" "),
  };
}

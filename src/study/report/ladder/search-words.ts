import type { SearchResult, SizePoint } from "../../analyse/analyse-search";
import type { Search, SearchMethod } from "../../model/search";
import { formatCount, formatNumber, formatShare, listed } from "../format-number";
import type { Titles } from "../level-title";
import type { PrintTable } from "../print-table";
import { columnTitle } from "./coefficient-words";
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

/** Why the lasso has no error of folds. */
const NO_FOLDS: Record<string, string> = {
  "folds-have-gaps": "some respondents are in no fold",
  "one-fold": "all are in one fold",
  "folds-refused": "the variable cannot be read",
  "fold-without-controls": "without one of the folds the controls cannot be fitted",
};

/** What a method has chosen, what that is worth, and what it is not. */
export function whatTheSearchSays(search: Search, told: Told, title: Titles): Words[] {
  const { chosen, searched } = told;
  const { ground, folds, noFolds } = searched;
  const beyond = told.controls === 0 ? "" : words` (controls alone ${formatShare(ground.controlsR2, 3)})`;
  const said: Words[] = [
    chosen.terms.length === 0
      ? `By ${METHOD_WORDS[search.method]} none of the candidates is chosen.`
      : words`By ${METHOD_WORDS[search.method]} ${chosen.terms.length === 1 ? "one candidate is" : `${chosen.terms.length} candidates are`} chosen: ${listed(chosen.terms.map((name) => title(name)))}; with them ${R2} = ${formatShare(chosen.refitR2, 3)}${beyond}, adjusted ${formatShare(chosen.refitAdjR2, 3)}.`,
  ];
  if (search.method === "lasso")
    said.push(
      folds
        ? `Held-out cases are predicted with an error of ${formatNumber(Math.sqrt(folds.mse[folds.minimum]!))} at best, ${formatNumber(Math.sqrt(folds.mse[folds.oneSe]!))} at the sparest path within one SE of it.`
        : `There is no error of held-out cases: ${NO_FOLDS[noFolds ?? ""] ?? "the folds cannot be made"}. The point with the largest adjusted R² is shown.`,
    );
  if (search.method === "stagewise" || search.method === "least-angle")
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

/** Every method at every size: R² of the best point and of least squares on its columns. */
export function searchTable(search: Search, told: Told, ladder: string, title: Titles): PrintTable {
  return {
    title: `Search for predictors (${ladder}), exploratory`,
    head: ["Method", "Columns", words`${R2}`, words`Refit ${R2}`, "Adjusted", "Which"],
    sections: Object.entries(told.searched.bySize).map(([method, points]) => ({
      heading: METHOD_WORDS[method as SearchMethod],
      rows: points.map((one) => [
        "",
        formatCount(one.size),
        formatShare(one.R2, 3),
        formatShare(one.refitR2, 3),
        formatShare(one.refitAdjR2, 3),
        columnTitles(one, told, title),
      ]),
    })),
    note: whatTheSearchSays(search, told, title).map(plain).join(" "),
  };
}

import type { ResidualCase, ResidualsTold } from "../../analyse/analyse-residuals";
import type { Ladder } from "../../model/ladder";
import { counted, formatCount, listed, formatNumber, formatP, formatPercent, formatValue } from "../format-number";
import { pStatement } from "../format-number";
import type { Titles } from "../level-title";
import type { PrintTable } from "../print-table";
import { plain, SYMBOL, type Words, words } from "../words";

/** Below this a test of the residuals is taken to have found something. */
const FOUND = 0.05;
/** From so many respondents on a shape that is not normal moves no test or interval of coefficients by anything worth the name. */
export const MANY = 100;

/** Something a check has seen: what, how large, what it affects, and which remedies there are. */
export interface ResidualFinding {
  what: "spread" | "bend" | "shape" | "pull" | "neighbours" | "levels";
  /** Whether it changes what may be concluded. */
  matters: boolean;
  says: Words;
}

/** Predictors whose squares would add something, the surest first. */
export function bentPredictors({ bends }: ResidualsTold): { variable: string; lowest: number }[] {
  const p = ({ bend }: ResidualsTold["bends"][number]) => ("reason" in bend ? 1 : bend.p);
  return bends.filter((one) => p(one) < FOUND).sort((a, b) => p(a) - p(b)); // prettier-ignore
}

/** What each check has seen, in the order of the pictures. */
export function residualFindings(
  told: ResidualsTold,
  ladder: Pick<Ladder, "errors" | "cluster" | "intervals">,
  title: Titles,
): ResidualFinding[] {
  const bent = bentPredictors(told);
  const { tests, smooth, cooks, n, outside } = told;
  const found: ResidualFinding[] = [];
  const { bend, spread, shape } = tests;
  if (!("reason" in bend) && bend.p < FOUND)
    found.push({
      what: "bend",
      matters: true,
      says: words`The relation bends: squares and cubes of the prediction add something (${SYMBOL.F}(${bend.df[0]}, ${bend.df[1]}) = ${formatNumber(bend.F)}, ${pStatement(bend.p)}). Coefficients are an average over the bend; a square or a logarithm of ${bent.length === 0 ? "a predictor" : listed(bent.map((one) => title(one.variable)))} may tell it.`,
    });
  if (!("reason" in spread) && spread.p < FOUND) {
    const [first, last] = [smooth[0]!.spread, smooth.at(-1)!.spread];
    const ratio = Math.max(first, last) / Math.max(1e-9, Math.min(first, last));
    const robust = ladder.errors === "hc3" || ladder.cluster !== null;
    found.push({
      what: "spread",
      matters: !robust,
      says: words`The spread differs along the prediction (χ²(${spread.df}) = ${formatNumber(spread.chi2)}, ${pStatement(spread.p)}${ratio > 1.2 ? words`; at one end it is about ${formatNumber(ratio ** 2, 1)} times that at the other` : ""}). Coefficients stay; classical standard errors and intervals do not. ${robust ? "The ladder’s errors allow for it already." : "HC3 errors or a bootstrap allow for it."}`,
    });
  }
  if (shape.p !== null && shape.p < FOUND)
    found.push({
      what: "shape",
      matters: n < MANY && ladder.intervals.by === "normal",
      says: words`The residuals are not quite normal (Shapiro–Wilk ${SYMBOL.W} = ${formatNumber(shape.W, 3)}, ${pStatement(shape.p)}${outside === null ? "" : `; ${formatPercent(outside)} lie outside the envelope, 5 % would by chance`}). ${n >= MANY ? `With ${n} respondents this affects nothing here: coefficients and intervals do not rest on it.` : "With so few respondents intervals may be off; a bootstrap does not need the shape."}`,
    });
  if (told.neighbours && !("reason" in told.neighbours) && told.neighbours.p !== null && told.neighbours.p < FOUND)
    found.push({
      what: "neighbours",
      matters: ladder.cluster === null,
      says: words`Neighbours in the order of the rows ${told.neighbours.d < 2 ? "resemble" : "differ from"} one another (Durbin–Watson ${formatNumber(told.neighbours.d)}, 2 when they do not; ${pStatement(told.neighbours.p)}). Coefficients stay; standard errors take respondents for independent. If rows came class by class or day by day, say so as a cluster.`,
    });
  const { levels } = told;
  if (levels && levels.length > 1) {
    const sds = levels.filter((one) => one.sd !== null);
    const [wide, narrow] = [sds.reduce((a, b) => (b.sd! > a.sd! ? b : a)), sds.reduce((a, b) => (b.sd! < a.sd! ? b : a))];
    const far = levels.reduce((a, b) => (Math.abs(b.mean) > Math.abs(a.mean) ? b : a));
    found.push({
      what: "levels",
      matters: false,
      says: words`Level by level the residuals’ mean lies furthest from 0 in ${far.level} (${formatNumber(far.mean)}, ${counted(far.n, "respondent")}); their ${SYMBOL.SD} is ${formatNumber(wide.sd)} in ${wide.level} and ${formatNumber(narrow.sd)} in ${narrow.level}.`,
    });
  }
  if (cooks.farAbove > 0)
    found.push({
      what: "pull",
      matters: true,
      says: `${counted(cooks.farAbove, "respondent moves", "respondents move")} the coefficients a great deal (Cook’s distance above 1, the largest ${formatNumber(cooks.largest)}). Look at ${cooks.farAbove === 1 ? "this one" : "them"} before anything else.`,
    });
  return found;
}

/** The test that belongs to each picture, in their order: along, shape, who pulls, spread, histogram. */
export function pictureNotes(told: ResidualsTold): Words[] {
  const { bend, spread, shape } = told.tests;
  const { neighbours, cooks, outside } = told;
  const none = "no test";
  return [
    neighbours
      ? "reason" in neighbours ? none : words`Durbin–Watson ${formatNumber(neighbours.d)}${neighbours.p === null ? "" : words`, ${pStatement(neighbours.p)}`}` // prettier-ignore
      : "reason" in bend ? none : words`Bend (RESET): ${SYMBOL.F}(${bend.df[0]}, ${bend.df[1]}) = ${formatNumber(bend.F)}, ${pStatement(bend.p)}`, // prettier-ignore
    outside === null ? "no envelope above 5,000 respondents" : `${formatPercent(outside)} outside the envelope; 5 % would be by chance`,
    `Largest Cook’s distance ${formatNumber(cooks.largest)}; ${formatCount(cooks.above)} above 4/n`,
    "reason" in spread
      ? none
      : words`Equal spread (Breusch–Pagan): χ²(${spread.df}) = ${formatNumber(spread.chi2)}, ${pStatement(spread.p)}`,
    shape.p === null ? "Shapiro–Wilk is made for 3 to 5,000 respondents" : words`Shapiro–Wilk ${SYMBOL.W} = ${formatNumber(shape.W, 3)}, ${pStatement(shape.p)}`, // prettier-ignore
  ];
}

/** One sentence above the pictures, then what was seen. */
export function whatTheResidualsSay(told: ResidualsTold, ladder: Pick<Ladder, "errors" | "cluster" | "intervals">, title: Titles): Words[] {
  const found = residualFindings(told, ladder, title);
  const matter = found.filter((one) => one.matters);
  const WHAT = {
    bend: "a bend",
    spread: "an unequal spread",
    shape: "the shape of the residuals",
    pull: "single respondents",
    neighbours: "neighbours that go together",
    levels: "levels",
  };
  const head =
    matter.length === 0
      ? "Nothing here changes what you may conclude."
      : `What you may conclude is touched by ${matter.map((one) => WHAT[one.what]).join(" and ")}.`;
  const largest =
    told.cooks.farAbove > 0
      ? []
      : [
          `No respondent moves the coefficients by much: the largest Cook’s distance is ${formatNumber(told.cooks.largest)}, ${counted(told.cooks.above, "respondent lies", "respondents lie")} above the usual mark of 4/n.`,
        ];
  const alone = told.alone.length === 0 ? [] : [`${counted(told.alone.length, "respondent is", "respondents are")} predicted by nothing but ${told.alone.length === 1 ? "their own answer" : "their own answers"} (row ${listed(told.alone.slice(0, 5).map(String))}; leverage 1): a level or a pattern that nobody else has. How they fit cannot be told.`]; // prettier-ignore
  return [head, ...found.map((one) => one.says), ...alone, ...largest];
}

/** Respondents to look at first: outside the envelope or pulling, the largest residual first. */
export function standingOut(cases: readonly ResidualCase[], n: number): ResidualCase[] {
  const out = cases.filter(
    (one) =>
      (one.studentized !== null &&
        (Math.abs(one.studentized) > 3 ||
          (one.lower !== null && (one.studentized < one.lower || one.studentized > one.upper!) && Math.abs(one.studentized) > 2))) ||
      (one.cooksD ?? 0) > 4 / n,
  );
  return out.sort((a, b) => (b.cooksD ?? 0) - (a.cooksD ?? 0)).slice(0, 20);
}

/** The tests, as a journal prints them. */
export function residualsTable(told: ResidualsTold, ladder: Ladder, title: Titles): PrintTable {
  const { bend, spread, shape } = told.tests;
  const none = (test: object) => ("reason" in test ? "not available" : null);
  return {
    title: `Residuals of ${ladder.outcome === null ? "the outcome" : title(ladder.outcome)} (${ladder.name}, step ${told.step})`,
    head: ["Check", "Statistic", "df", [SYMBOL.p]],
    sections: [
      {
        heading: "",
        rows: [
          [
            "Bend (RESET)",
            none(bend) ?? formatNumber((bend as { F: number }).F),
            "reason" in bend ? "" : bend.df.join(", "),
            "reason" in bend ? "" : formatP(bend.p),
          ],
          [
            "Equal spread (Breusch–Pagan, Koenker)",
            none(spread) ?? formatNumber((spread as { chi2: number }).chi2),
            "reason" in spread ? "" : String(spread.df),
            "reason" in spread ? "" : formatP(spread.p),
          ],
          ["Normal shape (Shapiro–Wilk)", formatNumber(shape.W, 3), "", formatP(shape.p)],
          ["Largest Cook’s distance", formatNumber(told.cooks.largest), "", ""],
          ["Residual SD", formatValue(told.s), String(told.df), ""],
        ],
      },
    ],
    note: whatTheResidualsSay(told, ladder, title).map(plain).join(" "),
  };
}

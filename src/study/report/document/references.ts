import type { Source } from "./source";
import { words, type Words } from "../words";

/** A work that a procedure comes from. */
interface Work {
  /** As it is cited in the text: `Holm, 1979`. */
  readonly cited: string;
  readonly entry: Words;
}

const journal = (text: string, name: string, volume: string, pages: string): Words => words`${text} ${{ text: `${name}, ${volume}`, as: "italic" }}, ${pages}.`; // prettier-ignore
const book = (text: string, name: string, rest: string): Words => words`${text} ${{ text: name, as: "italic" }}. ${rest}.`;

/** The works of all procedures, in the order of the alphabet. Each is a source named beside the code of its procedure in src/core. */
const WORKS = {
  aikenWest: { cited: "Aiken & West, 1991", entry: book("Aiken, L. S., & West, S. G. (1991).", "Multiple regression: Testing and interpreting interactions", "Sage") }, // prettier-ignore
  bauerCurran: { cited: "Bauer & Curran, 2005", entry: journal("Bauer, D. J., & Curran, P. J. (2005). Probing interactions in fixed and multilevel regression.", "Multivariate Behavioral Research", "40", "373–400") }, // prettier-ignore
  budescu: {
    cited: "Budescu, 1993",
    entry: journal("Budescu, D. V. (1993). Dominance analysis.", "Psychological Bulletin", "114", "542–551"),
  },
  clogg: { cited: "Clogg et al., 1995", entry: journal("Clogg, C. C., Petkova, E., & Haritou, A. (1995). Statistical methods for comparing regression coefficients between models.", "American Journal of Sociology", "100", "1261–1293") }, // prettier-ignore
  cohen: { cited: "Cohen et al., 2003", entry: book("Cohen, J., Cohen, P., West, S. G., & Aiken, L. S. (2003).", "Applied multiple regression/correlation analysis for the behavioral sciences", "3rd ed., Erlbaum") }, // prettier-ignore
  cronbach: { cited: "Cronbach, 1951", entry: journal("Cronbach, L. J. (1951). Coefficient alpha and the internal structure of tests.", "Psychometrika", "16", "297–334") }, // prettier-ignore
  efron: { cited: "Efron, 1987", entry: journal("Efron, B. (1987). Better bootstrap confidence intervals.", "Journal of the American Statistical Association", "82", "171–185") }, // prettier-ignore
  efronTibshirani: { cited: "Efron & Tibshirani, 1993", entry: book("Efron, B., & Tibshirani, R. J. (1993).", "An introduction to the bootstrap", "Chapman & Hall") }, // prettier-ignore
  feldt: { cited: "Feldt, 1965", entry: journal("Feldt, L. S. (1965). The approximate sampling distribution of Kuder–Richardson reliability coefficient twenty.", "Psychometrika", "30", "357–370") }, // prettier-ignore
  friedrich: { cited: "Friedrich, 1982", entry: journal("Friedrich, R. J. (1982). In defense of multiplicative terms in multiple regression equations.", "American Journal of Political Science", "26", "797–833") }, // prettier-ignore
  harmanJones: { cited: "Harman & Jones, 1966", entry: journal("Harman, H. H., & Jones, W. H. (1966). Factor analysis by minimizing residuals (minres).", "Psychometrika", "31", "351–368") }, // prettier-ignore
  hendrickson: { cited: "Hendrickson & White, 1964", entry: journal("Hendrickson, A. E., & White, P. O. (1964). Promax: A quick method for rotation to oblique simple structure.", "British Journal of Statistical Psychology", "17", "65–70") }, // prettier-ignore
  holm: { cited: "Holm, 1979", entry: journal("Holm, S. (1979). A simple sequentially rejective multiple test procedure.", "Scandinavian Journal of Statistics", "6", "65–70") }, // prettier-ignore
  horn: { cited: "Horn, 1965", entry: journal("Horn, J. L. (1965). A rationale and test for the number of factors in factor analysis.", "Psychometrika", "30", "179–185") }, // prettier-ignore
  jennrich: { cited: "Jennrich & Sampson, 1966", entry: journal("Jennrich, R. I., & Sampson, P. F. (1966). Rotation for simple loadings.", "Psychometrika", "31", "313–323") }, // prettier-ignore
  johnsonNeyman: { cited: "Johnson & Neyman, 1936", entry: journal("Johnson, P. O., & Neyman, J. (1936). Tests of certain linear hypotheses and their application to some educational problems.", "Statistical Research Memoirs", "1", "57–93") }, // prettier-ignore
  joreskog: { cited: "Jöreskog, 1967", entry: journal("Jöreskog, K. G. (1967). Some contributions to maximum likelihood factor analysis.", "Psychometrika", "32", "443–482") }, // prettier-ignore
  kaiser: { cited: "Kaiser, 1958", entry: journal("Kaiser, H. F. (1958). The varimax criterion for analytic rotation in factor analysis.", "Psychometrika", "23", "187–200") }, // prettier-ignore
  leastAngle: { cited: "Efron et al., 2004", entry: journal("Efron, B., Hastie, T., Johnstone, I., & Tibshirani, R. (2004). Least angle regression.", "Annals of Statistics", "32", "407–499") }, // prettier-ignore
  liang: { cited: "Liang & Zeger, 1986", entry: journal("Liang, K.-Y., & Zeger, S. L. (1986). Longitudinal data analysis using generalized linear models.", "Biometrika", "73", "13–22") }, // prettier-ignore
  mackinnon: { cited: "MacKinnon & White, 1985", entry: journal("MacKinnon, J. G., & White, H. (1985). Some heteroskedasticity-consistent covariance matrix estimators with improved finite sample properties.", "Journal of Econometrics", "29", "305–325") }, // prettier-ignore
  mcdonald: { cited: "McDonald, 1999", entry: book("McDonald, R. P. (1999).", "Test theory: A unified treatment", "Erlbaum") },
  searle: { cited: "Searle et al., 1980", entry: journal("Searle, S. R., Speed, F. M., & Milliken, G. A. (1980). Population marginal means in the linear model.", "The American Statistician", "34", "216–221") }, // prettier-ignore
  spearman: { cited: "Spearman, 1910", entry: journal("Spearman, C. (1910). Correlation calculated from faulty data.", "British Journal of Psychology", "3", "271–295") }, // prettier-ignore
  tibshirani: { cited: "Tibshirani, 1996", entry: journal("Tibshirani, R. (1996). Regression shrinkage and selection via the lasso.", "Journal of the Royal Statistical Society B", "58", "267–288") }, // prettier-ignore
} as const satisfies Record<string, Work>;

type WorkName = keyof typeof WORKS;
const NAMES = Object.keys(WORKS) as WorkName[];

/** Which works the procedures of a study come from, in the order of the alphabet. */
export function worksUsed({ study, scales, stands, ladders }: Source): WorkName[] {
  const used = new Set<WorkName>();
  const cite = (when: boolean, ...names: WorkName[]) => when && names.forEach((name) => used.add(name));
  for (const found of scales.values()) {
    if (found.status !== "scored") continue;
    const { alpha, factor } = found.analysis.reliability;
    cite(alpha?.alpha != null, "cronbach", "feldt");
    cite(alpha?.spearmanBrown != null, "spearman");
    cite(factor !== null, "mcdonald");
  }
  const extracted = { "maximum-likelihood": "joreskog", minres: "harmanJones" } as Readonly<Record<string, WorkName>>;
  const rotated = { varimax: "kaiser", oblimin: "jennrich", promax: "hendrickson" } as Readonly<Record<string, WorkName>>;
  for (const structure of study.structures) {
    cite(structure.factors === null, "horn");
    for (const name of [extracted[structure.extraction], rotated[structure.rotation]]) cite(name !== undefined, name!);
  }
  for (const ladder of study.ladders) {
    const found = ladders.get(ladder.id);
    if (found?.status !== "fitted") continue;
    cite(true, "cohen");
    cite(found.fit.codings.length > 0, "aikenWest", "friedrich");
    cite(found.fit.errors === "hc3", "mackinnon");
    cite(found.fit.errors === "cluster", "liang");
    cite(ladder.intervals.by !== "normal", ladder.intervals.by === "bca" ? "efron" : "efronTibshirani");
  }
  cite(study.probes.length > 0, "aikenWest", "johnsonNeyman", "bauerCurran");
  cite(study.means.length > 0, "searle", "holm");
  cite(study.groups.length > 0, "clogg", "holm");
  cite(study.importances.length > 0, "budescu");
  for (const { method } of study.searches) {
    cite(method === "lasso", "tibshirani");
    cite(method === "lasso" || method === "least-angle" || method === "stagewise", "leastAngle");
  }
  cite(stands.size > 0 && (study.theories[0]?.holm ?? false), "holm");
  return NAMES.filter((name) => used.has(name));
}

/** `(Aiken & West, 1991; Friedrich, 1982)`, of those of the named works that are used; "" where none is. */
export function citation(source: Source, ...names: WorkName[]): string {
  const used = worksUsed(source);
  const told = names.filter((name) => used.includes(name)).sort((a, b) => NAMES.indexOf(a) - NAMES.indexOf(b));
  return told.length === 0 ? "" : ` (${told.map((name) => WORKS[name].cited).join("; ")})`;
}

/** The entries of a list of references. */
export const referenceEntries = (source: Source): Words[] => worksUsed(source).map((name) => WORKS[name].entry);

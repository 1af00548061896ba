import type { Titles } from "./level-title";
import { pairsAbove, pairsOf, strongestPair, strongestWith } from "@/core/describe/correlation-facts";
import type { FactorSolution } from "@/core/factors/factor-solution";
import { explainedTogether, leastExplained } from "@/core/factors/variance-explained";
import type { StructureAnalysis } from "../analyse/analyse-structure";
import { type ItemPlace, itemPlaces, type ScaleAgreement } from "../analyse/factor-places";
import { type Structure, structureParts } from "../model/structure";
import type { Study } from "../model/study";
import { EXTRACTION_WORDS, ROTATION_WORDS } from "./factoring-words";
import type { Watch } from "./watch";
import { joined, type Words, words } from "./words";
import { counted, formatCount, formatNumber, formatShare, listed, pStatement } from "./format-number";

/** What would mend a structure: settings to change, under the words of its button. */
export interface StructureFix {
  label: string;
  to: Partial<Structure>;
}
export type StructureWatch = Watch<StructureFix>;

/** Factors that share more than a tenth of their variance are not apart. */
const CORRELATED = 0.32;

/** The loadings that are to be read: the pattern of oblique factors, the rotated loadings of orthogonal ones. */
export function loadingsName({ rotated, rotation, factors }: Pick<FactorSolution, "rotated" | "rotation" | "factors">): string {
  if (rotated.correlations) return "Pattern loadings";
  return factors === 1 || rotation === "none" ? "Loadings, not rotated" : "Rotated loadings";
}

/** What the numbers say, from whether these items may be factored to what the factors explain. */
export function whatTheStructureSays(analysis: StructureAnalysis, title: Titles): Words[] {
  const { adequacy, sphericity, parallel, solution, items, n } = analysis;
  const sentences: Words[] = [];
  if (adequacy)
    sentences.push(
      words`Sampling adequacy is ${formatShare(adequacy.overall)}: ${adequacyWords(adequacy.overall)}${sphericity ? words`. Bartlett's test: χ²(${sphericity.df}) = ${formatNumber(sphericity.chi2)}, ${pStatement(sphericity.p)}${sphericity.p < 0.05 ? "" : ", so the items may not be correlated at all"}` : ""}.`,
    );
  const strong = pairsAbove(analysis.correlations, items.length, 0.3);
  const pairs = pairsOf(items.length);
  sentences.push(`${counted(strong, "correlation")} of ${pairs} ${strong === 1 ? "is" : "are"} above .3 in size.`);
  sentences.push(
    parallel.retained === 0
      ? "Parallel analysis suggests no factor: no eigenvalue is larger than those of random data."
      : `Parallel analysis suggests ${counted(parallel.retained, "factor")}: ${parallel.retained === 1 ? "the first eigenvalue is" : `the first ${parallel.retained} eigenvalues are`} larger than in 95 % of ${parallel.sets} random data sets of ${n} respondents.`,
  );
  if (solution) {
    sentences.push(
      `${solution.factors === 1 ? "The factor explains" : `The ${solution.factors} factors together explain`} ${formatShare(explainedTogether(solution).percent, 0)} % of the items' variance.`,
    );
    const { correlations } = solution.rotated;
    if (correlations && solution.factors > 1) {
      const { r, a, b } = strongestPair(correlations, solution.factors);
      sentences.push(
        `The factors correlate up to ${formatShare(r)} (${a + 1} with ${b + 1}). Read the pattern: a loading is what a factor adds beyond the others.`,
      );
    }
    const least = leastExplained(solution);
    sentences.push(
      `Least explained is ${title(items[least]!)}, with a communality of ${formatShare(solution.communalityExtracted[least]!)}.`,
    );
  }
  return sentences;
}

function adequacyWords(kmo: number): string {
  if (kmo >= 0.8) return "the items share plenty, so factors can be found";
  if (kmo >= 0.7) return "the items share enough for factors to be found";
  if (kmo >= 0.6) return "the items share just enough for factors to be found";
  if (kmo >= 0.5) return "the items share little; factors will be unsteady";
  return "the items share too little to be factored";
}

/** Cautions, from the data to the solution. */
export function structureWatches(
  structure: Structure,
  analysis: StructureAnalysis,
  study: Pick<Study, "scales" | "codebook">,
  title: Titles,
): StructureWatch[] {
  const { items, n, constant, adequacy, singular, solution, parallel, factors } = analysis;
  const watches: StructureWatch[] = [];
  const without = (gone: readonly string[]) => ({ items: structure.items.filter((name) => !gone.includes(name)) });
  const named = (names: readonly string[]) => listed(names.map((name) => title(name)));
  if (constant.length > 0)
    watches.push({
      id: "constant",
      words: `Everyone gave the same answer to ${named(constant)}, so ${constant.length === 1 ? "it is" : "they are"} left out here.`,
      fixes: [{ label: `Take ${constant.length === 1 ? "it" : "them"} out for good`, to: without(constant) }],
    });
  if (singular)
    watches.push({
      id: "singular",
      words: singular.details.fewCases
        ? `There are no more complete respondents (${n}) than items (${items.length}). Sampling adequacy, Bartlett's test and maximum likelihood are not available, and factors found from so few are chance.`
        : `${title(singular.details.item)} is determined by the items before it: a copy or a sum of them. Sampling adequacy, Bartlett's test and maximum likelihood are not available while it is here.`,
      ...(singular.details.fewCases
        ? {}
        : { fixes: [{ label: `Take ${title(singular.details.item)} out`, to: without([singular.details.item]) }] }),
    });
  else if (n < 5 * items.length)
    watches.push({
      id: "few",
      words: `${n} complete respondents for ${items.length} items is fewer than five an item: loadings will be unsteady.`,
    });
  const inadequate = adequacy ? items.filter((_, i) => adequacy.perItem[i]! < 0.5) : [];
  if (inadequate.length > 0)
    watches.push({
      id: "inadequate",
      words: `${named(inadequate)} ${inadequate.length === 1 ? "shares" : "share"} too little with the other items (adequacy below .50).`,
      fixes: [{ label: `Take ${inadequate.length === 1 ? "it" : "them"} out`, to: without(inadequate) }],
    });
  const lonely = items.filter((item, i) => !inadequate.includes(item) && strongestWith(analysis.correlations, items.length, i) <= 0.3);
  if (lonely.length > 0)
    watches.push({
      id: "lonely",
      words: `${named(lonely)} ${lonely.length === 1 ? "correlates" : "correlate"} above .3 in size with no other item.`,
      fixes: [{ label: `Take ${lonely.length === 1 ? "it" : "them"} out`, to: without(lonely) }],
    });
  watches.push(...keyingWatches(structure, study, title));
  if (structure.factors !== null && structure.factors !== Math.max(1, parallel.retained) && parallel.retained > 0)
    watches.push({
      id: "count",
      words: `You chose ${counted(structure.factors, "factor")}; parallel analysis suggests ${parallel.retained}.`,
      fixes: [{ label: `Take ${parallel.retained}`, to: { factors: null } }],
    });
  if (structure.factors === null && parallel.retained === 0)
    watches.push({ id: "none", words: "No factor stands out from chance; one is shown all the same." });
  if (!solution) return watches;
  if (solution.heywood.length > 0)
    watches.push({
      id: "heywood",
      words: `${named(solution.heywood.map((i) => items[i]!))}: a communality of 1 or a uniqueness at its bound (a Heywood case). Such a solution is not to be interpreted. Too many factors, too few respondents, or two items that say nearly the same are the usual causes.`,
      ...(factors > 1 ? { fixes: [{ label: `Try ${counted(factors - 1, "factor")}`, to: { factors: factors - 1 } }] } : {}),
    });
  if (!solution.settled)
    watches.push({
      id: "unsettled",
      words: "The solution had not settled when its rounds were used up: its digits are not to be trusted.",
      ...(structure.extraction === "minimum-residual"
        ? {}
        : { fixes: [{ label: "Use minimum residuals", to: { extraction: "minimum-residual" as const } }] }),
    });
  if (solution.initialFrom === "largest-correlation" && structure.extraction === "principal-axis")
    watches.push({
      id: "start",
      words: "Communalities began at each item's largest correlation, since squared multiple correlations do not exist here.",
    });
  watches.push(...solutionWatches(structure, analysis, solution, title));
  return watches;
}

function keyingWatches(structure: Structure, study: Pick<Study, "scales">, title: Titles): StructureWatch[] {
  if (structure.keying === "asked") return [];
  const unlike = structureParts(study.scales, structure).filter((part) => {
    const keys = study.scales.flatMap((s) => s.items.filter((item) => item.variable === part.name).map((item) => item.reversed));
    return new Set(keys).size > 1;
  });
  if (unlike.length === 0) return [];
  return [
    {
      id: "unlike-keys",
      words: `${listed(unlike.map((part) => title(part.name)))} ${unlike.length === 1 ? "is" : "are"} keyed one way in one scale and the other way in another; here the first, ${title(unlike[0]!.scales[0]!)}, counts.`,
    },
  ];
}

function solutionWatches(structure: Structure, analysis: StructureAnalysis, solution: FactorSolution, title: Titles): StructureWatch[] {
  const { items, ifOblique, factors } = analysis;
  const watches: StructureWatch[] = [];
  if (ifOblique) {
    const { r, a, b } = strongestPair(ifOblique, factors);
    if (Math.abs(r) > CORRELATED)
      watches.push({
        id: "apart",
        words: `Left free, two of the factors would correlate at ${formatShare(r)} (${a + 1} with ${b + 1} of the oblimin solution): factors held at right angles hide that.`,
        fixes: [{ label: "Let the factors correlate", to: { rotation: "oblimin" } }],
      });
  }
  if (solution.search && solution.search.higher > 0)
    watches.push({
      id: "starts",
      words: `The search for factors began from ${solution.search.starts} places, and ${formatCount(solution.search.higher)} of them ended at a solution that fits less well. The best is shown; fewer factors may be what the items can tell apart.`,
      ...(factors > 1 ? { fixes: [{ label: `Try ${counted(factors - 1, "factor")}`, to: { factors: factors - 1 } }] } : {}),
    });
  const places = itemPlaces(items, solution.rotated.pattern, factors, structure.dimBelow);
  const cross = places.filter((place) => place.cross.length > 0);
  if (cross.length > 0 && structure.dimBelow > 0)
    watches.push({
      id: "cross",
      words: `${listed(cross.map((place) => title(place.item)))} ${cross.length === 1 ? "loads" : "load"} at ${formatShare(structure.dimBelow)} or more on several factors.`,
    });
  const homeless = places.filter((place) => place.factor === null);
  if (homeless.length > 0)
    watches.push({
      id: "homeless",
      words: `${listed(homeless.map((place) => title(place.item)))} ${homeless.length === 1 ? "loads" : "load"} on no factor at ${formatShare(structure.dimBelow)} or more.`,
    });
  const thin = Array.from({ length: factors }, (_, f) => f).filter((f) => places.filter((place) => place.factor === f).length < 3);
  if (factors > 1 && thin.length > 0)
    watches.push({
      id: "thin",
      words:
        thin.length === 1
          ? `Factor ${thin[0]! + 1} has fewer than three items of its own: too few to know it by.`
          : `Factors ${listed(thin.map((f) => String(f + 1)))} have fewer than three items of their own: too few to know them by.`,
      fixes: [{ label: `Try ${counted(factors - 1, "factor")}`, to: { factors: factors - 1 } }],
    });
  return watches;
}

/** What holding the loadings against the scales shows, a sentence a scale. */
export function agreementSentences(agreement: readonly ScaleAgreement[], title: Titles): string[] {
  const named = (names: readonly string[]) => listed(names.map((name) => title(name)));
  return agreement.map(({ scale, items, factor, elsewhere, nowhere, against, guests }) => {
    const name = title(scale);
    if (factor === null) return `${name}: no factor that two of its items go with.`;
    const together = items.length - elsewhere.length - nowhere.length;
    const parts = [
      elsewhere.length > 0 ? `${named(elsewhere)} ${elsewhere.length === 1 ? "goes" : "go"} with another factor` : "",
      nowhere.length > 0 ? `${named(nowhere)} with none` : "",
      against.length > 0 ? `${named(against)} ${against.length === 1 ? "runs" : "run"} against the others` : "",
      guests.length > 0 ? `${named(guests)} of other scales ${guests.length === 1 ? "joins" : "join"} it` : "",
    ].filter((part) => part !== "");
    const whole = together === items.length ? `all ${items.length} items` : `${together} of ${items.length} items`;
    return `${name}: ${whole} on factor ${factor + 1}${parts.length === 0 ? ", as keyed" : `; ${listed(parts)}`}.`;
  });
}

/** Where an item stands, for its row. */
export function placeWords({ factor, cross }: ItemPlace): string {
  if (factor === null) return "on no factor";
  return cross.length === 0 ? `on factor ${factor + 1}` : `on factor ${factor + 1}, also on ${listed(cross.map((f) => String(f + 1)))}`;
}

/** Sentences for a method section, to be copied. */
export function structureMethod(structure: Structure, analysis: StructureAnalysis): Words {
  const { items, n, adequacy, sphericity, parallel, solution } = analysis;
  const method = EXTRACTION_WORDS[structure.extraction];
  const what = structure.extraction === "principal-components" ? "component analysis" : `factor analysis (${method})`;
  const fit = [
    ...(adequacy ? [`Kaiser–Meyer–Olkin measure ${formatShare(adequacy.overall)}`] : []),
    ...(sphericity ? [words`Bartlett's test χ²(${sphericity.df}) = ${formatNumber(sphericity.chi2)}, ${pStatement(sphericity.p)}`] : []),
  ];
  const first = words`The ${items.length} items were submitted to an exploratory ${what} on the ${n} respondents complete on all of them${fit.length === 0 ? "" : words` (${joined(fit, "; ")})`}.`;
  const horn = `Parallel analysis (${parallel.sets} random data sets, 95th percentile) suggested ${counted(parallel.retained, "factor")}.`;
  if (!solution) return words`${first} ${horn}`;
  const turned = solution.factors === 1 || structure.rotation === "none" ? "" : ` and rotated by ${ROTATION_WORDS[structure.rotation]}`;
  const { correlations } = solution.rotated;
  const between = correlations
    ? `; factor correlations were at most ${formatShare(Math.abs(strongestPair(correlations, solution.factors).r))} in size`
    : "";
  return words`${first} ${horn} ${solution.factors === 1 ? "One factor was" : `${solution.factors} factors were`} extracted${turned}, explaining ${formatShare(explainedTogether(solution).percent, 0)} % of the variance${between}.`;
}

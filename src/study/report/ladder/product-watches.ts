import { activeTerms } from "../../model/ladder";
import { formatShare, listed, pStatement } from "../format-number";
import { SYMBOL, words } from "../words";
import { columnTitle } from "./coefficient-words";
import type { LadderWatch } from "./ladder-fix";
import type { WatchInput } from "./watch-input";
import { fixesAt, placeOf } from "./term-place";

/** A product without all that it is made of. */
export function marginalityWatches({ result: { fit }, title }: WatchInput): LadderWatch[] {
  return fit.marginality.map((fault) => {
    const missing = fault.missing.components.map((name) => title(name)).join(" × ");
    return {
      id: `marginality ${fault.product} ${missing}`,
      words: `Step ${fault.step} holds ${columnTitle(fault.product, fit, title)} without ${missing}. The product then also carries what belongs to ${missing}.`,
      fixes: [{ do: "add-term", step: fault.step, components: [...fault.missing.components] }],
    };
  });
}

/** Products of what is not centred, and of single items. */
export function productWatches({ study, ladder, result: { fit }, title }: WatchInput): LadderWatch[] {
  const watches: LadderWatch[] = [];
  const products = ladder.steps.flatMap((step) => activeTerms(step).filter((term) => term.components.length > 1));
  const components = [...new Set(products.flatMap((term) => term.components))];
  const numeric = components.filter((name) => !fit.tables.some((table) => table.variable === name));
  if (ladder.centring === "raw" && numeric.length > 0) {
    watches.push({
      id: "uncentred",
      words: `The products are of ${listed(numeric.map((name) => title(name)))} as they are: beside them each b holds where the other is 0, which may be no possible answer. The products' own tests do not change with centring.`,
      fixes: [{ do: "centre" }],
    });
  }
  for (const name of numeric) {
    if (!study.codebook.some((v) => v.name === name && v.kind === "item")) continue;
    const scale = study.scales.find((s) => s.items.some((item) => item.variable === name) && s.id !== ladder.outcome);
    watches.push({
      id: `item product ${name}`,
      words: `${title(name)} is a single item: in a product its error of measurement is multiplied. A scale carries less of it.`,
      fixes: scale ? [{ do: "replace-name", name, by: scale.id }] : [],
    });
  }
  return watches;
}

/** r from which two predictors of a product go together enough to ask which comes from which. */
const TOGETHER = 0.3;
/** Share of its b that a predictor must lose to the other. */
const TAKEN_OVER = 1 / 3;

/** A moderator that takes over part of the other's coefficient while the product adds nothing: perhaps it is a mediator. */
export function mediatorWatches({ ladder, result: { fit, pairs }, title }: WatchInput): LadderWatch[] {
  const stepOf = (name: string) => (placeOf(ladder, name)?.step ?? 0) - 1;
  const bOf = (name: string, k: number) => fit.steps[k]?.coefficients.find((c) => c.column === name)?.b.estimate ?? null;
  return pairs.flatMap(({ term, names, r }): LadderWatch[] => {
    const product = fit.steps.at(-1)!.coefficients.find((c) => c.column === term);
    if (Math.abs(r) < TOGETHER || !product || (product.b.p ?? 0) < 0.05) return [];
    // the one that enters later, after the other has been seen without it
    const [x, m] = stepOf(names[0]) <= stepOf(names[1]) ? names : [names[1], names[0]];
    const [from, to] = [stepOf(x), stepOf(m)];
    if (from < 0 || from === to) return [];
    const [before, after] = [bOf(x, to - 1), bOf(x, to)];
    if (before === null || after === null || Math.abs(after) > (1 - TAKEN_OVER) * Math.abs(before)) return [];
    return [
      {
        id: `mediator ${term}`,
        words: words`${title(m)} goes with ${title(x)} (${SYMBOL.r} = ${formatShare(r)}) and takes over ${formatShare((1 - Math.abs(after / before)) * 100, 0)} % of its coefficient, while their product adds nothing sure (${pStatement(product.b.p)}). If your theory says that ${title(x)} works through ${title(m)}, it is a mediator, and the product does not test that.`,
        fixes: fixesAt("switch-off", ladder, term),
      },
    ];
  });
}

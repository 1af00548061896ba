import { mediationSays } from "./mediation-words";
import { mediationOf } from "../../analyse/mediation";
import { activeTerms } from "../../model/ladder";
import { listed } from "../format-number";
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

/** A moderator that takes over part of the other's coefficient while the product adds nothing: perhaps it is a mediator. */
export function mediatorWatches({ ladder, result: { fit, pairs }, title }: WatchInput): LadderWatch[] {
  const stepOf = (name: string) => (placeOf(ladder, name)?.step ?? 0) - 1;
  const last = fit.steps.at(-1)!.coefficients;
  const bOf = (name: string, k: number) => fit.steps[k]?.coefficients.find((c) => c.column === name)?.b.estimate ?? null;
  return pairs.flatMap((pair): LadderWatch[] => {
    const found = mediationOf(pair, stepOf, bOf, last.find((c) => c.column === pair.term)?.b.p ?? null); // prettier-ignore
    return found
      ? [{ id: `mediator ${pair.term}`, words: mediationSays(found, title), fixes: fixesAt("switch-off", ladder, pair.term) }]
      : [];
  });
}

import type { SuppressionPair, SuppressionSign } from "@/core/regression/suppression";
import { partKey, termName } from "@/core/regression/terms";
import { counted, formatNumber, formatShare, listed } from "../format-number";
import { SYMBOL, type Words, words } from "../words";
import { columnTitle } from "./coefficient-words";
import type { Titles } from "../level-title";
import type { LadderFix, LadderWatch } from "./ladder-fix";
import type { WatchInput } from "./watch-input";
import { fixesAt } from "./term-place";

/** Perfect fits, errors that cannot be had, and columns that were left out. Each is told at the step where it begins. */
export function perfectWatches({ ladder, result: { fit }, title }: WatchInput): LadderWatch[] {
  const watches: LadderWatch[] = [];
  fit.steps.forEach((step, k) => {
    const before = fit.steps[k - 1]?.notes ?? [];
    const dropped = new Set(before.flatMap((n) => (n.code === "dropped" ? [n.column.column] : [])));
    for (const note of step.notes) {
      if (note.code !== "dropped" && before.some((n) => n.code === note.code)) continue;
      if (note.code === "perfect-fit") {
        watches.push({
          id: `perfect ${k}`,
          words: `Step ${k + 1} predicts the outcome without any error, so there is nothing to test with. Is the outcome made of its predictors?`,
          fixes: ladder.steps[k]!.terms.slice(0, 1).flatMap((t) => fixesAt("switch-off", ladder, termName(t))),
        });
      } else if (note.code === "robust-errors-unavailable") {
        watches.push({
          id: `robust ${k}`,
          words:
            note.why.reason === "too-few-clusters"
              ? `Step ${k + 1} has no cluster-robust errors: all respondents belong to one cluster.`
              : `Step ${k + 1} has no HC3 errors: ${counted(note.why.cases.length, "respondent is", "respondents are")} predicted by ${note.why.cases.length === 1 ? "a coefficient of its own" : "coefficients of their own"} (leverage 1).`,
          fixes: [{ do: "classical-errors" }],
        });
      } else if (!dropped.has(note.column.column)) {
        const name = columnTitle(note.column.column, fit, title);
        watches.push({
          id: `dropped ${note.column.column}`,
          words:
            note.column.reason === "constant"
              ? `${name} is the same for everyone in the sample and was left out.`
              : `${name} follows exactly from ${listed(note.column.combinationOf.map((c) => columnTitle(c, fit, title)))} and was left out.`,
          fixes: fixesAt("remove-term", ladder, note.column.column),
        });
      }
    }
  });
  return watches;
}

const keyOf = (variable: string) => partKey({ variable, level: null });

/** Below this tolerance a coefficient can hardly be told from the others'. */
const LOW = 0.1;

/** Predictors that share nearly everything with the others; and products, where that does not matter. */
export function collinearityWatches({ ladder, result: { fit, inflations }, step, title }: WatchInput): LadderWatch[] {
  const { coefficients, terms } = fit.steps[step]!;
  const names = (term: string) => fit.parts.get(term)!.map((part) => part.variable);
  const products = terms.map((t) => names(t.term)).filter((parts) => parts.length > 1);
  const inProduct = (term: string) => names(term).length > 1 || products.some((parts) => parts.includes(names(term)[0]!));
  const watches: LadderWatch[] = [];
  const ofProducts = [...new Set(coefficients.filter((c) => c.tolerance < LOW && inProduct(c.term)).map((c) => c.term))];
  if (ofProducts.length > 0) {
    watches.push({
      id: "tolerance of products",
      words: `The tolerance of ${listed(ofProducts.map((term) => columnTitle(term, fit, title)))} is low because a product stands beside its own parts. That is no fault: the product's test is the same however its parts are centred.`,
      fixes: ladder.centring === "raw" ? [{ do: "centre" }] : [],
    });
  }
  for (const c of coefficients) {
    if (c.tolerance >= LOW || c.column !== c.term || inProduct(c.term)) continue;
    watches.push({
      id: `tolerance ${c.column}`,
      words: `${columnTitle(c.column, fit, title)} shares nearly everything with the other terms (tolerance ${formatShare(c.tolerance, 3)}, VIF ${formatNumber(c.vif, 1)}): its own coefficient is uncertain.`,
      fixes: fixesAt("switch-off", ladder, c.term),
    });
  }
  for (const { term, columns, root } of inflations[step] ?? []) {
    if (columns < 2 || root === null || root * root < 1 / LOW || inProduct(term)) continue;
    watches.push({
      id: `inflation ${term}`,
      words: `${columnTitle(term, fit, title)} as a whole shares nearly everything with the other terms (generalized VIF${`^(1/${2 * columns})`} = ${formatNumber(root)}).`,
      fixes: fixesAt("switch-off", ladder, term),
    });
  }
  return watches;
}

/** Predictors that must be read together, in the step that is spoken of. Associational: who suppresses what is the theory's to say. */
export function suppressionWatches({ ladder, result: { fit }, step, title }: WatchInput): LadderWatch[] {
  const { suppression, coefficients } = fit.steps[step]!;
  const pair = suppression.find((flag) => flag.scope === "pair");
  if (pair) {
    const off = pair.suppressor === "both" ? pair.predictors[1] : pair.suppressor;
    return [{ id: `suppression ${pair.kind}`, words: pairWords(pair, title), fixes: fixesAt("switch-off", ladder, keyOf(off)) }];
  }
  return suppression.flatMap((flag): LadderWatch[] => {
    if (flag.scope === "pair") return [];
    const c = coefficients.find((one) => one.column === keyOf(flag.predictor));
    if (!c?.beta || c.zeroOrder === null) return [];
    const fixes: LadderFix[] = fixesAt("switch-off", ladder, keyOf(flag.predictor));
    return [{ id: `suppression ${flag.predictor}`, words: signWords(flag, c.zeroOrder, c.beta.estimate, title), fixes }];
  });
}

function signWords({ predictor, signs }: SuppressionSign, r: number, beta: number, title: Titles): Words {
  const name = title(predictor);
  const both = words`${SYMBOL.r} = ${formatShare(r)}, β = ${formatShare(beta)}`;
  if (signs.includes("other-sign"))
    return words`${name} turns its sign beside the others (${both}): a sign of suppression. Read it together with them.`;
  if (signs.includes("hidden"))
    return words`${name} hardly goes with the outcome by itself and does beside the others (${both}): a sign of suppression.`;
  return words`${name} counts for more beside the others than by itself (${both}): a sign of suppression.`;
}

function pairWords({ kind, predictors, suppressor }: SuppressionPair, title: Titles): Words {
  const [a, b] = [title(predictors[0]), title(predictors[1])];
  if (kind === "reciprocal")
    return words`${a} and ${b} each have a β larger than their own ${SYMBOL.r}: together they say more than apart (reciprocal suppression).`;
  if (suppressor === "both") return words`${a} and ${b} each have a β of the other sign than their own ${SYMBOL.r} (negative suppression).`;
  const other = title(predictors.find((name) => name !== suppressor)!);
  return kind === "classical"
    ? `${title(suppressor)} hardly goes with the outcome by itself and still has a β: it takes out of ${other} what has nothing to do with the outcome (classical suppression).`
    : words`${title(suppressor)} has a β of the other sign than its own ${SYMBOL.r}, beside ${other} (negative suppression).`;
}

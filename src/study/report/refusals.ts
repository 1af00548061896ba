import type { Refusal } from "../analyse/refusal";
import { counted, listed } from "./format-number";

/** A refusal in words: what happened, and what to do. `title` gives a name the words a person knows it by. */
export function refusalWords(refusal: Refusal, title: (name: string) => string): { what: string; remedy: string } {
  const { code, details: d } = refusal;
  switch (code) {
    case "formula-fault":
      return { what: d.message, remedy: `Look at place ${d.at + 1} of the formula.` };
    case "nothing-to-standardize":
      return {
        what: `The answers to ${title(d.variable)} do not vary, so there is nothing to divide by.`,
        remedy: "Choose another variable.",
      };
    case "circle":
      return { what: `${title(d.variable)} would be worked out from itself.`, remedy: "Take it out of its own recipe." };
    case "no-outcome":
      return { what: "This ladder has no outcome yet.", remedy: "Choose in the sentence what it should predict." };
    case "no-terms":
      return { what: "There is nothing to predict from yet.", remedy: "Add a term to the first step." };
    case "outcome-among-predictors":
      return {
        what: `${title(d.outcome ?? "")} is the outcome and a predictor at once.`,
        remedy: "Take it out of the steps, or choose another outcome.",
      };
    case "outcome-is-category":
      return {
        what: `${title(d.outcome ?? "")} is a category, and only a number can be predicted here.`,
        remedy: "Choose another outcome, or say in the codebook that it is a number.",
      };
    case "unknown-level":
      return {
        what: `${title(d.variable)} has no level ${d.level}, which was chosen as its reference.`,
        remedy: "Choose another reference level.",
      };
    case "unlike-models": {
      const [first, second] = d.values;
      const sample = d.differ === "sample";
      return {
        what: sample
          ? `${d.first} and ${d.second} are fitted on different respondents (${first} and ${second}), so they are not compared.`
          : `${d.first} predicts ${title(String(first))}, ${d.second} predicts ${title(String(second))}, so they are not compared.`,
        remedy: sample ? "Fit both on the respondents they have in common." : "Compare models of one outcome.",
      };
    }
    case "model-refused": {
      const inner = refusalWords(d.refusal, title);
      return { what: `${d.model}: ${inner.what}`, remedy: inner.remedy };
    }
    case "too-few-cases":
      return {
        what: `${d.purpose} needs at least ${counted(d.needed, "complete respondent")}; there ${d.cases === 1 ? "is" : "are"} ${d.cases}.`,
        remedy: "Use fewer terms, or look which variable costs the most respondents.",
      };
    case "constant-outcome":
      return {
        what: `${title(d.outcome)} is the same for everyone in the sample.`,
        remedy: "Choose another outcome, or another part of the sample.",
      };
    case "duplicate-term":
      return {
        what: `The term ${d.components.map((name) => title(name)).join(" × ")} stands in the ladder twice.`,
        remedy: "Remove one of the two.",
      };
    case "undeclared-range":
      return {
        what: `The lowest and highest possible answer of ${listed(d.items)} ${d.items.length === 1 ? "is" : "are"} not declared, so a reversed answer is not known.`,
        remedy: "Declare the range of answers in the scale's sentence, or in the codebook.",
      };
    case "too-few-items":
      return {
        what: `A structure needs at least ${d.needed} items that vary; there ${d.items === 1 ? "is" : "are"} ${d.items}${d.constant.length > 0 ? ` (everyone gave the same answer to ${listed(d.constant.map((name) => title(name)))})` : ""}.`,
        remedy: "Add items.",
      };
    case "constant-items":
      return {
        what: `Everyone gave the same answer to ${listed(d.items.map((name) => title(name)))}, so there is no z-score and no correlation.`,
        remedy: "Take it out of the scale, or score by a mean or sum.",
      };
    case "singular-correlations":
      return {
        what: d.fewCases
          ? `${d.purpose} needs more complete respondents than items.`
          : `${d.purpose} cannot tell ${title(d.item)} from the items before it: it is a copy or a sum of them.`,
        remedy: d.fewCases
          ? "Use fewer items, or principal axis or minimum residuals."
          : `Take ${title(d.item)} out, or use principal axis or minimum residuals.`,
      };
    case "too-many-factors":
      return {
        what: `${d.items} items cannot tell ${counted(d.factors, "factor")} apart.`,
        remedy: `Ask for at most ${d.most}.`,
      };
    case "no-uniqueness":
      return {
        what: `The factors leave nothing of ${listed(d.items.map((name) => title(name)))} unexplained, so Bartlett's scores do not exist.`,
        remedy: "Score by regression, or use fewer factors.",
      };
    case "missing-column":
      return { what: `The data have no column ${title(d.column)}.`, remedy: "Bring in a file that has it, or take it out of the ladder." };
    case "non-finite-value":
      return {
        what: `${title(d.column)} becomes infinite at row ${d.row} of the sample.`,
        remedy: "Look at its largest values: a product of huge numbers cannot be computed.",
      };
    case "out-of-range":
      return { what: `The numbers of ${title(d.column)} are too large or too small to compute with.`, remedy: "Give it in another unit." };
    case "singular-resamples":
      return {
        what: "Resample after resample lacked a column, so no replicates can be drawn: a group of the sample is too small.",
        remedy: "Its own numbers stand; intervals by normal theory can still be had.",
      };
    case "too-many-cases":
      return { what: `${d.purpose} is made for at most ${d.most} respondents; there are ${d.cases}.`, remedy: "Use fewer of them." };
    case "nothing-to-probe":
      return {
        what:
          d.moderators.length === 0
            ? `Step ${d.step} does not hold ${title(d.focal)}.`
            : `Step ${d.step} has no product of ${title(d.focal)} with ${listed(d.moderators.map((name) => title(name)))}.`,
        remedy: `Add ${d.moderators.length === 0 ? "it" : "the product"} to the step, or ask something else of it.`,
      };
    case "perfect-fit":
      return {
        what: `Step ${d.step} fits perfectly: nothing is left to look at.`,
        remedy: "Is the outcome made of its predictors, or are there as many terms as respondents?",
      };
    case "nothing-new":
      return { what: `Step ${d.step} brings nothing that could have changed a coefficient.`, remedy: "Choose a later step." };
    case "not-in-both-steps":
      return {
        what: `${d.column.map(({ variable }) => title(variable)).join(" × ")} has no coefficient in both steps.`,
        remedy: "Choose a predictor that is in the earlier step already.",
      };
    case "not-in-step":
      return {
        what: `${d.column.map(({ variable }) => title(variable)).join(" × ")} has no coefficient in step ${d.step}.`,
        remedy: "Choose another term.",
      };
    case "nothing-to-share":
      return { what: `Step ${d.step} has no terms besides the controls.`, remedy: "Let fewer steps be controls." };
    case "not-closed":
      return {
        what: "The step holds a product without all its parts: centred anew in each resample or shuffle it would be another model.",
        remedy: "Add the parts of the product to the step. Tests by normal theory stand without that.",
      };
    case "too-many-levels":
      return {
        what: `${title(d.variable)} has ${d.levels} levels; at most ${d.most} can stand as columns of a table.`,
        remedy: "Cut it into fewer levels under Responses, or tell by it instead.",
      };
    case "no-replicates":
      return {
        what: `The step holds a column that is a combination of others (${listed(d.columns)}), so its places are not told from replicates.`,
        remedy: "Intervals by normal theory stand in their place; take the term out to have both.",
      };
    case "nothing-within-groups":
      return {
        what: `Every term of step ${d.step} holds ${title(d.variable)}, which does not vary within a group.`,
        remedy: "Ask a step that holds other predictors, or tell by another variable.",
      };
    case "one-group":
      return {
        what: `${title(d.variable)} has ${d.groups === 0 ? "no group" : "one group"} in the sample, so there is nothing to compare.`,
        remedy: "Tell by another variable, take back levels that were left out, or look at the ladder's respondents.",
      };
    case "too-many-groups":
      return {
        what: `${title(d.variable)} has ${d.groups} groups in the sample; at most ${d.most} can be read beside each other.`,
        remedy: "Cut it into fewer levels under Responses, or tell by another variable.",
      };
    case "no-errors":
      return {
        what: `The standard errors that this ladder asks for cannot be had in this step${d.why === "too-few-clusters" ? ": there are fewer than two clusters" : ": a respondent decides the step's prediction alone"}.`,
        remedy: "Choose other standard errors in the ladder's sentence.",
      };
    case "unknown-variable":
      return { what: `There is no variable ${title(d.variable)}.`, remedy: "Take it out, or bring in a file that has it." };
    default:
      // a refusal that has no words here, from a newer version
      return { what: "This could not be computed.", remedy: "Nothing was changed. Undo the last step and try again." };
  }
}

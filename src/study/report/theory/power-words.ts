import type { From, PowerResult } from "../../analyse/analyse-power";
import type { SimulatedPower } from "../../analyse/joined-samples";
import { counted, formatCount, formatLevel, formatShare, listed } from "../format-number";
import type { Titles } from "../level-title";
import type { PrintTable } from "../print-table";
import { DELTA_R2, R2, type Words, words } from "../words";

type Planned = Extract<PowerResult, { status: "planned" }>;

/** Why it cannot be planned. */
export const POWER_REFUSED: Record<Extract<PowerResult, { status: "refused" }>["why"], string> = {
  rests: "Respondents are reckoned for what a step adds and for coefficients.",
  ladder: "It needs a ladder with an outcome.",
  step: "Its ladder has no such step.",
  nothing: "The step does not hold what it rests on.",
  "too-much": "Such an effect would alone explain more than R² is assumed to be: assume a larger R², or a smaller effect.",
};

/** A power, never printed as all there is or nothing. */
export function formatPower(value: number | null): string {
  if (value === null) return "–";
  if (value > 0.995) return "> .99";
  return value < 0.005 ? "< .01" : formatShare(value);
}

const size = ({ of }: Pick<Planned, "of">, value: number) => formatShare(value, of === "change" ? 3 : 2);
const symbol = ({ of }: Pick<Planned, "of">): Words => (of === "change" ? DELTA_R2 : "β");
const FROM: Record<From, string> = {
  said: "as you say",
  found: "as in the sample",
  smallest: "the smallest that matters",
  usual: "a usual value",
};

/** What stands where evidence will: what so many could show. */
export function plannedEvidence(found: PowerResult, wanted: number): Words {
  if (found.status === "refused") return "";
  const more = found.needed === null ? "" : `; ${formatShare(wanted)} takes ${formatCount(found.needed)}`;
  return words`${formatCount(found.n)} would show ${symbol(found)} = ${size(found, found.effect)} with power ${formatPower(found.power)}${more}`;
}

/** What so many can show, in sentences. */
export function powerSays(found: Planned, wanted: number, title: Titles): Words[] {
  const { n, needed, detectable, halfWidth, product, test } = found;
  const said: Words[] = [];
  if (found.power === null) said.push(`With ${formatCount(n)} respondents no degree of freedom is left for ${counted(test.columns, "column")}.`); // prettier-ignore
  if (detectable !== null)
    said.push(words`${counted(n, "respondent")} show ${symbol(found)} = ${size(found, detectable)} with a power of ${formatShare(wanted)}${halfWidth === null ? "" : `; the interval of β would reach ${formatShare(halfWidth)} to either side`}.`); // prettier-ignore
  if (needed === null) said.push("No number of respondents reaches that power: the effect is too small to be told from nothing.");
  if (product) {
    const [first, second] = product.names.map((name) => title(name));
    said.push(
      words`What it multiplies is measured with reliabilities of ${formatShare(product.reliability[0])} (${first!}) and ${formatShare(product.reliability[1])} (${second!}), so the product’s is ${formatShare(product.of)}: a β of that size in truth would show with a power of ${formatPower(product.power)} only${product.needed === null ? "" : `, and take ${formatCount(product.needed)} respondents`}.`,
    );
  }
  const { from } = found;
  said.push(words`Assumed: ${listed([`${formatCount(n)} respondents (${FROM[from.n]})`, `R² = ${formatShare(found.R2)} (${FROM[from.R2]})`, `the effect (${FROM[from.effect]})`])}; ${test.oneSided ? "one-sided, since the direction stands before its result" : "two-sided"}, given the predictors as they are.`); // prettier-ignore
  return said;
}

/** What the drawn samples say, beside what was reckoned. */
export function samplesSay(drawn: SimulatedPower, found: Planned): Words[] {
  const fitted = drawn.samples - drawn.failed;
  const share = drawn.held / drawn.samples;
  const error = Math.sqrt((share * (1 - share)) / drawn.samples);
  const said: Words[] = [
    words`The test held in ${formatCount(drawn.held)} of ${formatCount(drawn.samples)} samples: a power of ${formatPower(share)}, give or take ${formatShare(1.96 * error)}; reckoned, it is ${formatPower(found.power)}.`, // prettier-ignore
  ];
  if (fitted > 0 && drawn.left / fitted < drawn.n - 0.5) said.push(`On average ${formatCount(Math.round(drawn.left / fitted))} of ${formatCount(drawn.n)} answered everything.`); // prettier-ignore
  if (fitted > 0 && found.of === "coefficient") said.push(`Its interval reached ${formatShare(drawn.halfWidths / fitted)} to either side, on average.`); // prettier-ignore
  if (drawn.failed > 0) said.push(`In ${counted(drawn.failed, "sample")} too few were left to fit the model.`);
  return said;
}

/** Power over the number of respondents, as numbers. */
export function powerTable(found: Planned, code: string): PrintTable {
  return {
    title: `Power of ${code} over the number of respondents`,
    head: ["Respondents", "Power"],
    sections: [{ heading: "", rows: found.curve.map(({ n, power }) => [formatCount(n), formatPower(power)]) }],
    note: words`${symbol(found)} = ${size(found, found.effect)}, ${R2} = ${formatShare(found.R2)}, α = ${formatLevel(found.test.alpha)}, ${found.test.oneSided ? "one-sided" : "two-sided"}.`, // prettier-ignore
  };
}

import type { Analysis, Desk, WorkedOut } from "../kinds/kind";
import type { Hypothesis } from "../model/hypothesis";
import type { Ladder } from "../model/ladder";
import type { Power } from "../model/power";
import { type Theory, theoryOf } from "../model/theory";
import { analysePower, type PowerQuestion, type PowerResult, simulatedPower } from "./analyse-power";
import type { SimulatedPower } from "./joined-samples";

/** Power and respondents under the names of docs/results.md. */
function powerResults(power: Power, desk: Desk, { dealt }: WorkedOut) {
  const hypothesis = (desk.objects("hypothesis") as Hypothesis[]).find((h) => h.id === power.hypothesis)!;
  const ladder = (desk.objects("ladder") as Ladder[]).find((l) => l.id === hypothesis.ladder) ?? null;
  const question = { power, hypothesis, ladder, theory: theoryOf(desk.objects("theory") as Theory[]) };
  const found = analysePower(question, desk);
  const settings = { ...power, id: undefined };
  if (found.status === "refused") return { settings, status: found.status, why: found.why };
  const samples = power.samples === null ? null : ((dealt as SimulatedPower | null | undefined) ?? simulatedPower(question, desk, { first: 0, count: power.samples })); // prettier-ignore
  const { test, product, n, R2, effect, f2, power: reached, needed, detectable, halfWidth, own } = found;
  return {
    settings,
    status: found.status,
    of: found.of,
    assumed: { n, R2, effect, from: found.from },
    tested: test.tested,
    columns: test.columns,
    alpha: test.alpha,
    one_sided: test.oneSided,
    f2,
    own,
    power: reached,
    n_needed: needed,
    detectable,
    half_width: halfWidth,
    product: product && { reliability: product.reliability, r: product.r, of_product: product.of, power: product.power, n_needed: product.needed }, // prettier-ignore
    simulated: samples && simulatedResults(samples),
  };
}

function simulatedResults({ samples, held, failed, left, halfWidths }: SimulatedPower) {
  const fitted = samples - failed;
  const mean = (sum: number) => (fitted === 0 ? null : sum / fitted);
  return { samples, failed, power: held / samples, mean_n: mean(left), mean_half_width: mean(halfWidths) };
}

export const analysis: Analysis<Power, PowerQuestion, PowerResult> = {
  run: analysePower,
  results: powerResults,
  dealt: { count: ({ power }) => power.samples ?? 0, range: simulatedPower },
};

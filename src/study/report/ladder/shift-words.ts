import type { ShiftNewcomer, ShiftResult } from "../../analyse/analyse-shift";
import type { Ladder } from "../../model/ladder";
import { formatNumber, formatP, formatPercent, formatShare, listed, pStatement } from "../format-number";
import { termTitle, type Titles } from "../level-title";
import type { PrintTable } from "../print-table";
import { plain, SYMBOL, type Words, words } from "../words";
import { columnTitle } from "./coefficient-words";

type Told = Extract<ShiftResult, { status: "told" }>;
type Metric = Ladder["metric"];

/** In SDs where the ladder is read so and the coefficient has a β. */
export const inSds = (told: Told, metric: Metric) => metric !== "raw" && told.newcomers.every((one) => one.takenBeta !== null) && told.after.beta !== null; // prettier-ignore
const valueOf = (c: Told["before"], sds: boolean) => (sds ? c.beta!.estimate : c.b.estimate);
const printed = (value: number, sds: boolean) => (sds ? formatShare(value) : formatNumber(value));
const takenOf = (one: ShiftNewcomer, sds: boolean) => (sds ? one.takenBeta! : one.taken);

/** Newcomers, those that take or give most first. */
export const byTaken = (told: Told) => [...told.newcomers].sort((a, b) => Math.abs(b.taken) - Math.abs(a.taken));

/** What happened to the coefficient, which newcomers did it, what that is called, and what it does not show. */
export function whatTheShiftSays(told: Told, metric: Metric, title: Titles): Words[] {
  const { before, after, pattern } = told;
  const sds = inSds(told, metric);
  const symbol: Words = sds ? "β" : [SYMBOL.b];
  const who = columnTitle(told.column, told, title);
  const [was, is] = [valueOf(before, sds), valueOf(after, sds)];
  const said: Words[] = [
    words`${symbol} of ${who} is ${printed(was, sds)} (${pStatement(before.b.p)}) in step ${told.step - 1} and ${printed(is, sds)} (${pStatement(after.b.p)}) in step ${told.step}.`,
  ];
  if (pattern === "small")
    return [...said, "That is no more than its standard error in the earlier step: there is little to explain.", ...cautions(told)];
  const sorted = byTaken(told);
  const main = sorted.filter((one) => one.share !== null && one.share >= 0.1).slice(0, 3);
  const against = sorted.filter((one) => one.share !== null && one.share <= -0.1).slice(0, 2);
  const named = (list: readonly ShiftNewcomer[]) => listed(list.map((one) => `${termTitle(one.term, title)} (${formatPercent(Math.abs(one.share!))})`)); // prettier-ignore
  const verb = pattern === "overlap" ? "taken over by" : "brought out by";
  if (main.length > 0) said.push(`The change is ${verb} ${named(main)}${against.length > 0 ? `; against it goes ${named(against)}` : ""}.`); // prettier-ignore
  const first = sorted[0]!;
  const name = termTitle(first.term, title);
  const r = first.zeroOrder === null ? "" : words`, whose own ${SYMBOL.r} with the outcome is ${formatShare(first.zeroOrder)}`;
  switch (pattern) {
    case "overlap":
      said.push(`This is overlap: ${who} and ${listed(main.map((one) => termTitle(one.term, title)))} say partly the same about the outcome. It cannot be told from the numbers whose it is.`); // prettier-ignore
      break;
    case "classical":
      said.push(words`This is classical suppression: ${name}${r}, takes out of ${who} what has nothing to do with the outcome.`);
      break;
    case "reciprocal":
      said.push(words`This is reciprocal suppression: ${who} and ${name} say more together than apart.`);
      break;
    case "negative":
      said.push(words`This is negative suppression: beside the newcomers a sign is turned. Read ${who} and ${name} together only.`);
      break;
    case "unnamed":
      said.push(words`This is suppression: the newcomers hid part of ${who}. None of its named kinds fits.`);
  }
  if (told.through.length > 0) {
    const through = listed(told.newcomers.filter((one) => told.through.includes(one.key)).map((one) => termTitle(one.term, title)));
    said.push(`It would look like this if ${who} worked through ${through}, and just as well if something else stood behind both or ${through} came first. Only the design or your theory can tell; a test of an indirect path is another one.`); // prettier-ignore
  }
  return [...said, ...cautions(told)];
}

function cautions({ conditional }: Told): Words[] {
  return conditional ? ["A product with it has come in: its coefficient is now the slope where the others of the product stand at their centre, and means another thing than before."] : []; // prettier-ignore
}

/** The newcomers, what each takes, and the coefficient without it. */
export function shiftTable(told: Told, ladder: Pick<Ladder, "name" | "metric">, title: Titles): PrintTable {
  const sds = inSds(told, ladder.metric);
  const change = valueOf(told.before, sds) - valueOf(told.after, sds);
  return {
    title: `Why ${columnTitle(told.column, told, title)} changes from step ${told.step - 1} to step ${told.step} (${ladder.name})`,
    head: [
      "Newcomer",
      sds ? "takes (β)" : words`takes (${SYMBOL.b})`,
      "% of the change",
      words`${SYMBOL.b} without it`,
      [SYMBOL.r],
      [SYMBOL.p],
    ],
    sections: [
      {
        heading: "",
        rows: [
          ...byTaken(told).map((one) => [
            termTitle(one.term, title),
            printed(takenOf(one, sds), sds),
            one.share === null ? "" : (one.share * 100).toFixed(0).replace("-", "−"),
            formatNumber(one.without),
            formatShare(one.zeroOrder),
            formatP(one.p),
          ]),
          ["Change", printed(change, sds), told.before.b.estimate === told.after.b.estimate ? "" : "100", "", "", ""],
        ],
      },
    ],
    note: whatTheShiftSays(told, ladder.metric, title).map(plain).join(" "),
  };
}

import type { WithoutPullers } from "../../analyse/without-pullers";
import type { Ladder } from "../../model/ladder";
import { counted, formatNumber, formatP, formatShare, listed } from "../format-number";
import type { Titles } from "../level-title";
import type { PrintTable } from "../print-table";
import { DELTA_R2, joined, R2, SYMBOL, type Words, words } from "../words";
import { columnTitle, partsTitle } from "./coefficient-words";

/** A verdict that would be another one: its sign, or the side of the line that its p lies on. */
export interface TurnedVerdict {
  column: string;
  turns: "sign" | "gained" | "lost" | "gone";
}

/** @param line p below which a coefficient is told from 0 */
export function verdictsThatTurn({ coefficients }: WithoutPullers, line: number): TurnedVerdict[] {
  return coefficients.flatMap(({ column, with: one, without }): TurnedVerdict[] => {
    if (!without) return [{ column, turns: "gone" }];
    const [was, is] = [one.b.p, without.b.p].map((p) => p !== null && p < line);
    if ((was || is) && Math.sign(one.b.estimate) !== Math.sign(without.b.estimate)) return [{ column, turns: "sign" }];
    return was === is ? [] : [{ column, turns: is ? "gained" : "lost" }];
  });
}

/** Who is out, in words: by what they pull on. */
export function pullersWords({ pulls, rows }: Pick<WithoutPullers, "pulls" | "rows">, title: Titles): Words {
  const who = counted(rows.length, "respondent");
  if (pulls.by === "fit") return `${who} whose Cook’s distance lies above 4/n`;
  if (pulls.by === "change") return `${who} who move what the step adds most`;
  return words`${who} who move ${SYMBOL.b} of ${partsTitle(pulls.column, title)} by more than 2/√n of its standard error`;
}

/** What would be different if they were not in; that they are no better or worse than others stands in no number. */
export function whatWithoutSays(without: WithoutPullers, ladder: Pick<Ladder, "confidence">, title: Titles): Words {
  const line = 1 - ladder.confidence;
  const { step } = without;
  const turned = verdictsThatTurn(without, line);
  const name = (column: string) => columnTitle(column, without, title);
  const named = (turns: string) => listed(turned.filter((one) => one.turns === turns).map((one) => name(one.column)));
  const at = words`${SYMBOL.p} = ${formatShare(line)}`;
  const said: [string, Words][] = [
    [named("sign"), "would turn its sign"],
    [named("lost"), words`would not lie below ${at} any more`],
    [named("gained"), words`would lie below ${at}`],
    [named("gone"), "could not be told"],
  ];
  const changes = said.flatMap(([who, what]) => (who === "" ? [] : [words`${who} ${what}`]));
  const [was, is] = [step.with, step.without].map(({ p }) => p !== null && p < line);
  if (was !== is) changes.push(words`what the step adds would ${is ? "" : "not "}lie below ${at}${is ? "" : " any more"}`);
  const verdict = changes.length === 0 ? words`no coefficient would change its sign or its side of ${at}` : joined(changes, ", ");
  return words`Without the ${pullersWords(without, title)} ${R2} would be ${formatShare(step.without.R2)} instead of ${formatShare(step.with.R2)}, what the step adds ${formatShare(step.without.deltaR2, 3)} instead of ${formatShare(step.with.deltaR2, 3)}; ${verdict}.`;
}

/** With and without them, a row a coefficient, in the ladder's metric. */
export function withoutTable(without: WithoutPullers, ladder: Pick<Ladder, "metric" | "name">, title: Titles): PrintTable {
  const told = ({ b, beta }: WithoutPullers["coefficients"][number]["with"]) => (ladder.metric === "raw" ? formatNumber(b.estimate) : formatShare(beta?.estimate ?? null)); // prettier-ignore
  const symbol: Words = ladder.metric === "raw" ? [SYMBOL.b] : "β";
  const { step } = without;
  return {
    title: words`${ladder.name} with and without ${pullersWords(without, title)}`,
    head: ["Term", words`${symbol} with`, [SYMBOL.p], words`${symbol} without`, [SYMBOL.p], "moved most by", "by so many SE"],
    sections: [
      {
        heading: "",
        rows: [
          ...without.coefficients.map(({ column, with: one, without: left, mover }) => [
            columnTitle(column, without, title),
            told(one),
            formatP(one.b.p),
            left ? told(left) : "–",
            left ? formatP(left.b.p) : "–",
            mover ? `row ${mover.row}` : "–",
            mover ? formatNumber(mover.errors) : "–",
          ]),
          [
            words`Step: ${DELTA_R2}`,
            formatShare(step.with.deltaR2, 3),
            formatP(step.with.p),
            formatShare(step.without.deltaR2, 3),
            formatP(step.without.p),
            "",
            "",
          ],
          [words`Model: ${R2}`, formatShare(step.with.R2, 3), "", formatShare(step.without.R2, 3), "", "", ""],
          ["n", String(step.with.n), "", String(step.without.n), "", "", ""],
        ],
      },
    ],
    note: "Nobody is left out by this table. Means, SDs and centres are those of who is left.",
  };
}

import type { Stand } from "../../analyse/analyse-theory";
import { codesOf, type Hypothesis } from "../../model/hypothesis";
import type { Ladder } from "../../model/ladder";
import type { Theory } from "../../model/theory";
import { formatLevel, formatShare } from "../format-number";
import type { Titles } from "../level-title";
import type { PrintTable } from "../print-table";
import { hypothesisSentence, restsWords } from "./hypothesis-words";
import { evidenceWords } from "./verdict-words";

/** All of them with evidence and verdict, as a journal prints them. */
export function theoryTable(
  { hypotheses, ladders }: { hypotheses: readonly Hypothesis[]; ladders: readonly Ladder[] },
  stands: ReadonlyMap<string, Stand>,
  theory: Theory,
  title: Titles,
): PrintTable {
  const codes = codesOf(hypotheses);
  const changed = hypotheses.flatMap((h, k) => (h.changes.length > 0 ? [codes[k]!] : []));
  return {
    title: "Hypotheses and how they stand",
    head: ["Code", "Hypothesis", "Rests on", "Evidence", "Verdict"],
    sections: [
      {
        heading: "",
        rows: hypotheses.map((h, k) => {
          const stand = stands.get(h.id);
          return [codes[k]!, hypothesisSentence(h, ladders, title), restsWords(h, ladders, title), stand ? evidenceWords(stand, h) : "", stand ? `${stand.verdict}${stand.exploratory ? ", exploratory" : ""}` : ""]; // prettier-ignore
        }),
      },
    ],
    note: `α = ${formatLevel(theory.alpha)}${theory.holm ? ", Holm over the family" : ", each by itself"}${theory.delta > 0 ? `; below |β| = ${formatShare(theory.delta)} nothing would matter` : ""}. One-sided only where the direction stood before the result was looked at.${changed.length > 0 ? ` Changed after the result was seen: ${changed.join(", ")}.` : ""}`,
  };
}

"use client";

import Link from "next/link";
import { memo } from "react";
import { useStudy } from "@/features/study/study-context";
import { useResults } from "@/features/study/use-computed";
import type { PowerResult } from "@/study/analyse/analyse-power";
import type { Stand } from "@/study/analyse/analyse-theory";
import { codesOf, type Hypothesis } from "@/study/model/hypothesis";
import type { Power } from "@/study/model/power";
import { type Study, titleOf } from "@/study/model/study";
import { hypothesisSentence, restsWords } from "@/study/report/theory/hypothesis-words";
import { plannedEvidence } from "@/study/report/theory/power-words";
import { evidenceWords } from "@/study/report/theory/verdict-words";
import page from "@/ui/parts/page.module.css";
import { Said } from "@/ui/parts/Said";
import css from "./theory.module.css";

/** Opens a hypothesis, or none: in the address, so that it can be gone back from. */
export const openHypothesis = (id: string | null) => window.history.pushState(null, "", id === null ? "?" : `?hypothesis=${id}`);

/** All hypotheses as sentences, with what each rests on, its evidence and its verdict. */
export function HypothesesTable(props: { stands: ReadonlyMap<string, Stand>; chosen: string | null; outdated: boolean }) {
  const { study, store } = useStudy();
  const { codebook, scales, ladders, hypotheses, powers } = study;
  const planned = useResults("power", powers, null);
  const codes = codesOf(hypotheses);
  return (
    <table className={css.table} data-testid="hypotheses">
      <caption className="visually-hidden">Hypotheses and how they stand</caption>
      <thead>
        <tr>
          <th scope="col">
            <span className="visually-hidden">code</span>
          </th>
          <th scope="col">Hypothesis</th>
          <th scope="col">rests on</th>
          <th scope="col">evidence</th>
          <th scope="col">verdict</th>
        </tr>
      </thead>
      <tbody className={props.outdated ? page.outdated : undefined}>
        {hypotheses.map((h, k) => (
          <Row
            key={h.id}
            h={h}
            code={codes[k]!}
            stand={props.stands.get(h.id)}
            chosen={h.id === props.chosen}
            power={powers.find((p) => p.hypothesis === h.id)}
            planned={planned.get(powers.find((p) => p.hypothesis === h.id)?.id ?? "")}
            study={store.id}
            codebook={codebook}
            scales={scales}
            ladders={ladders}
          />
        ))}
      </tbody>
    </table>
  );
}

type RowProps = Pick<Study, "codebook" | "scales" | "ladders"> & {
  h: Hypothesis;
  code: string;
  stand: Stand | undefined;
  chosen: boolean;
  study: string;
  /** What was asked of respondents, with what came out. */
  power: Power | undefined;
  planned: PowerResult | undefined;
};

/** Drawn anew only when something it says has changed: a study may hold two hundred. */
const Row = memo(function Row({ h, code, stand, chosen, study, power, planned, codebook, scales, ladders }: RowProps) {
  const title = (name: string, level?: string | null) => titleOf({ codebook, scales }, name, level);
  const rests = <Said>{restsWords(h, ladders, title)}</Said>;
  // before there is any evidence stands what so many could show
  const evidence = stand?.estimate == null ? planned && power && plannedEvidence(planned, power.power) : evidenceWords(stand, h);
  const href = restsAt(h, ladders);
  return (
    <tr className={chosen ? css.chosen : undefined}>
      <th scope="row">
        <button type="button" className="link" aria-expanded={chosen} onClick={() => openHypothesis(chosen ? null : h.id)}>
          {code}
        </button>
      </th>
      <td>{hypothesisSentence(h, ladders, title)}</td>
      <td>
        {href === null ? (
          rests
        ) : (
          <Link className="link" href={`/studies/${study}/${href}`}>
            {rests}
          </Link>
        )}
      </td>
      <td className={stand?.exploratory ? css.dotted : undefined}>{evidence && <Said>{evidence}</Said>}</td>
      <td className={css.verdict} data-testid={`verdict ${code}`}>
        {stand?.verdict ?? "…"}
        {stand?.exploratory && ", exploratory"}
      </td>
    </tr>
  );
});

/** The way to what a hypothesis rests on, from the study's own address; null: there is nothing yet. */
function restsAt({ rests, ladder: id, step }: Hypothesis, ladders: Study["ladders"]): string | null {
  if (rests.on === "correlation") return "first-look";
  if (id === null || rests.on === "open") return null;
  const at = ladders.find((l) => l.id === id)?.steps[(step ?? 0) - 1]?.id;
  return `ladders?ladder=${id}${at === undefined ? "" : `&step=${at}`}`;
}

"use client";

import Link from "next/link";
import { columnKey } from "@/core/regression/terms";
import { useStudy } from "@/features/study/study-context";
import { codesOf } from "@/study/model/hypothesis";
import type { Ladder } from "@/study/model/ladder";
import { hypothesisSentence, restsWords } from "@/study/report/theory/hypothesis-words";
import { Said } from "@/ui/parts/Said";
import css from "./ladders.module.css";

/** The hypotheses that rest on a step of a ladder: the way from a number to what is claimed of it. */
export function RestingHere({ ladder, step }: { ladder: Ladder; step: number }) {
  const { study, store, title } = useStudy();
  const last = ladder.steps.length;
  const codes = codesOf(study.hypotheses);
  const own = study.hypotheses.flatMap((h, k) => {
    const here = h.ladder === ladder.id && h.rests.on !== "open" && h.rests.on !== "correlation" && Math.min(h.step ?? last, last) === step + 1; // prettier-ignore
    return here ? [{ h, code: codes[k]! }] : [];
  });
  if (own.length === 0) return null;
  return (
    <p className={css.resting} data-testid="resting">
      Hypotheses on step {step + 1}:{" "}
      {own.map(({ h, code }, k) => (
        <span key={h.id}>
          {k > 0 && " · "}
          <Link
            className="link"
            href={`/studies/${store.id}/theory?hypothesis=${h.id}`}
            title={hypothesisSentence(h, study.ladders, title)}
          >
            <b>{code}</b> <Said>{restsWords(h, study.ladders, title)}</Said>
          </Link>
        </span>
      ))}
    </p>
  );
}

/** Codes of the hypotheses that rest on the coefficient of a column in some step, by the column's key. */
export function useClaims(ladder: Ladder): ReadonlyMap<string, { code: string; href: string }[]> {
  const { study, store } = useStudy();
  const codes = codesOf(study.hypotheses);
  const claims = new Map<string, { code: string; href: string }[]>();
  study.hypotheses.forEach((h, k) => {
    if (h.ladder !== ladder.id || h.rests.on !== "coefficient") return;
    const key = columnKey(h.rests.column);
    claims.set(key, [...(claims.get(key) ?? []), { code: codes[k]!, href: `/studies/${store.id}/theory?hypothesis=${h.id}` }]);
  });
  return claims;
}

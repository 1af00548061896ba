"use client";

import Link from "next/link";
import { useState } from "react";
import { newId } from "@/study/model/new-id";
import { useStudy } from "@/features/study/study-context";
import { CaseStatistic } from "@/study/model/derived";
import type { Ladder } from "@/study/model/ladder";
import { Variable } from "@/study/model/variable";
import { CASE_WORDS } from "@/study/report/recipe-words";
import css from "./ladders.module.css";

/** Keeps what the selected step tells of each respondent as a variable of the study. */
export function SaveBack({ ladder, step }: { ladder: Ladder; step: number }) {
  const { study, store } = useStudy();
  const [kept, setKept] = useState<string | null>(null);
  const save = (statistic: CaseStatistic) => {
    const taken = [...study.codebook.map((v) => v.name), ...study.scales.map((s) => s.id)];
    const name = newId(`${ladder.name} ${statistic}`, taken);
    const label = `${CASE_WORDS[statistic]}: ${ladder.name}, step ${step + 1}`;
    const done = store.edit(
      { subject: "variable", id: name, to: Variable.parse({ name, label }), at: study.codebook.length },
      { subject: "derived", id: name, to: { name, recipe: { kind: "case", statistic, ladder, step: step + 1 } } },
    );
    setKept(done ? name : null);
  };
  return (
    <section aria-label="Save values back" className={css.saveBack}>
      <h2>Save for each respondent, from step {step + 1}</h2>
      <p>
        {CaseStatistic.options.map((statistic, i) => (
          <span key={statistic}>
            {i > 0 && " · "}
            <button type="button" className="link" onClick={() => save(statistic)}>
              {CASE_WORDS[statistic]}
            </button>
          </span>
        ))}
      </p>
      <p role="status" className={css.foot}>
        {kept !== null && study.codebook.some((v) => v.name === kept) && (
          <>
            Saved as {kept}, a variable like any other. It keeps to this ladder as it stands now.{" "}
            <Link href={`/studies/${store.id}/responses#derived`}>See it in Responses</Link>
          </>
        )}
      </p>
    </section>
  );
}

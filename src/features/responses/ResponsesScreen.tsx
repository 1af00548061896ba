"use client";

import { useState } from "react";
import { useStudy } from "@/features/study/study-context";
import { useStrips } from "@/features/study/use-computed";
import type { AnswerStrip as AnswerStripCounts } from "@/study/analyse/answer-strip";
import { variableTitle } from "@/study/model/variable";
import { counted, formatCount, formatNumber } from "@/study/report/format-number";
import { AnswerStrip } from "@/ui/charts/AnswerStrip";
import { Margin, Note } from "@/ui/parts/Margin";
import { WatchNote } from "@/ui/parts/notes";
import page from "@/ui/parts/page.module.css";
import { declareMissing } from "@/features/study/declare-missing";
import { AnswersGrid } from "./AnswersGrid";
import { Codebook } from "./Codebook";
import { KIND_WORDS } from "./CodebookEntry";
import css from "./responses.module.css";

/** Codebook and answers side by side; the margin speaks of the variable chosen. */
export function ResponsesScreen() {
  const { dataset } = useStudy();
  const [chosen, setChosen] = useState<string | null>(null);
  return (
    <div className={page.page}>
      <main className={page.sheet}>
        <h1 className={page.sentence}>
          {formatCount(dataset.rows)} respondents, {counted(dataset.columns.length, "variable")}, from {dataset.fileName}.
        </h1>
        <div className={css.halves}>
          <section aria-label="Codebook and kinds">
            <h2>Codebook</h2>
            <Codebook chosen={chosen} onChoose={setChosen} />
          </section>
          <section aria-label="Answers as imported">
            <h2>Answers as imported</h2>
            <AnswersGrid chosen={chosen} />
          </section>
        </div>
      </main>
      <VariableMargin name={chosen} />
    </div>
  );
}

function VariableMargin({ name }: { name: string | null }) {
  const { study } = useStudy();
  const variable = study.codebook.find((v) => v.name === name);
  if (!variable) {
    return (
      <Margin>
        <Note heading="The codebook">
          <p>
            Choose a variable to describe it: its wording, its kind, the lowest and highest answer that was possible, and the codes that
            mean a missing answer.
          </p>
          <p>The answers stay as they were imported. What you declare here is applied on top.</p>
        </Note>
      </Margin>
    );
  }
  return <NumbersOf key={variable.name} name={variable.name} />;
}

function NumbersOf({ name }: { name: string }) {
  const { study, store } = useStudy();
  const variable = study.codebook.find((v) => v.name === name)!;
  const { result } = useStrips([name]);
  const strip = result?.[0];
  const countable = variable.kind === "item" || variable.kind === "number";
  const watches = ({ outside, wordsInNumbers }: AnswerStripCounts) => [
    ...(variable.range ? outside : []).slice(0, 5).map(({ value, count }) => ({
      id: String(value),
      words: `${formatNumber(value, 0)} stands ${count === 1 ? "once" : `${count} times`} outside the declared answers.`,
      fix: {
        label: `Count ${formatNumber(value, 0)} as missing`,
        act: () => void store.edit(...declareMissing([name], study.codebook, String(value))),
      },
    })),
    ...(wordsInNumbers === 0
      ? []
      : [
          {
            id: "words",
            words: `${counted(wordsInNumbers, "cell holds", "cells hold")} words where numbers are wanted; ${wordsInNumbers === 1 ? "it counts" : "they count"} as missing.`,
          },
        ]),
  ];
  const scales = study.scales.filter((s) => s.items.some((i) => i.variable === name)).map((s) => s.name);
  return (
    <Margin>
      <Note heading={name}>
        <p>{variableTitle(variable)}</p>
        <p className="quiet">{KIND_WORDS[variable.kind]}</p>
      </Note>
      {strip && countable && (
        <Note heading="What it holds">
          {strip.answers.length > 0 && <AnswerStrip strip={strip} width={236} />}
          <p>
            {strip.answers.length > 0 && `${strip.answers.map((a) => `${formatNumber(a.value, 0)} (${a.count})`).join(", ")}. `}
            {counted(strip.missing, "respondent")} without an answer.
          </p>
        </Note>
      )}
      {strip && countable && <WatchNote watches={watches(strip)} />}
      <Note heading="Used by">
        <p>{scales.length === 0 ? "No scale." : scales.join(", ")}</p>
      </Note>
    </Margin>
  );
}

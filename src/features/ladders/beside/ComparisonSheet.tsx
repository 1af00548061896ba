"use client";

import { ComparisonMargin } from "./ComparisonMargin";
import { ComputationState } from "@/features/study/ComputationState";
import { categoryChoices } from "@/features/study/name-choices";
import { useStudy } from "@/features/study/study-context";
import { useAsked } from "@/features/study/use-computed";
import { useSeen } from "@/features/study/use-seen";
import type { Comparison } from "@/study/model/comparison";
import { formatCount, listed } from "@/study/report/format-number";
import { refusalWords } from "@/study/report/refusals";
import { NameWord } from "@/ui/parts/NameWord";
import page from "@/ui/parts/page.module.css";
import type { Choice } from "@/ui/parts/choice";
import { SettingWord } from "@/ui/parts/SettingWord";
import { exploratoryMark } from "@/study/model/exploratory";
import { ExploratoryNote } from "../exploratory";
import { BesideCoefficients } from "./BesideCoefficients";
import { FitTable } from "./FitTable";
import { PairDifferences } from "./PairDifferences";

const SAMPLES: Choice[] = [
  { value: "own", label: "each on its own respondents" },
  { value: "common", label: "all on the respondents they have in common" },
];

/** Two to four ladders side by side: how well each does, and its coefficients. Refused while they stand on different respondents. */
export function ComparisonSheet({ comparison }: { comparison: Comparison }) {
  const { study, store, title } = useStudy();
  const computed = useAsked("comparison", comparison);
  const before = useSeen("comparison", comparison, computed);
  const { result, outdated } = computed;
  const change = (to: Comparison) => void store.edit({ subject: "comparison", id: comparison.id, to });
  const refused = result?.status === "refused" ? result : null;
  const bySample = refused?.refusal.code === "unlike-models" && refused.refusal.details["differ"] === "sample";
  const marks = comparison.models.flatMap(({ name, ladder }) => {
    const of = study.ladders.find((l) => l.id === ladder);
    const mark = of && result?.status === "compared" ? exploratoryMark(of, result.sample.rowsUsed) : null;
    return mark ? [{ name, mark }] : [];
  });
  const words = refused && refusalWords(refused.refusal, title);
  return (
    <>
      <main className={page.sheet} aria-busy={outdated}>
        <h1 className={page.sentence}>
          <NameWord label="Name of this side-by-side" name={comparison.name} onChange={(name) => change({ ...comparison, name })} />:{" "}
          {comparison.models.map((model, i) => {
            const ladder = study.ladders.find((l) => l.id === model.ladder);
            const last = ladder?.steps.length ?? 1;
            const step = model.step ?? last;
            return (
              <span key={model.name}>
                {i > 0 && (i === comparison.models.length - 1 ? " and " : ", ")}
                {model.name} up to{" "}
                <SettingWord
                  label={`Step of ${model.name}`}
                  value={String(step)}
                  text={`step ${step}`}
                  choices={Array.from({ length: last }, (_, k) => ({
                    value: String(k + 1),
                    label: `step ${k + 1}${ladder?.steps[k]?.name ? `, ${ladder.steps[k]!.name}` : ""}`,
                  }))}
                  onChange={(value) =>
                    change({
                      ...comparison,
                      models: comparison.models.map((m) =>
                        m === model ? { ...m, step: Number(value) === last ? null : Number(value) } : m,
                      ),
                    })
                  }
                />
              </span>
            );
          })}
          ,{" "}
          <SettingWord
            label="Respondents of the ladders"
            value={comparison.sample}
            text={SAMPLES.find((s) => s.value === comparison.sample)!.label}
            choices={SAMPLES}
            onChange={(sample) => change({ ...comparison, sample: sample as Comparison["sample"] })}
          />
          {result?.status === "compared" && ` (${formatCount(result.sample.used)} of ${formatCount(result.sample.rows)})`}, held out by{" "}
          <SettingWord
            label="Folds"
            value={comparison.folds ?? "-"}
            text={comparison.folds === null ? "ten drawn folds" : `the folds of ${title(comparison.folds)}`}
            choices={[{ value: "-", label: "ten folds, drawn with the seed" }, ...categoryChoices(study)]}
            onChange={(value) => change({ ...comparison, folds: value === "-" ? null : value })}
          />
          .
        </h1>
        <ComputationState of={computed} refusal={null} />
        {refused && words && !outdated && (
          <div className={page.refusal} role="status" data-testid="refusal">
            <p>
              {words.what} {words.remedy}
            </p>
            {bySample && (
              <p>
                Respondents: {listed(refused.samples.map((s) => `${s.name} ${s.used === null ? "none" : formatCount(s.used)}`))}.{" "}
                <button type="button" className="link" onClick={() => change({ ...comparison, sample: "common" })}>
                  Fit all on the common sample
                </button>
              </p>
            )}
          </div>
        )}
        {result?.status === "compared" && (
          <div className={outdated ? page.outdated : undefined} data-testid="side-by-side" data-outdated={outdated}>
            {marks.map(({ name, mark }) => (
              <ExploratoryNote key={name} mark={{ ...mark, said: `${name} was ${mark.said}` }} />
            ))}
            <FitTable
              models={result.models}
              exploratory={new Set(marks.flatMap(({ name, mark }) => (mark.kind === "exploratory" ? [name] : [])))}
            />
            <BesideCoefficients models={result.models} title={title} />
            <PairDifferences pairs={result.pairs} />
          </div>
        )}
      </main>
      <ComparisonMargin result={result} comparison={comparison} before={before} />
    </>
  );
}

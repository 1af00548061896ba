"use client";

import { useState } from "react";
import { useStudy } from "@/features/study/study-context";
import type { FactorSolution } from "@/core/factors/factor-solution";
import type { StructureAnalysis } from "@/study/analyse/analyse-structure";
import { itemPlaces, scaleAgreement } from "@/study/analyse/factor-places";
import type { Structure } from "@/study/model/structure";
import { listed } from "@/study/report/format-number";
import { agreementSentences } from "@/study/report/structure-words";
import page from "@/ui/parts/page.module.css";
import { SettingWord } from "@/ui/parts/SettingWord";
import { turnItems } from "./scale-edits";
import { type FactorScoring, scalesFromFactors } from "./scales-from-factors";
import css from "./scales.module.css";

const SCORINGS = [
  { value: "mean", label: "the mean of their items" },
  { value: "weighted", label: "weights, the sizes of the loadings" },
  { value: "regression", label: "regression factor scores" },
  { value: "bartlett", label: "Bartlett factor scores" },
];

/** The loadings held against the scales as keyed, and scales made from the factors. */
export function AgainstScales(props: {
  structure: Structure;
  analysis: StructureAnalysis;
  solution: FactorSolution;
  onOpenScale: (id: string) => void;
}) {
  const { study, store, title } = useStudy();
  const [scoring, setScoring] = useState<FactorScoring>("mean");
  const { structure, analysis, solution } = props;
  const places = itemPlaces(analysis.items, solution.rotated.pattern, analysis.factors, structure.dimBelow);
  const agreement = scaleAgreement(study.scales, places);
  const sentences = agreementSentences(agreement, title);
  const turn = (id: string, items: readonly string[]) => {
    const scale = study.scales.find((s) => s.id === id)!;
    store.edit({ subject: "scale", id, to: turnItems(scale, ...items) });
  };
  const edits = scalesFromFactors(study, structure, analysis, scoring);
  const make = () => {
    const first = edits[0];
    if (first && store.edit(...edits) && "id" in first) props.onOpenScale(first.id);
  };
  return (
    <>
      <h2 className={page.heading}>Against the scales as keyed</h2>
      {sentences.length === 0 ? (
        <p className="quiet">No scale has two or more of these items.</p>
      ) : (
        <ul className={css.agreement} data-testid="agreement">
          {agreement.map(({ scale, against }, i) => (
            <li key={scale}>
              {sentences[i]}{" "}
              {structure.keying === "scales" && against.length > 0 && (
                <button type="button" className="link" onClick={() => turn(scale, against)}>
                  Turn {listed(against.map((name) => title(name)))} round
                </button>
              )}
            </li>
          ))}
        </ul>
      )}
      <p className={css.makeScales}>
        <button type="button" className="link" disabled={edits.length === 0} onClick={make}>
          Make {edits.length === 1 ? "a scale" : `${edits.length} scales`} from {analysis.factors === 1 ? "this factor" : "these factors"}
        </button>
        , scored by{" "}
        <SettingWord
          label="How scales from factors are scored"
          value={scoring}
          text={SCORINGS.find((s) => s.value === scoring)!.label}
          choices={SCORINGS}
          onChange={(value) => setScoring(value as FactorScoring)}
        />
        .
      </p>
    </>
  );
}

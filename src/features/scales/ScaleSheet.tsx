"use client";

import { QuoteThis } from "@/features/study/QuoteThis";
import { searchWords } from "@/study/model/variable";
import { ComputationState } from "@/features/study/ComputationState";
import { newId } from "@/study/model/new-id";
import { useStudy } from "@/features/study/study-context";
import { useAsked } from "@/features/study/use-computed";
import { useSeen } from "@/features/study/use-seen";
import type { ScaleAnalysis } from "@/study/analyse/analyse-scale";
import type { Scale } from "@/study/model/scale";
import { formatCount, formatInterval, formatShare } from "@/study/report/format-number";
import { levelTitle } from "@/study/report/level-title";
import { CorrelationTable } from "@/ui/parts/CorrelationTable";
import page from "@/ui/parts/page.module.css";
import { SettingWord } from "@/ui/parts/SettingWord";
import { withWeights } from "./scale-edits";
import { ReliabilityIntervals } from "./ReliabilityIntervals";
import { ScaleFigures } from "./ScaleFigures";
import { ScaleItems } from "./ScaleItems";
import { ScaleMargin } from "./ScaleMargin";
import { ScaleSentence } from "./ScaleSentence";
import css from "./scales.module.css";

/** One score sheet: what the scale is, how its items behave, what its scores look like. */
export function ScaleSheet({ scale, titles, onOpen }: { scale: Scale; titles: React.ReactNode; onOpen: (id: string) => void }) {
  const { study, store } = useStudy();
  const computed = useAsked("scale", scale);
  const { result, outdated, fault } = computed;
  const before = useSeen("scale", scale, computed);
  const change = (to: Scale) => void store.edit({ subject: "scale", id: scale.id, to });
  const analysis = result?.status === "scored" ? result.analysis : null;
  const strips = result ? (result.status === "scored" ? result.analysis.strips : result.strips) : [];
  const copy = () => {
    const name = `${scale.name}, copy`.slice(0, 200);
    const id = newId(name, [...study.scales.map((s) => s.id), ...study.codebook.map((v) => v.name)]);
    if (store.edit({ subject: "scale", id, to: { ...scale, id, name } })) onOpen(id);
  };
  const factor = analysis?.reliability.factor;
  return (
    <>
      <main className={page.sheet} aria-busy={outdated || (!result && !fault)}>
        {titles}
        <ScaleSentence scale={scale} onChange={change} />
        <ComputationState of={computed} refusal={result?.status === "refused" ? result.refusal : null} />
        <div className={outdated ? page.outdated : undefined} data-testid="scale-numbers" data-outdated={outdated}>
          {analysis && <ScaleFigures analysis={analysis} name={scale.name} />}
          {analysis && (
            <QuoteThis
              of={{ number: `scale|${scale.id}|alpha` }}
              part={{ scales: new Map([[scale.id, { status: "scored", analysis }]]) }}
              words="Quote α"
            />
          )}
          {analysis?.reliability.alpha && <ReliabilityIntervals key={scale.id} scale={scale} omega={factor !== null} />}
          <ScaleItems scale={scale} analysis={analysis} strips={strips} onChange={change} />
          {analysis && <ByGroup scale={scale} analysis={analysis} onChange={change} />}
          {analysis && <AmongItems scale={scale} analysis={analysis} />}
        </div>
        <p className={css.foot}>
          {scale.rule === "weighted" && factor && (
            <button
              type="button"
              className="link"
              onClick={() => {
                const weights = new Map(scale.items.map((item, i) => [item.variable, Number(factor.loadings[i]!.toPrecision(12))]));
                change(withWeights(scale, weights, "z", `one factor (maximum likelihood, ${analysis.reliability.alpha!.n} respondents)`));
              }}
            >
              Weigh by the loadings on one factor
            </button>
          )}
          <button type="button" className="link" onClick={copy}>
            Copy this scale
          </button>
          <button type="button" className="link" onClick={() => store.edit({ subject: "scale", id: scale.id, to: null })}>
            Dissolve this scale
          </button>
        </p>
      </main>
      <ScaleMargin scale={scale} analysis={analysis} before={before} strips={strips} onChange={change} />
    </>
  );
}

/** Correlations among the items, keyed, and each item's loading on the one factor behind ω. */
function AmongItems({ scale, analysis }: { scale: Scale; analysis: ScaleAnalysis }) {
  const { title, study } = useStudy();
  const { alpha, factor } = analysis.reliability;
  if (!alpha || scale.items.length !== alpha.items) return null;
  const wording = (i: number) => study.codebook.find((v) => v.name === scale.items[i]!.variable)?.label ?? "";
  return (
    <details className={css.more}>
      <summary>Among the items: correlations{factor ? " and loadings on one factor" : ""}</summary>
      <CorrelationTable
        caption={`Correlations among the items of ${scale.name}, reverse-keyed ones turned round`}
        names={scale.items.map((item) => title(item.variable))}
        wording={wording}
        r={(i, j) => alpha.interItem[i]![j]!}
        format={formatShare}
      />
      <p className={css.tableNote}>
        <i>n</i> = {formatCount(alpha.n)} respondents complete on the items, reverse-keyed ones turned round.
        {factor && (
          <>
            {" "}
            Standardized loadings on one factor:{" "}
            {scale.items.map((item, i) => `${title(item.variable)} ${formatShare(factor.loadings[i]!)}`).join(", ")}.
          </>
        )}
      </p>
    </details>
  );
}

/** Whether reliability is told by group as well, and what it is there. */
function ByGroup({ scale, analysis, onChange }: { scale: Scale; analysis: ScaleAnalysis; onChange: (scale: Scale) => void }) {
  const { title, study } = useStudy();
  const categories = study.codebook.filter((v) => v.kind === "category");
  if (categories.length === 0 || scale.items.length < 2) return null;
  return (
    <>
      <p className={css.byGroup}>
        Reliability told{" "}
        <SettingWord
          label="Reliability by group"
          value={scale.byGroup ?? "together"}
          text={scale.byGroup === null ? "for all together" : `by ${title(scale.byGroup)}`}
          choices={[
            { value: "together", label: "for all together" },
            ...categories.map((v) => ({ value: v.name, label: `by ${title(v.name)}`, search: searchWords(v) })),
          ]}
          onChange={(name) => onChange({ ...scale, byGroup: name === "together" ? null : name })}
        />
      </p>
      {scale.byGroup !== null && analysis.groups && <GroupTable category={scale.byGroup} groups={analysis.groups} />}
    </>
  );
}

function GroupTable({ category, groups }: { category: string; groups: NonNullable<ScaleAnalysis["groups"]> }) {
  const { title } = useStudy();
  return (
    <table className={`${css.table} ${css.small}`} data-testid="by-group">
      <caption className="visually-hidden">Reliability by {title(category)}</caption>
      <thead>
        <tr>
          <th scope="col">{title(category)}</th>
          <th scope="col">
            Complete <i>n</i>
          </th>
          <th scope="col">α</th>
          <th scope="col">95 % interval</th>
          <th scope="col">Standardized α</th>
          <th scope="col">
            Mean <i>r</i>
          </th>
          <th scope="col">ω</th>
        </tr>
      </thead>
      <tbody>
        {groups.map(({ level: value, reliability: { alpha, factor } }) => (
          <tr key={value}>
            <th scope="row">{levelTitle(title, category, value)}</th>
            <td>{alpha ? formatCount(alpha.n) : "too few"}</td>
            <td>{formatShare(alpha?.alpha ?? null)}</td>
            <td>{formatInterval(alpha?.lower ?? null, alpha?.upper ?? null, formatShare)}</td>
            <td>{formatShare(alpha?.standardizedAlpha ?? null)}</td>
            <td>{formatShare(alpha?.meanInterItemR ?? null)}</td>
            <td>{formatShare(factor?.omega ?? null)}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

"use client";

import { scaleLinear } from "d3-scale";
import { ComputationState } from "@/features/study/ComputationState";
import { useStudy } from "@/features/study/study-context";
import { useScaleResult } from "@/features/study/use-computed";
import { useOutdated, useSeenScale } from "@/features/study/use-seen";
import type { ScaleAnalysis } from "@/study/analyse/analyse-scale";
import type { AnswerStrip as Strip } from "@/study/analyse/answer-strip";
import type { Scale } from "@/study/model/scale";
import { counted, formatCount, formatInterval, formatNumber, formatShare } from "@/study/report/format-number";
import { AnswerStrip } from "@/ui/charts/AnswerStrip";
import { ScoreHistogram } from "@/ui/charts/ScoreHistogram";
import { FieldWord } from "@/ui/parts/FieldWord";
import page from "@/ui/parts/page.module.css";
import { SettingWord } from "@/ui/parts/SettingWord";
import { commonRange, declareRange, readRange, turnItem } from "./scale-edits";
import { ScaleMargin } from "./ScaleMargin";
import css from "./scales.module.css";

const SHARES = [0.5, 0.6, 0.7, 0.75, 0.8, 0.9, 1];

/** One score sheet: what the scale is, how its items behave, what its scores look like. */
export function ScaleSheet({ scale, onOpen }: { scale: Scale; onOpen: (id: string) => void }) {
  const { store } = useStudy();
  const computed = useScaleResult(scale);
  const { result, outdated, fault } = computed;
  const before = useSeenScale(scale, computed);
  const change = (to: Scale) => void store.edit({ subject: "scale", id: scale.id, to });
  const analysis = result?.status === "scored" ? result.analysis : null;
  const strips = result ? (result.status === "scored" ? result.analysis.strips : result.strips) : [];
  return (
    <>
      <main className={page.sheet} aria-busy={outdated || (!result && !fault)}>
        <ScaleTitles open={scale} onOpen={onOpen} />
        <ScaleSentence scale={scale} onChange={change} />
        <ComputationState of={computed} refusal={result?.status === "refused" ? result.refusal : null} />
        <div className={outdated ? page.outdated : undefined} data-testid="scale-numbers" data-outdated={outdated}>
          {analysis && <Figures analysis={analysis} name={scale.name} />}
          <div className={css.scroll}>
            <Items scale={scale} analysis={analysis} strips={strips} onChange={change} />
          </div>
        </div>
        <p className={css.foot}>
          <button type="button" className="link" onClick={() => store.edit({ subject: "scale", id: scale.id, to: null })}>
            Dissolve this scale
          </button>
        </p>
      </main>
      <ScaleMargin scale={scale} analysis={analysis} before={before} strips={strips} onChange={change} />
    </>
  );
}

function ScaleTitles({ open, onOpen }: { open: Scale; onOpen: (id: string) => void }) {
  const outdated = useOutdated();
  const { study } = useStudy();
  return (
    <ul className={css.titles} aria-label="Scales">
      {study.scales.map((s) => (
        <li key={s.id}>
          <button type="button" aria-current={s.id === open.id ? "true" : undefined} onClick={() => onOpen(s.id)}>
            {s.name}
            <small>
              {counted(s.items.length, "item")}
              {outdated.has(s.id) && s.id !== open.id && <span className={page.stale}> · out of date</span>}
            </small>
          </button>
        </li>
      ))}
    </ul>
  );
}

function ScaleSentence({ scale, onChange }: { scale: Scale; onChange: (scale: Scale) => void }) {
  const { study, store } = useStudy();
  const range = commonRange(scale, study.codebook);
  const ranges = new Set(scale.items.map((item) => JSON.stringify(study.codebook.find((v) => v.name === item.variable)?.range ?? null)));
  const rangeWords = range
    ? `${formatNumber(range.low, 0)} to ${formatNumber(range.high, 0)}`
    : ranges.size > 1
      ? "unlike ranges"
      : "declare the range";
  return (
    <h1 className={page.sentence}>
      <FieldWord
        label="Name of the scale"
        main
        text={scale.name}
        rule="A name, please."
        width={280}
        read={(typed) => (typed.trim() === "" || typed.length > 200 ? null : typed.trim())}
        onChange={(name) => onChange({ ...scale, name })}
      />{" "}
      is the{" "}
      <SettingWord
        label="Rule"
        value={scale.rule}
        text={scale.rule}
        choices={[
          { value: "mean", label: "mean" },
          { value: "sum", label: "sum" },
        ]}
        onChange={(rule) => onChange({ ...scale, rule: rule as Scale["rule"] })}
      />{" "}
      of {scale.items.length === 1 ? "this item" : `these ${scale.items.length} items`}, asked from{" "}
      <FieldWord
        label="Possible answers"
        text={rangeWords}
        initial={range ? rangeWords : ""}
        unset={!range}
        width={120}
        read={readRange}
        rule="Write the lowest and the highest possible answer, as 1 to 5."
        onChange={(to) => store.edit(...declareRange(scale, study.codebook, to))}
      />
      , for everyone who answered at least{" "}
      <SettingWord
        label="Answered share"
        value={String(scale.answeredShare)}
        text={`${Math.round(scale.answeredShare * 100)} %`}
        choices={SHARES.map((share) => ({ value: String(share), label: `${Math.round(share * 100)} %` }))}
        onChange={(share) => onChange({ ...scale, answeredShare: Number(share) })}
      />{" "}
      of them
      {study.filters.some((f) => !f.everywhere) && (
        <>
          , looked at among{" "}
          <SettingWord
            label="Respondents"
            value={scale.respondents ?? "all"}
            text={study.filters.find((f) => f.id === scale.respondents)?.name ?? "all respondents"}
            choices={[
              { value: "all", label: "all respondents" },
              ...study.filters.filter((f) => !f.everywhere).map((f) => ({ value: f.id, label: f.name })),
            ]}
            onChange={(id) => onChange({ ...scale, respondents: id === "all" ? null : id })}
          />
        </>
      )}
      .
    </h1>
  );
}

function Figures({ analysis, name }: { analysis: ScaleAnalysis; name: string }) {
  const r = analysis.reliability;
  const { description: d, histogram } = analysis;
  return (
    <div className={css.figures}>
      {r && (
        <div>
          <div className={css.figure}>
            α <span data-testid="alpha">{formatShare(r.alpha)}</span>
          </div>
          <div className={css.figureNote}>
            {formatInterval(r.lower, r.upper, formatShare)} · mean <i>r</i> {formatShare(r.meanInterItemR)} · <i>n</i> {formatCount(r.n)}
          </div>
        </div>
      )}
      <div>
        <div className={css.figure}>
          <span data-testid="scored">{formatCount(d.n)}</span>
        </div>
        <div className={css.figureNote}>
          of {formatCount(analysis.rows)} scored, <i>M</i> {formatNumber(d.mean)}, <i>SD</i> {formatNumber(d.sd)}, skewness{" "}
          {formatShare(d.skewness)}
        </div>
      </div>
      {histogram && (
        <ScoreHistogram
          histogram={histogram}
          width={230}
          height={84}
          title={name}
          n={d.n}
          format={(v) => formatNumber(v, Number.isInteger(v) ? 0 : 1)}
        />
      )}
    </div>
  );
}

function Items(props: { scale: Scale; analysis: ScaleAnalysis | null; strips: readonly Strip[]; onChange: (scale: Scale) => void }) {
  const { study } = useStudy();
  const { scale, onChange } = props;
  return (
    <table className={css.table}>
      <caption className="visually-hidden">Items of {scale.name}</caption>
      <thead>
        <tr>
          <th scope="col" colSpan={2}>
            Item
          </th>
          <th scope="col">Keyed</th>
          <th scope="col">Answers</th>
          <th scope="col">With the rest</th>
          <th scope="col">α without</th>
          <td />
        </tr>
      </thead>
      <tbody>
        {scale.items.map((item, i) => {
          const strip = props.strips.find((s) => s.variable === item.variable);
          const stats = props.analysis?.strips[i]?.variable === item.variable ? props.analysis.reliability?.perItem[i] : undefined;
          return (
            <tr key={item.variable} data-testid={`item ${item.variable}`}>
              <th scope="row">{item.variable}</th>
              <td className={css.wording}>{study.codebook.find((v) => v.name === item.variable)?.label}</td>
              <td>
                <button
                  type="button"
                  className={css.key}
                  aria-pressed={item.reversed}
                  aria-label={`${item.variable} turned round`}
                  onClick={() => onChange(turnItem(scale, item.variable))}
                >
                  {item.reversed ? "turned round" : "as asked"}
                </button>
              </td>
              <td>{strip && <AnswerStrip strip={strip} width={130} />}</td>
              <td>{stats && <WithTheRest r={stats.withTheRest} />}</td>
              <td>{stats && formatShare(stats.alphaWithout)}</td>
              <td>
                {scale.items.length > 1 && (
                  <button
                    type="button"
                    className={css.out}
                    aria-label={`Take ${item.variable} out of the scale`}
                    onClick={() => onChange({ ...scale, items: scale.items.filter((other) => other !== item) })}
                  >
                    ×
                  </button>
                )}
              </td>
            </tr>
          );
        })}
      </tbody>
    </table>
  );
}

const along = scaleLinear().domain([-0.75, 1]).range([0, 74]).clamp(true);

/** The item's correlation with the others as a number and a bar; in rust below .30, where the dotted line stands. */
function WithTheRest({ r }: { r: number | null }) {
  return (
    <span className={css.rest}>
      <b>{formatShare(r)}</b>
      <svg width={76} height={14} aria-hidden="true">
        {r !== null && (
          <rect
            x={along(Math.min(0, r))}
            width={Math.max(1, along(Math.abs(r)) - along(0))}
            y={3}
            height={8}
            fill={r < 0.3 ? "var(--rust)" : "var(--plum)"}
          />
        )}
        <line x1={along(0)} x2={along(0)} y1={1} y2={13} stroke="#CDBFA8" />
        <line x1={along(0.3)} x2={along(0.3)} y1={0} y2={14} stroke="var(--ink)" strokeDasharray="1.5 1.5" />
      </svg>
    </span>
  );
}

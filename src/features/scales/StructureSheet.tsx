"use client";

import { useState } from "react";
import { ComputationState } from "@/features/study/ComputationState";
import { useStudy } from "@/features/study/study-context";
import { useStructureResult } from "@/features/study/use-computed";
import { useSeenStructure } from "@/features/study/use-seen";
import type { FactorSolution } from "@/core/factors/factor-solution";
import type { StructureAnalysis } from "@/study/analyse/analyse-structure";
import { itemPlaces, scaleAgreement } from "@/study/analyse/factor-places";
import { Seed } from "@/study/model/ladder";
import type { Structure } from "@/study/model/structure";
import { formatCount, formatNumber, formatP, formatShare, listed } from "@/study/report/format-number";
import { refusalWords } from "@/study/report/refusals";
import { agreementSentences, pairsAbove } from "@/study/report/structure-words";
import { ChartFrame } from "@/ui/charts/ChartFrame";
import { ScreeChart } from "@/ui/charts/ScreeChart";
import { CorrelationTable } from "@/ui/parts/CorrelationTable";
import { FieldWord } from "@/ui/parts/FieldWord";
import page from "@/ui/parts/page.module.css";
import { SettingWord } from "@/ui/parts/SettingWord";
import { readNumber, turnItems } from "./scale-edits";
import { LoadingsTable } from "./LoadingsTable";
import { type FactorScoring, scalesFromFactors } from "./scales-from-factors";
import { StructureMargin } from "./StructureMargin";
import { StructureSentence } from "./StructureSentence";
import css from "./scales.module.css";

const PARTS = [
  ["fit", "Fit for factoring"],
  ["how-many", "How many"],
  ["loadings", "Loadings"],
  ["explained", "Explained"],
  ["scales", "Against the scales"],
  ["correlations", "Correlations"],
] as const;

/** What lies behind a set of items, from their correlations to scales made of the factors. */
export function StructureSheet({
  structure,
  titles,
  onOpenScale,
}: {
  structure: Structure;
  titles: React.ReactNode;
  onOpenScale: (id: string) => void;
}) {
  const { store, title } = useStudy();
  const computed = useStructureResult(structure);
  const { result, outdated, fault } = computed;
  const before = useSeenStructure(structure, computed);
  const change = (to: Structure) => void store.edit({ subject: "structure", id: structure.id, to });
  const analysis = result?.status === "explored" ? result.analysis : null;
  const refused = analysis?.refusal ? refusalWords(analysis.refusal, title) : null;
  return (
    <>
      <main className={page.sheet} aria-busy={outdated || (!result && !fault)}>
        {titles}
        <StructureSentence structure={structure} analysis={analysis} onChange={change} />
        <ComputationState of={computed} refusal={result?.status === "refused" ? result.refusal : null} />
        {analysis && (
          <div className={outdated ? page.outdated : undefined} data-testid="structure-numbers" data-outdated={outdated}>
            <nav className={css.jumps} aria-label="Parts of this sheet">
              {PARTS.map(([id, name]) => (
                <a key={id} href={`#${id}`}>
                  {name}
                </a>
              ))}
            </nav>
            <Fit analysis={analysis} />
            <section id="how-many" className={css.part}>
              <Scree analysis={analysis} />
              <RandomData structure={structure} onChange={change} />
            </section>
            <section id="loadings" className={css.part}>
              {refused && (
                <p className={page.refusal} role="status" data-testid="no-solution">
                  {refused.what} {refused.remedy}
                </p>
              )}
              {analysis.solution && (
                <LoadingsTable structure={structure} analysis={analysis} solution={analysis.solution} onChange={change} />
              )}
            </section>
            <section id="explained" className={css.part}>
              {analysis.solution && <Explained analysis={analysis} solution={analysis.solution} />}
            </section>
            <section id="scales" className={css.part}>
              {analysis.solution && (
                <AgainstScales structure={structure} analysis={analysis} solution={analysis.solution} onOpenScale={onOpenScale} />
              )}
            </section>
            <section id="correlations" className={css.part}>
              <Correlations structure={structure} analysis={analysis} />
            </section>
          </div>
        )}
        <p className={css.foot}>
          <button type="button" className="link" onClick={() => store.edit({ subject: "structure", id: structure.id, to: null })}>
            Take this structure away
          </button>
        </p>
      </main>
      <StructureMargin structure={structure} analysis={analysis} before={before} onChange={change} />
    </>
  );
}

/** Who is in, and whether these items may be factored. */
function Fit({ analysis }: { analysis: StructureAnalysis }) {
  const { title } = useStudy();
  const { adequacy, sphericity } = analysis;
  const k = analysis.items.length;
  const low = adequacy ? analysis.items.map((item, i) => ({ item, msa: adequacy.perItem[i]! })).sort((a, b) => a.msa - b.msa) : [];
  return (
    <section id="fit" className={`${css.part} ${css.figures}`}>
      <div>
        <div className={css.figure}>
          <span data-testid="kmo">{formatShare(adequacy?.overall ?? null)}</span>
        </div>
        <div className={css.figureNote}>
          sampling adequacy
          <br />
          {low.length > 0 && (
            <details className={css.inline}>
              <summary>
                lowest {title(low[0]!.item)} {formatShare(low[0]!.msa)}, each item
              </summary>
              <table className={css.tiny}>
                <caption className="visually-hidden">Sampling adequacy of each item</caption>
                <tbody>
                  {low.map(({ item, msa }) => (
                    <tr key={item}>
                      <th scope="row">{title(item)}</th>
                      <td>{formatShare(msa)}</td>
                    </tr>
                  ))}
                </tbody>
              </table>
            </details>
          )}
        </div>
      </div>
      <div>
        <div className={css.figure} data-testid="sphericity">
          {sphericity ? formatNumber(sphericity.chi2) : "–"}
        </div>
        <div className={css.figureNote}>
          Bartlett&rsquo;s χ²({(k * (k - 1)) / 2})
          <br />
          <i>p</i> {sphericity ? (sphericity.p < 0.001 ? "< .001" : `= ${formatP(sphericity.p)}`) : "not available"}
        </div>
      </div>
      <div>
        <div className={css.figure} data-testid="above">
          {formatCount(pairsAbove(analysis, 0.3))} <small>of {formatCount((k * (k - 1)) / 2)}</small>
        </div>
        <div className={css.figureNote}>
          correlations above .3
          <br />
          in size
        </div>
      </div>
      <div>
        <div className={css.figure}>
          <span data-testid="complete">{formatCount(analysis.n)}</span> <small>of {formatCount(analysis.rows)}</small>
        </div>
        <div className={css.figureNote}>
          respondents answered all {k}
          <br />
          {mostMissing(analysis, title)}
        </div>
      </div>
    </section>
  );
}

function mostMissing({ missing }: StructureAnalysis, title: (name: string) => string): string {
  const [most] = [...missing].sort((a, b) => b.count - a.count);
  return !most || most.count === 0 ? "nobody left anything open" : `most often open: ${title(most.item)}, ${formatCount(most.count)}`;
}

function Scree({ analysis }: { analysis: StructureAnalysis }) {
  const [eigenvalues, random] = [Array.from(analysis.eigenvalues), Array.from(analysis.parallel.percentile)];
  const { retained, sets } = analysis.parallel;
  const k = analysis.items.length;
  const shares = eigenvalues.map((_, i) => eigenvalues.slice(0, i + 1).reduce((sum, value) => sum + value / k, 0));
  return (
    <ChartFrame
      title="Eigenvalues beside those of random data"
      note={`n = ${formatCount(analysis.n)}, ${k} items; random data: 95th percentile of ${formatCount(sets)} sets`}
      table={
        <table className={`${css.table} ${css.small}`} data-testid="eigenvalues">
          <caption className="visually-hidden">Eigenvalues</caption>
          <thead>
            <tr>
              <th scope="col">Factor</th>
              <th scope="col">Eigenvalue</th>
              <th scope="col">Random data</th>
              <th scope="col">% of variance</th>
              <th scope="col">together</th>
            </tr>
          </thead>
          <tbody>
            {eigenvalues.map((value, i) => (
              <tr key={i}>
                <th scope="row">{i + 1}</th>
                <td className={i < retained ? css.main : undefined}>{formatNumber(value)}</td>
                <td>{formatNumber(random[i]!)}</td>
                <td>{formatNumber((100 * value) / k, 1)}</td>
                <td>{formatNumber(100 * shares[i]!, 1)}</td>
              </tr>
            ))}
          </tbody>
        </table>
      }
    >
      <ScreeChart
        eigenvalues={eigenvalues}
        random={random}
        retained={retained}
        title="Eigenvalues beside those of random data"
        format={(v) => formatNumber(v, Number.isInteger(v) ? 0 : 2)}
      />
    </ChartFrame>
  );
}

const SETS = [100, 500, 1000, 2000, 5000];

/** How the random data are made. */
function RandomData({ structure, onChange }: { structure: Structure; onChange: (structure: Structure) => void }) {
  return (
    <p className={css.tableNote}>
      Random data:{" "}
      <SettingWord
        label="Random data sets"
        value={String(structure.sets)}
        text={formatCount(structure.sets)}
        choices={SETS.map((sets) => ({ value: String(sets), label: formatCount(sets), search: String(sets) }))}
        onChange={(sets) => onChange({ ...structure, sets: Number(sets) })}
      />{" "}
      sets from seed{" "}
      <FieldWord
        label="Seed"
        text={String(structure.seed)}
        width={110}
        rule="A whole number from 0 on."
        read={(typed) => {
          const seed = Seed.safeParse(readNumber(typed));
          return seed.success ? seed.data : null;
        }}
        onChange={(seed) => onChange({ ...structure, seed })}
      />
      .
    </p>
  );
}

/** Variance explained before, by the extraction and after turning; how the factors correlate. */
function Explained({ analysis, solution }: { analysis: StructureAnalysis; solution: FactorSolution }) {
  const { factors: m, rotated, unrotated } = solution;
  const k = analysis.items.length;
  const turned = m > 1 && solution.rotation !== "none";
  const { correlations } = rotated;
  const cells = (variance: ArrayLike<number>) => (
    <>
      {Array.from({ length: m }, (_, f) => (
        <td key={f}>
          {formatNumber(variance[f]!)} <small className="quiet">{formatNumber((100 * variance[f]!) / k, 1)} %</small>
        </td>
      ))}
    </>
  );
  const total = (variance: ArrayLike<number>) => Array.from({ length: m }, (_, f) => variance[f]!).reduce((sum, v) => sum + v, 0);
  const totalCell = (variance: ArrayLike<number>) => (
    <td>
      {formatNumber(total(variance))} <small className="quiet">{formatNumber((100 * total(variance)) / k, 1)} %</small>
    </td>
  );
  return (
    <>
      <h2 className={page.heading}>Variance explained</h2>
      <div className={css.scroll}>
        <table className={`${css.table} ${css.small}`} data-testid="explained">
          <caption className="visually-hidden">Variance explained at each stage</caption>
          <thead>
            <tr>
              <td />
              {Array.from({ length: m }, (_, f) => (
                <th key={f} scope="col">
                  {f + 1}
                </th>
              ))}
              <th scope="col">together</th>
            </tr>
          </thead>
          <tbody>
            <tr>
              <th scope="row">Eigenvalue</th>
              {cells(analysis.eigenvalues)}
              {totalCell(analysis.eigenvalues)}
            </tr>
            <tr>
              <th scope="row">Extracted</th>
              {cells(unrotated.variance)}
              {totalCell(unrotated.variance)}
            </tr>
            {turned && (
              <tr>
                <th scope="row">Turned</th>
                {cells(rotated.variance)}
                {totalCell(rotated.variance)}
              </tr>
            )}
          </tbody>
        </table>
      </div>
      {turned && (
        <p className={css.tableNote}>Turned factors are other factors than the extracted ones: compare the totals, not the columns.</p>
      )}
      {correlations && m > 1 && (
        <>
          <h2 className={page.heading}>How the factors correlate</h2>
          <CorrelationTable
            caption="Correlations among the factors"
            names={Array.from({ length: m }, (_, f) => `Factor ${f + 1}`)}
            wording={(name) => name}
            r={(a, b) => correlations[a * m + b]!}
            format={formatShare}
          />
        </>
      )}
    </>
  );
}

const SCORINGS = [
  { value: "mean", label: "the mean of their items" },
  { value: "weighted", label: "weights, the sizes of the loadings" },
  { value: "regression", label: "regression factor scores" },
  { value: "bartlett", label: "Bartlett factor scores" },
];

function AgainstScales(props: {
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
                  Turn {listed(against.map(title))} round
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

function Correlations({ structure, analysis }: { structure: Structure; analysis: StructureAnalysis }) {
  const { study, title } = useStudy();
  const { items, correlations } = analysis;
  const k = items.length;
  const [open, setOpen] = useState(k <= 30);
  return (
    <details className={css.more} open={open} onToggle={(event) => setOpen(event.currentTarget.open)}>
      <summary>Correlations among the items</summary>
      {open && (
        <CorrelationTable
          caption={`Correlations among the items of ${structure.name}`}
          names={items.map(title)}
          wording={(name) => study.codebook.find((v) => title(v.name) === name)?.label ?? name}
          r={(i, j) => correlations[i * k + j]!}
          format={formatShare}
        />
      )}
      <p className={css.tableNote}>
        <i>n</i> = {formatCount(analysis.n)} respondents complete on all items
        {structure.keying === "scales" && analysis.reversed.length > 0 && `; turned round: ${analysis.reversed.map(title).join(", ")}`}.
      </p>
    </details>
  );
}

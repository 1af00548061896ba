"use client";

import { ComputationState } from "@/features/study/ComputationState";
import { useStudy } from "@/features/study/study-context";
import { useAsked } from "@/features/study/use-computed";
import type { MeansResult } from "@/study/analyse/analyse-means";
import { activeTerms, type Ladder } from "@/study/model/ladder";
import type { Means } from "@/study/model/means";
import { decimalsFor, formatCount, formatInterval, formatNumber, formatP, formatPercent } from "@/study/report/format-number";
import { cellName, whatTheMeansSay } from "@/study/report/ladder/means-words";
import { moderatorPlaceName, moderatorPlaceWords } from "@/study/report/ladder/probe-words";
import { plain } from "@/study/report/words";
import { ChartFrame } from "@/ui/charts/ChartFrame";
import { MeansChart, type MeansRow } from "@/ui/charts/MeansChart";
import page from "@/ui/parts/page.module.css";
import { Said } from "@/ui/parts/Said";
import { SettingWord } from "@/ui/parts/SettingWord";
import ladders from "../ladders.module.css";
import { useFold } from "./use-fold";
import css from "./probes.module.css";

type Told = Extract<MeansResult, { status: "told" }>;

/** Predicted outcomes of a step over the levels of a variable: sentence, picture, what they say, and what each is held against. */
export function MeansSheet({ means, ladder }: { means: Means; ladder: Ladder }) {
  const { store, title } = useStudy();
  const computed = useAsked("means", means);
  const { result, outdated } = computed;
  const { folded, fold, section } = useFold(means.id);
  const told = result?.status === "told" ? result : null;
  const said = told ? whatTheMeansSay(means, told.reading, told, title) : [];
  const name = `means of ${title(means.variable)}${means.by === null ? "" : ` by ${title(means.by)}`}`;
  return (
    <article ref={section} aria-label={`Probe: ${name}`} className={css.probe} aria-busy={outdated}>
      <p className={css.of}>
        <span>Probe of step {means.step ?? ladder.steps.length} · predicted means</span>
        <span className={css.ways}>
          {fold}
          {" · "}
          <button type="button" className="link" onClick={() => store.edit({ subject: "means", id: means.id, to: null })}>
            Remove
          </button>
        </span>
      </p>
      <MeansSentence means={means} ladder={ladder} told={told} />
      <ComputationState of={computed} refusal={result?.status === "refused" ? result.refusal : null} />
      {folded && said.length > 0 && <p className={css.line}>{plain(said[0]!)}</p>}
      {!folded && told && (
        <div className={outdated ? page.outdated : undefined} data-outdated={outdated}>
          <Picture means={means} told={told} />
          <ul className={css.said} aria-label="What it says">
            {said.map((sentence, i) => (
              <li key={i}>
                <Said>{sentence}</Said>
              </li>
            ))}
          </ul>
          <Contrasts told={told} />
          <p className={css.foot}>Numbers at their means, other categories at equal weights; p by Holm over the rows.</p>
        </div>
      )}
    </article>
  );
}

function MeansSentence({ means, ladder, told }: { means: Means; ladder: Ladder; told: Told | null }) {
  const { study, store, title } = useStudy();
  const change = (to: Partial<Means>) => store.edit({ subject: "means", id: means.id, to: { ...means, ...to } });
  const isCategory = (name: string) => study.codebook.some((v) => v.name === name && v.kind === "category");
  const step = means.step ?? ladder.steps.length;
  const there = [...new Set(ladder.steps.slice(0, step).flatMap(activeTerms).flatMap((t) => t.components))]; // prettier-ignore
  const others = there.filter((name) => name !== means.variable);
  const labels = told ? [...new Map(told.reading.cells.map((cell) => [cell.at.at(-1)!.label, cell.at.at(-1)!])).values()] : [];
  const against = labels.find((at) => at.label === means.against) ?? labels[0];
  const compared = (value: string) => {
    if (value === "mean" || value === "pairs") change({ compare: value });
    else change({ compare: "one", against: value.slice(1) });
  };
  const words = { mean: "the mean of all", pairs: "each other", one: against ? moderatorPlaceName(against, title) : "the first" };
  return (
    <h3 className={page.sentence}>
      Predicted {ladder.outcome === null ? "outcome" : title(ladder.outcome)} for each{" "}
      <SettingWord
        label="Variable whose means are told"
        main
        value={means.variable}
        text={title(means.variable)}
        choices={there.filter((name) => name !== means.by).map((name) => ({ value: name, label: title(name) }))}
        onChange={(variable) => change({ variable, against: null })}
      />
      {" by "}
      <SettingWord
        label="Told apart by"
        value={means.by ?? "-"}
        text={means.by === null ? "nothing else" : title(means.by)}
        choices={[{ value: "-", label: "nothing else" }, ...others.map((name) => ({ value: name, label: `${title(name)}${isCategory(name) ? "" : " (M ± 1 SD)"}` }))]} // prettier-ignore
        onChange={(by) => change({ by: by === "-" ? null : by })}
      />
      , held against{" "}
      <SettingWord
        label="Held against"
        value={means.compare === "one" ? `=${against?.label ?? ""}` : means.compare}
        text={words[means.compare]}
        choices={[
          { value: "mean", label: "the mean of all" },
          { value: "pairs", label: "each other" },
          ...labels.map((at) => ({ value: `=${at.label}`, label: moderatorPlaceName(at, title) })),
        ]}
        onChange={compared}
      />
      .
    </h3>
  );
}

function Picture({ means, told }: { means: Means; told: Told }) {
  const { title } = useStudy();
  const { reading, ground } = told;
  const series = means.by === null ? [""] : [...new Set(reading.cells.map((cell) => moderatorPlaceName(cell.at[0]!, title)))];
  const sure = new Set(reading.contrasts.filter((c) => c.pHolm !== null && c.pHolm < 1 - ground.confidence).map((c) => c.first));
  const rows: MeansRow[] = [...new Map(reading.cells.map((cell) => [cell.at.at(-1)!.label, cell.at.at(-1)!])).values()].map((at) => ({
    name: moderatorPlaceWords(at, title),
    marks: reading.cells.flatMap((cell, i) =>
      cell.at.at(-1)!.label === at.label && cell.predicted
        ? [
            {
              series: means.by === null ? "" : moderatorPlaceName(cell.at[0]!, title),
              value: cell.predicted.estimate,
              lower: cell.predicted.lower,
              upper: cell.predicted.upper,
              told: sure.has(i),
            },
          ]
        : [],
    ),
  }));
  if (rows.every((row) => row.marks.length === 0)) return null;
  const name = `${title(ground.outcome)} predicted for each ${title(means.variable)}`;
  const cases = means.by === null ? told.cases.get(means.variable) : undefined;
  return (
    <ChartFrame
      title={name}
      note={`n = ${formatCount(ground.n)}, ${formatPercent(ground.confidence)} intervals; filled where told from ${means.compare === "mean" ? "the mean of all" : "what it is held against"}`}
      table={
        <table className={ladders.table} data-testid="means">
          <caption className="visually-hidden">{name}</caption>
          <thead>
            <tr>
              <th scope="col" style={{ textAlign: "left" }}>
                {title(means.variable)}
              </th>
              {cases && <th scope="col">respondents</th>}
              <th scope="col">predicted</th>
              <th scope="col">
                <i>SE</i>
              </th>
              <th scope="col">interval</th>
            </tr>
          </thead>
          <tbody>
            {reading.cells.map((cell) => {
              const e = cell.predicted;
              const print = (v: number | null) => formatNumber(v, decimalsFor(e?.se ?? null));
              return (
                <tr key={cell.key}>
                  <th scope="row">{cellName(cell, title)}</th>
                  {cases && <td>{formatCount(cases.find((c) => c.level === cell.at[0]!.label)?.cases ?? 0)}</td>}
                  <td className={ladders.value}>{print(e?.estimate ?? null)}</td>
                  <td>{print(e?.se ?? null)}</td>
                  <td className={ladders.interval}>{formatInterval(e?.lower ?? null, e?.upper ?? null, print)}</td>
                </tr>
              );
            })}
          </tbody>
        </table>
      }
    >
      <MeansChart
        rows={rows}
        series={series}
        line={means.compare === "mean" && reading.all !== null ? { value: reading.all, name: "mean of all" } : null}
        title={name}
        axis={title(ground.outcome)}
        format={formatNumber}
      />
    </ChartFrame>
  );
}

const MOST_ROWS = 40;

function Contrasts({ told }: { told: Told }) {
  const { title } = useStudy();
  const { reading, ground } = told;
  const shown = reading.contrasts.slice(0, MOST_ROWS);
  return (
    <div className={ladders.scroll}>
      <table className={ladders.table} data-testid="contrasts">
        <caption className="visually-hidden">Differences of predicted outcomes</caption>
        <thead>
          <tr>
            <th scope="col" style={{ textAlign: "left" }}>
              difference
            </th>
            <th scope="col">
              <i>b</i>
            </th>
            <th scope="col">
              <i>SE</i>
            </th>
            <th scope="col">
              <i>t</i>({ground.of.df})
            </th>
            <th scope="col">
              <i>p</i>
            </th>
            <th scope="col">
              <i>p</i> by Holm
            </th>
            <th scope="col">{formatPercent(ground.confidence)} interval</th>
          </tr>
        </thead>
        <tbody>
          {shown.map(({ first, second, found, pHolm }) => {
            const print = (v: number | null) => formatNumber(v, decimalsFor(found?.se ?? null));
            return (
              <tr key={`${first} ${second}`}>
                <th scope="row">
                  {cellName(reading.cells[first]!, title)} − {second === null ? "mean of all" : cellName(reading.cells[second]!, title)}
                </th>
                <td className={ladders.value}>{print(found?.estimate ?? null)}</td>
                <td>{print(found?.se ?? null)}</td>
                <td>{formatNumber(found?.t ?? null)}</td>
                <td>{formatP(found?.p ?? null)}</td>
                <td>{formatP(pHolm)}</td>
                <td className={ladders.interval}>{formatInterval(found?.lower ?? null, found?.upper ?? null, print)}</td>
              </tr>
            );
          })}
        </tbody>
      </table>
      {reading.contrasts.length > MOST_ROWS && (
        <p className={css.foot}>
          The first {MOST_ROWS} of {formatCount(reading.contrasts.length)}; all stand in what the compute command writes.
        </p>
      )}
    </div>
  );
}

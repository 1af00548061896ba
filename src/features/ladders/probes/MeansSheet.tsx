"use client";

import { QuoteThis } from "@/features/study/QuoteThis";
import { useStudy } from "@/features/study/study-context";
import { useAxis } from "@/features/study/use-axis";
import { useAsked } from "@/features/study/use-computed";
import { useReplicates } from "@/features/study/use-replicates";
import { meansCsv } from "@/files/means-csv";
import type { MeansResult } from "@/study/analyse/analyse-means";
import { drawnMeans } from "@/study/analyse/probe-figures";
import { activeTerms, type Ladder } from "@/study/model/ladder";
import type { Means } from "@/study/model/means";
import { decimalsFor, formatCount, formatInterval, formatNumber } from "@/study/report/format-number";
import { meansTable } from "@/study/report/ladder/means-table";
import { cellName, whatTheMeansSay } from "@/study/report/ladder/means-words";
import { meansPicture } from "@/study/report/ladder/means-picture";
import { moderatorPlaceName } from "@/study/report/ladder/probe-words";
import { ChartFrame } from "@/ui/charts/ChartFrame";
import { MeansChart } from "@/ui/charts/MeansChart";
import page from "@/ui/parts/page.module.css";
import { SaveAs } from "@/ui/parts/SaveAs";
import { SettingWord } from "@/ui/parts/SettingWord";
import { useSaveTable } from "../exploratory";
import ladders from "../ladders.module.css";
import { ReplicateState } from "../bootstrap/ReplicateState";
import { ProbeFrame } from "./ProbeFrame";
import css from "./probes.module.css";
import { TestCells, TestHeads } from "./test-cells";
import { ValuesWord } from "./ValuesWord";

type Told = Extract<MeansResult, { status: "told" }>;

/** Predicted outcomes of a step over the levels of a variable: sentence, picture, what they say, and what each is held against. */
export function MeansSheet({ means, ladder }: { means: Means; ladder: Ladder }) {
  const { store, title } = useStudy();
  const saveTable = useSaveTable();
  const computed = useAsked("means", means);
  const { result } = computed;
  const found = result?.status === "told" ? result : null;
  const boot = useReplicates("means", means, null, found !== null);
  const drawn = boot.intervals;
  const told = found && (drawn ? { ...found, reading: drawnMeans(found.reading, found.ground, found.step - 1, drawn) } : found);
  const name = `means of ${title(means.variable)}${means.by === null ? "" : ` by ${title(means.by)}`}`;
  const save = (of: Told, kind: "csv" | "html") => {
    saveTable(name, kind, { csv: () => meansCsv(of), table: () => meansTable(means, of, ladder.name, title) });
  };
  return (
    <ProbeFrame
      id={means.id}
      name={name}
      of={`step ${told?.step ?? Math.min(means.step ?? Infinity, ladder.steps.length)} · predicted means`}
      sentence={<MeansSentence means={means} ladder={ladder} told={told} />}
      computed={computed}
      live={false}
      said={told ? whatTheMeansSay(means, told.reading, told, title) : []}
      picture={told && <Picture means={means} told={told} />}
      quote={
        computed.result && (
          <QuoteThis
            of={{ paragraph: { kind: "means", id: means.id } }}
            part={{ means: new Map([[means.id, computed.result]]), replicates: new Map([[`means ${means.id}`, boot.intervals]]) }}
          />
        )
      }
      onRemove={() => store.edit({ subject: "means", id: means.id, to: null })}
    >
      {told && <ReplicateState boot={boot} testId="means-replicates" />}
      {told && <Contrasts told={told} />}
      <p className={css.foot}>
        Numbers at their means, other categories at equal weights; <i>p</i> by Holm over the rows.
        {drawn && " Intervals from replicates."}
        {told && (
          <>
            {" "}
            <SaveAs onSave={(kind) => save(told, kind)} />
          </>
        )}
      </p>
    </ProbeFrame>
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
      {!isCategory(means.variable) && (
        <>
          {" from "}
          <ValuesWord values={means.values} name={title(means.variable)} onChange={(values) => change({ values, against: null })} />
        </>
      )}
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
  const axis = useAxis();
  const { reading, ground } = told;
  const picture = meansPicture(means, told, title);
  if (!picture) return null;
  const { title: name, series, rows } = picture;
  const cases = means.by === null ? told.cases.get(means.variable) : undefined;
  return (
    <ChartFrame
      title={name}
      note={picture.note}
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
        axis={axis(ground.outcome)}
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
            <TestHeads name={<i>b</i>} df={ground.of.df} holm confidence={ground.confidence} />
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
                <TestCells found={found} print={print} holm={pHolm} />
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

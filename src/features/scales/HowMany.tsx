import { eigenvalueShares } from "@/core/factors/variance-explained";
import type { StructureAnalysis } from "@/study/analyse/analyse-structure";
import { Seed } from "@/study/model/ladder";
import type { Structure } from "@/study/model/structure";
import { formatCount, formatNumber } from "@/study/report/format-number";
import { ChartFrame } from "@/ui/charts/ChartFrame";
import { ScreeChart } from "@/ui/charts/ScreeChart";
import { FieldWord } from "@/ui/parts/FieldWord";
import { SettingWord } from "@/ui/parts/SettingWord";
import { readNumber } from "@/ui/parts/read-number";
import css from "./scales.module.css";

/** How many factors: eigenvalues beside those of random data, as a picture or a table, and how the random data are made. */
export function HowMany({
  structure,
  analysis,
  onChange,
}: {
  structure: Structure;
  analysis: StructureAnalysis;
  onChange: (structure: Structure) => void;
}) {
  return (
    <>
      <Scree analysis={analysis} />
      <RandomData structure={structure} onChange={onChange} />
    </>
  );
}

function Scree({ analysis }: { analysis: StructureAnalysis }) {
  const { retained, sets, percentile } = analysis.parallel;
  const rows = eigenvalueShares(analysis.eigenvalues);
  return (
    <ChartFrame
      title="Eigenvalues beside those of random data"
      note={`n = ${formatCount(analysis.n)}, ${rows.length} items; random data: 95th percentile of ${formatCount(sets)} sets`}
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
            {rows.map(({ variance, percent, upTo }, i) => (
              <tr key={i}>
                <th scope="row">{i + 1}</th>
                <td className={i < retained ? css.main : undefined}>{formatNumber(variance)}</td>
                <td>{formatNumber(percentile[i]!)}</td>
                <td>{formatNumber(percent, 1)}</td>
                <td>{formatNumber(upTo, 1)}</td>
              </tr>
            ))}
          </tbody>
        </table>
      }
    >
      <ScreeChart
        eigenvalues={Array.from(analysis.eigenvalues)}
        random={Array.from(percentile)}
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

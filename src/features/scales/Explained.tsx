import type { FactorSolution } from "@/core/factors/factor-solution";
import { type VarianceShare, varianceStages } from "@/core/factors/variance-explained";
import type { StructureAnalysis } from "@/study/analyse/analyse-structure";
import { formatNumber, formatShare } from "@/study/report/format-number";
import { CorrelationTable } from "@/ui/parts/CorrelationTable";
import page from "@/ui/parts/page.module.css";
import css from "./scales.module.css";

const STAGES = { eigenvalue: "Eigenvalue", extracted: "Extracted", turned: "Turned" };

/** Variance explained before, by the extraction and after turning; how the factors correlate. */
export function Explained({ analysis, solution }: { analysis: StructureAnalysis; solution: FactorSolution }) {
  const { factors: m } = solution;
  const { correlations } = solution.rotated;
  const stages = varianceStages(analysis.eigenvalues, solution);
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
            {stages.map(({ stage, factors, together }) => (
              <tr key={stage}>
                <th scope="row">{STAGES[stage]}</th>
                {[...factors, together].map((share, f) => (
                  <Share key={f} of={share} />
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      {stages.length > 2 && (
        <p className={css.tableNote}>Turned factors are other factors than the extracted ones: compare the totals, not the columns.</p>
      )}
      {correlations && m > 1 && (
        <>
          <h2 className={page.heading}>How the factors correlate</h2>
          <CorrelationTable
            caption="Correlations among the factors"
            names={Array.from({ length: m }, (_, f) => `Factor ${f + 1}`)}
            wording={(f) => `Factor ${f + 1}`}
            r={(a, b) => correlations[a * m + b]!}
            format={formatShare}
          />
        </>
      )}
    </>
  );
}

function Share({ of: { variance, percent } }: { of: VarianceShare }) {
  return (
    <td>
      {formatNumber(variance)} <small className="quiet">{formatNumber(percent, 1)} %</small>
    </td>
  );
}
